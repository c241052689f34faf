import type { Page } from "@playwright/test";
import { setLevel, rowOf as strip } from "./levels";
import { expect, test } from "./server";

/** The past of a project, by the hand of an engineer. */

interface Strip {
  readonly id: string;
  readonly look: { readonly name: string };
  readonly level: { readonly fader: number; readonly mute: boolean };
}

async function stripsOf(server: { readonly url: string }, at = ""): Promise<ReadonlyMap<string, Strip>> {
  const answer = await fetch(`${server.url}/api/projects/salt-lanterns${at}`);
  const { project } = (await answer.json()) as { project: { strips: Strip[] } };
  return new Map(project.strips.map((strip) => [strip.look.name, strip]));
}

const moments = (page: Page) => page.getByRole("listbox", { name: "What was done" });

test("when the cello's level changed is found, and that alone is taken back", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  const before = await stripsOf(server);
  await setLevel(page, "Cello", "-11");
  await setLevel(page, "Voice", "-9");
  await expect.poll(async () => (await stripsOf(server)).get("Voice")?.level.fader).toBe(-9);
  const then = await stripsOf(server);

  await page.keyboard.press("z");
  await page.getByRole("textbox", { name: "Find in the past" }).fill("level of cello since yesterday");
  await expect(moments(page).getByRole("option")).toHaveCount(1);
  await page.getByRole("textbox", { name: "Find in the past" }).fill("");
  await expect(moments(page).getByRole("option")).toHaveCount(3);
  await moments(page).focus();
  await page.keyboard.press("End");
  await expect(strip(page, "Cello")).toContainText("→ −11.0 dB");
  await expect(strip(page, "Voice")).toContainText("→ −9.0 dB");
  await page.reload();
  await expect(page).toHaveURL(/at=0/);
  await strip(page, "Cello").click();
  await expect(page.getByRole("region", { name: "What differs of Cello" })).toContainText("−11.0 dB");
  await page.keyboard.press("Shift+Enter");
  await page.getByRole("button", { name: /^Choice of parts/ }).click();
  await page.getByRole("menuitem", { name: "Level and pan" }).click();
  await page.getByRole("button", { name: /^Apply 1 change/ }).click();
  await expect.poll(async () => (await stripsOf(server)).get("Cello")).toEqual(before.get("Cello"));
  const after = await stripsOf(server);
  for (const [name, was] of then) if (name !== "Cello") expect(after.get(name)).toEqual(was);
});

test("a moment is returned to by one key, and the return is taken back by another", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  const before = await stripsOf(server, "/revisions/0");
  await setLevel(page, "Cello", "-11");
  await setLevel(page, "Voice", "-9");
  await expect.poll(async () => (await stripsOf(server)).get("Voice")?.level.fader).toBe(-9);
  const then = await stripsOf(server);
  await page.getByRole("button", { name: "Look back" }).click();
  await moments(page).getByRole("option", { name: "Its beginning" }).click();
  await page.keyboard.press("Control+Enter");
  await expect.poll(() => stripsOf(server)).toEqual(before);
  await expect(moments(page).getByRole("option", { name: /Return to its beginning/ })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect.poll(() => stripsOf(server)).toEqual(then);
  await page.keyboard.press("Escape");
  await expect(page).toHaveURL(/\/projects\/salt-lanterns$/);
});

test("a strip as it was is opened on the bench, clearly as then, and the project stays as it is", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await setLevel(page, "Voice", "-9");
  await expect.poll(async () => (await stripsOf(server)).get("Voice")?.level.fader).toBe(-9);
  const now = await stripsOf(server);
  await page.keyboard.press("z");
  await moments(page).focus();
  await page.keyboard.press("End");
  await strip(page, "Voice").click();
  await page.getByRole("button", { name: "On the bench" }).click();
  await expect(
    page.getByText(/^as it was: Voice of Salt Lanterns, .* a copy, nothing here changes the project/),
  ).toBeVisible();
  await expect(page).toHaveURL(/draft=/);
  await page.reload();
  await expect(page.getByText(/^as it was: Voice of Salt Lanterns/)).toBeVisible();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("o");
  await expect(page.getByRole("button", { name: "Undo" })).toBeEnabled();
  expect(await stripsOf(server)).toEqual(now);
  await page.goBack();
  await expect(moments(page)).toBeVisible();
});
