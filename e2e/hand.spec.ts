import { expect, test } from "./server";

/** By keyboard and by the action field; beginnings with nothing there. */

test("apply by Enter from the library, take it back by the button of the word", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/neap-tide`);
  await page.getByRole("row", { name: /Patch noise/ }).click();
  await page.keyboard.press("Alt+1");
  const list = page.getByRole("listbox", { name: "Sounds" });
  await expect(page.getByRole("complementary", { name: "Card" })).toBeVisible();
  await page.keyboard.press("/");
  await page.keyboard.type("rim and air");
  await expect(list.getByRole("option")).toHaveCount(1);
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Applied “Rim and air” to Patch noise")).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  const nodes = async (): Promise<number> => {
    const answer = await fetch(`${server.url}/api/projects/neap-tide`);
    const { project } = (await answer.json()) as {
      project: { strips: { id: string; inserts: { nodes: unknown[] } }[] };
    };
    return project.strips.find((s) => s.id === "patch-noise")!.inserts.nodes.length;
  };
  await expect.poll(nodes).toBe(0);
  // Again, and back by the one key, still in the library.
  for (const [offered, keys, count] of [
    ["Redo", "Control+y", 2],
    ["Undo", "Control+z", 0],
  ] as const) {
    // The window hears of what was done; before that there is nothing to do again.
    await page.keyboard.press("Control+k");
    await page.keyboard.type(offered);
    await expect(page.getByRole("option", { name: new RegExp(`^${offered}: `) })).toBeVisible();
    await page.keyboard.press("Escape");
    await page.keyboard.press(keys);
    await expect.poll(nodes).toBe(count);
  }
  await page.keyboard.press("Alt+3");
  await expect(page.getByRole("row", { name: /Patch noise/ })).toContainText("no plugins");
});

test("what is typed and entered while the list of actions is on its way is done when it comes", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library`);
  await expect(page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first()).toBeVisible();
  await page.waitForLoadState("networkidle");
  await page.route("**/_next/static/chunks/**", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 500));
    await route.continue();
  });
  await page.keyboard.press("Control+k");
  await page.keyboard.type("all projects");
  await page.keyboard.press("Enter");
  await expect(page.locator("[cmdk-list]")).toHaveCount(0);
  await expect(page).toHaveURL(/\/projects$/);
  // It counted once: who clicks into the field later has pressed nothing.
  await page.getByRole("textbox", { name: "Find a sound, a strip, an action" }).click();
  await expect(page.locator("[cmdk-list]").getByRole("option").first()).toBeVisible();
  await expect(page).toHaveURL(/\/projects$/);
});

test("apply by the action field, by the card, and beside the ledger by Enter", async ({ page, server }) => {
  const row = page.getByRole("row", { name: /Vibraphone high/ });
  await page.goto(`${server.url}/projects/neap-tide`);
  await row.click();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("mallets low wood");
  await expect(page.locator("[cmdk-list]").getByRole("option")).toHaveCount(1);
  await page
    .locator("[cmdk-list]")
    .getByRole("option", { name: /Mallets low, wood first/ })
    .click();
  await expect(row).toContainText("Mallets low, wood first");
  await page.keyboard.press("a");
  await page.keyboard.type("reeds softened");
  await expect(page.getByRole("complementary", { name: "Library beside" }).getByRole("option")).toHaveCount(1);
  await page.keyboard.press("Enter");
  await expect(row).toContainText("Harmonium reeds, softened");
  await page.keyboard.press("Alt+1");
  await expect(page.getByRole("navigation", { name: "Folders and filters" })).toBeVisible();
  await page.keyboard.press("/");
  await page.keyboard.type("choir four");
  await page
    .getByRole("listbox", { name: "Sounds" })
    .getByRole("option", { name: /Choir in four parts/ })
    .click();
  await page.getByRole("complementary", { name: "Card" }).getByRole("button", { name: "Plan…" }).click();
  await expect(page.getByRole("button", { name: "Apply 1 change" })).toBeVisible();
  await page.keyboard.press("Control+Enter");
  await expect(row).toContainText("Choir in four parts");
});

