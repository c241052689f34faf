import type { Page } from "@playwright/test";
import { expect, test } from "./server";

/** The way from the bench to a project, from start to end, by the hand of an engineer. */

const slider = (page: Page, name: string) => page.getByRole("slider", { name, exact: true });

async function setValue(page: Page, name: string, value: string): Promise<void> {
  await page.getByRole("button", { name: new RegExp(`^${name}: `) }).click();
  await page.getByRole("textbox", { name, exact: true }).fill(value);
  await page.keyboard.press("Enter");
}

/** The loudness that the listening bar tells, in LUFS. */
const loudness = async (page: Page): Promise<number> => {
  const text = await page.getByRole("button", { name: /Loudness before matching/ }).innerText();
  return Number(/([−\d.]+)\s*LUFS/.exec(text)?.[1]?.replace("−", "-"));
};

test("from the bench to a project, and back after a power cut", async ({ page, server }) => {
  test.setTimeout(360_000);

  await test.step("arrow through presets while the material plays", async () => {
    await page.goto(`${server.url}/library`);
    const list = page.getByRole("listbox", { name: "Sounds" });
    await expect(list.getByRole("option").first()).toContainText("Narrator, close and calm");
    await page.keyboard.press("Space");
    await expect(page.getByRole("button", { name: "Stop" })).toHaveAttribute("aria-pressed", "true");
    for (let i = 0; i < 3; i++) await page.keyboard.press("ArrowDown");
    const chosen = list.getByRole("option", { selected: true });
    await expect(chosen).toContainText("Main output, tour files");
    expect(await chosen.locator("svg.plot path.line").count()).toBeGreaterThanOrEqual(3);
    await expect(page.getByRole("radio", { name: /^A Main output, tour files/ })).toBeVisible();
    await page.keyboard.press("/");
    await page.keyboard.type("rosin warm");
    await expect(list.getByRole("option")).toHaveCount(1);
    await expect(list.getByRole("option")).toContainText("Cello, wood and rosin");
    await page.keyboard.press("Escape");
    await page.keyboard.press("Space");
  });

  await test.step("open the cello strip on the bench", async () => {
    await page.keyboard.press("Alt+4");
    await page.getByRole("option", { name: /Salt Lanterns/ }).click();
    await page.getByRole("row", { name: /Cello/ }).click();
    await page.keyboard.press("b");
    await expect(page.getByRole("heading", { name: "Cello", level: 1 })).toBeVisible();
    await expect(page.getByText("No plugins yet")).toBeVisible();
  });

  await test.step("a low shelf for warmth, and the nose taken out by dragging the curve", async () => {
    await page.keyboard.press("1");
    const plot = page.getByRole("group", { name: "Response of the equaliser" });
    await page.getByRole("button", { name: "Add a band" }).click();
    await page.getByRole("combobox", { name: "Band 1 type" }).selectOption({ label: "low shelf" });
    await setValue(page, "Band 1 frequency", "150");
    await setValue(page, "Band 1 gain", "2.5");
    const box = (await plot.boundingBox())!;
    const x = box.x + (Math.log(980 / 20) / Math.log(1000)) * box.width;
    await page.mouse.move(x, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(x, box.y + box.height * 0.6, { steps: 4 });
    await page.mouse.move(x, box.y + box.height * (0.5 + 5 / 30), { steps: 4 });
    await page.mouse.up();
    const nose = page.getByRole("slider", { name: "Band 2, bell" });
    await expect(nose).toHaveAttribute("aria-valuetext", /^9[78]\d(\.\d)? Hz, −5\.0 dB$/);
  });

  await test.step("a gentle compressor and a quiet delay that follows the tempo", async () => {
    await page.keyboard.press("2");
    await expect(slider(page, "Threshold")).toBeVisible();
    await setValue(page, "Threshold", "-22");
    await setValue(page, "Ratio", "2.5:1");
    await page.getByRole("radio", { name: "Automatic" }).click();
    await page.keyboard.press("Escape");
    await page.locator("body").click({ position: { x: 700, y: 700 } });
    await page.keyboard.press("3");
    await expect(slider(page, "Wet")).toBeVisible();
    await setValue(page, "Tap 1 time", "1/8 dotted");
    await setValue(page, "Wet", "-24 dB");
    await expect(slider(page, "Tap 1 time")).toHaveAttribute("aria-valuetext", "1/8 dotted");
    // 60000 / 92 × 0.75 = 489 ms.
    await expect(page.getByText("489 ms")).toBeVisible();
    await expect(page.locator("[role=group][aria-label=Chain] [data-node]")).toHaveCount(3);
  });

  await test.step("dry against processed at matched loudness", async () => {
    await expect(page.getByRole("switch", { name: "Match loudness" })).toBeChecked();
    await page.keyboard.press("Space");
    await page.keyboard.press("d");
    await expect(page.getByRole("radio", { name: "Dry" })).toBeChecked();
    await expect.poll(() => loudness(page)).toBeCloseTo(-18.3, 1);
    await page.keyboard.press("d");
    await expect.poll(() => loudness(page)).not.toBeCloseTo(-18.3, 1);
    await page.keyboard.press("Space");
  });

  await test.step("undo and redo", async () => {
    await page.keyboard.press("Control+z");
    await expect(slider(page, "Wet")).toHaveAttribute("aria-valuetext", "−12.0 dB");
    await page.keyboard.press("Control+Shift+Z");
    await expect(slider(page, "Wet")).toHaveAttribute("aria-valuetext", "−24.0 dB");
  });

  await test.step("save the chain under a name, a folder and tags", async () => {
    await page.keyboard.press("Control+s");
    const sheet = page.getByRole("dialog");
    await expect(sheet.getByText("effect chain · 3 plugins")).toBeVisible();
    const goesIn = sheet.getByRole("table", { name: "What goes in" });
    for (const name of ["Parametric EQ", "VCA compressor", "Multi-tap delay"])
      await expect(goesIn.getByText(name, { exact: true }).last()).toBeVisible();
    await expect(goesIn.getByRole("checkbox", { name: "Inserts of Cello" })).toBeChecked();
    await expect(goesIn.getByRole("checkbox", { name: "Level of Cello" })).not.toBeChecked();
    await expect(sheet.getByText("Left out: sends, level, pan, output, look.")).toBeVisible();
    await sheet.getByLabel("Name", { exact: true }).fill("Cello, nose out");
    await sheet.getByLabel("Folder").selectOption({ label: "Bowed" });
    await sheet.getByLabel("Tags").fill("warm, tempo-locked");
    await sheet.getByRole("button", { name: "Save effect chain" }).click();
    await expect(sheet).toBeHidden();
    await expect(page.getByRole("heading", { name: "Cello, nose out", level: 1 })).toBeVisible();
    await expect(page.getByText("version 1, nothing changed")).toBeVisible();
  });

  const faders = async (): Promise<unknown> => {
    const { project } = (await (await fetch(`${server.url}/api/projects/neap-tide`)).json()) as {
      project: { strips: { id: string; level: unknown; pan: unknown }[] };
    };
    return project.strips.map(({ id, level, pan }) => ({ id, level, pan }));
  };
  const before = await faders();

  await test.step("choose two strips of Tidal Clocks' project and plan the chain onto them", async () => {
    await page.keyboard.press("Alt+4");
    await page.getByRole("option", { name: /Neap Tide/ }).click();
    await page.getByRole("row", { name: /Bowed bars/ }).click();
    await page.getByRole("row", { name: /Patch line/ }).click({ modifiers: ["Control"] });
    await expect(page.getByText("2 strips chosen")).toBeVisible();
    await page.keyboard.press("a");
    await page.keyboard.type("nose out");
    const beside = page.getByRole("complementary", { name: "Library beside" });
    await expect(beside.getByRole("option")).toHaveCount(1);
    await page.keyboard.press("Shift+Enter");
    await expect(page.getByRole("heading", { name: "Apply “Cello, nose out”" })).toBeVisible();
    const row = page.getByRole("row", { name: /Patch line/ });
    await expect(row).toContainText("before");
    await expect(row).toContainText("after");
    await expect(row).toContainText("stays −6.5 dB");
    await expect(row).toContainText("stays L 8");
    await expect(page.getByText("Patch line: replace 1 plugin by 3 of Cello, nose out.")).toBeVisible();
    await expect(page.getByText("Bowed bars: put in 3 plugins of Cello, nose out.")).toBeVisible();
    // 60000 / 118 × 0.75 = 381 ms.
    await expect(page.getByText("1/8 dotted is 381 ms")).toBeVisible();
    await page.getByRole("button", { name: "Apply 2 changes" }).click();
  });

  const applied = async (): Promise<void> => {
    for (const strip of ["Bowed bars", "Patch line"])
      await expect(page.getByRole("row", { name: new RegExp(strip) })).toContainText("Cello, nose out");
  };

  await test.step("faders and pans have not moved; undo, redo", async () => {
    await applied();
    expect(await faders()).toEqual(before);
    await page.keyboard.press("Control+z");
    await expect(page.getByRole("row", { name: /Bowed bars/ })).toContainText("no plugins");
    await page.keyboard.press("Control+y");
    await applied();
  });

  await test.step("kill -9; everything is there, undo included", async () => {
    await server.kill9();
    await server.start();
    await page.reload();
    await applied();
    expect(await faders()).toEqual(before);
    await page.keyboard.press("Control+z");
    await expect(page.getByRole("row", { name: /Bowed bars/ })).toContainText("no plugins");
    await page.keyboard.press("Control+Shift+Z");
    await applied();
  });

  await test.step("one value changed: it says so", async () => {
    await page
      .getByRole("row", { name: /Bowed bars/ })
      .locator(".name")
      .click();
    await page.keyboard.press("b");
    await page
      .getByRole("group", { name: "Chain" })
      .getByRole("button", { name: /^VCA compressor/ })
      .click();
    await slider(page, "Threshold").focus();
    await page.keyboard.press("ArrowDown");
    await expect(page.getByText("1 value differs from version 1")).toBeVisible();
    const differs = page.getByRole("complementary", { name: "Beside the bench" });
    await expect(differs).toContainText("−22.0 dB → −22.5 dB");
    await page.keyboard.press("Alt+3");
    await expect(page.getByRole("row", { name: /Bowed bars/ })).toContainText("differs by 1 value");
    await page.keyboard.press("Alt+2");
  });

  await test.step("a new version; the old one can still be opened", async () => {
    await expect(page.getByText("1 value differs from version 1")).toBeVisible();
    await page.keyboard.press("Control+s");
    await expect(page.getByText("version 2, nothing changed")).toBeVisible();
    await page.keyboard.press("Alt+1");
    await page.getByRole("option", { name: /Cello, nose out/ }).click();
    const card = page.getByRole("complementary", { name: "Card" });
    await card.getByRole("button", { name: /^1 / }).click();
    await expect(card).toContainText("version 1 of 2");
    await expect(card).toContainText("thr −22.0dB");
    await card.getByRole("button", { name: "Open on the bench" }).click();
    await expect(page.getByText("from the library · version 1 of 2, nothing changed")).toBeVisible();
    await page
      .getByRole("group", { name: "Chain" })
      .getByRole("button", { name: /^VCA compressor/ })
      .click();
    await expect(slider(page, "Threshold")).toHaveAttribute("aria-valuetext", "−22.0 dB");
  });
});