test("a plan does what is left on: a row off, a part off, values only", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/slate-and-rain/plan?preset=frame-drum-close&version=1&strips=soprano,bass`);
  await expect(page.getByRole("button", { name: "Apply 7 changes" })).toBeVisible();
  await page.getByRole("button", { name: "Look" }).click();
  await expect(page.getByRole("button", { name: "Apply 6 changes" })).toBeVisible();
  await page.getByRole("checkbox", { name: "All of Soprano" }).click();
  await expect(page.getByRole("button", { name: "Apply 3 changes" })).toBeVisible();
  await page.getByRole("checkbox", { name: "Level of Bass" }).click();
  await page.getByRole("radio", { name: "Values only" }).click();
  await expect(page.getByText("Bass: VCA compressor has no partner here; its values are left out.")).toBeVisible();
  await page.getByRole("button", { name: /^Apply \d+ changes$/ }).click();
  // The ledger opens once the change is kept; the plan has a row of that name, too.
  await expect(page).toHaveURL(/\/projects\/slate-and-rain$/);
  await expect(page.getByRole("row", { name: /Soprano/ })).toContainText("no plugins");
  const { project } = (await (await fetch(`${server.url}/api/projects/slate-and-rain`)).json()) as {
    project: {
      strips: {
        id: string;
        level: { fader: number };
        pan: { pan: number };
        inserts: { nodes: { values: Record<string, number> }[] };
      }[];
    };
  };
  const bass = project.strips.find((s) => s.id === "bass")!;
  expect([
    bass.level.fader,
    bass.pan.pan,
    bass.inserts.nodes.length,
    bass.inserts.nodes[0]!.values["band1.freq"],
  ]).toEqual([-2, 0, 1, 45]);
});

test("an empty library says what to do next, and is filled from there", async ({ page, emptyServer }) => {
  await page.goto(`${emptyServer.url}/library`);
  await expect(page.getByText("Nothing of your own yet.")).toBeVisible();
  await page.getByRole("button", { name: "Start a new sound" }).click();
  await expect(page.getByText("No plugins yet")).toBeVisible();
  await page.keyboard.press("2");
  await page.getByRole("slider", { name: "Ratio", exact: true }).focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Control+s");
  const sheet = page.getByRole("dialog");
  await sheet.getByRole("button", { name: "Save effect chain" }).click();
  await expect(sheet.getByRole("alert")).toHaveText("Give it a name.");
  await sheet.getByLabel("Name", { exact: true }).fill("First of all");
  await sheet.getByLabel("Folder").selectOption({ label: "New folder…" });
  await sheet.getByLabel("Name of the new folder").fill("Firsts");
  await sheet.getByRole("button", { name: "Save effect chain" }).click();
  await expect(page.getByText("version 1, nothing changed")).toBeVisible();
  await expect(sheet).toBeHidden();

  await page.keyboard.press("Alt+4");
  await expect(page.getByText("No projects yet")).toBeVisible();
  await page.getByRole("button", { name: "New project" }).first().click();
  await page.getByLabel("Song").fill("Weir Song");
  await page.getByLabel("Artist").fill("Copper Heron");
  await page.getByLabel("Tempo").fill("84");
  await page.getByRole("button", { name: "Make project" }).click();
  await expect(page.getByRole("heading", { name: "Weir Song" })).toBeVisible();
  await page.keyboard.press("a");
  await expect(page.getByRole("option", { name: /First of all/ })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("row", { name: /First of all/ })).toContainText("Main");

  await page.keyboard.press("Alt+1");
  const sounds = page.getByRole("listbox", { name: "Sounds" }).getByRole("option");
  await page.getByRole("button", { name: /Firsts/ }).click();
  await expect(sounds).toHaveCount(1);
  await page.reload();
  await expect(sounds).toHaveCount(1);
  await expect(page).toHaveURL(/folder=/);
});

test("saving under a taken name asks: a new version of that, or another name", async ({ page, server }) => {
  await page.goto(`${server.url}/bench?project=salt-lanterns&strip=strings`);
  await page.getByRole("button", { name: "Save…" }).click();
  const sheet = page.getByRole("dialog");
  await sheet.getByLabel("Name", { exact: true }).fill("rim AND air");
  await expect(sheet.getByText("“Rim and air” is there already.")).toBeVisible();
  await expect(sheet.getByRole("button", { name: "Save effect chain" })).toBeDisabled();
  await sheet.getByRole("button", { name: "Save as version 2" }).click();
  await expect(page.getByRole("heading", { name: "Rim and air" })).toBeVisible();
  await expect(page.getByText("version 2, nothing changed")).toBeVisible();
});

test("values are typed, stepped, refused in words, reset; a plugin is named, moved, switched, taken out", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench?preset=voice-forward`);
  const chain = page.locator("[role=group][aria-label=Chain] [data-node]");
  await chain.nth(1).click();
  await page.getByRole("button", { name: /^Ratio: / }).click();
  await page.keyboard.type("six");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "is not a value for Ratio" })).toBeVisible();
  await page.keyboard.press("Escape");
  const attack = page.getByRole("slider", { name: "Attack" });
  await attack.focus();
  await page.keyboard.press("Shift+ArrowRight");
  await expect(attack).toHaveAttribute("aria-valuetext", "3.06 ms");
  await attack.dblclick();
  await expect(attack).toHaveAttribute("aria-valuetext", "10 ms");
  await page.getByLabel("Name of this plugin").fill("Front door");
  await page.keyboard.press("Enter");
  await expect(chain.nth(1)).toHaveAccessibleName(/^Front door/);
  await page.locator("body").click({ position: { x: 700, y: 735 } });
  await page.keyboard.press("Alt+ArrowLeft");
  await expect(chain.nth(0)).toHaveAccessibleName(/^Front door/);
  await page.keyboard.press("o");
  await expect(chain.nth(0)).toHaveAccessibleName(/, off/);
  await page.keyboard.press("Delete");
  await expect(chain).toHaveCount(2);
  for (let i = 0; i < 6; i++) await page.keyboard.press("Control+z");
  await expect(page.getByText("version 1, nothing changed")).toBeVisible();
});
