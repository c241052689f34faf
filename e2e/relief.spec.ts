import { setLevel, rowOf as strip } from "./levels";
import { expect, test } from "./server";

/** What was needed while recording goes, and comes back; and mixes that are kept, by the hand of an engineer. */

interface Node {
  readonly key: string;
  readonly model: string;
  readonly enabled: boolean;
}

interface Strip {
  readonly look: { readonly name: string };
  readonly level: { readonly fader: number };
  readonly inserts: { readonly nodes: readonly Node[] };
}

async function stripsOf(server: { readonly url: string }): Promise<readonly Strip[]> {
  const answer = await fetch(`${server.url}/api/projects/salt-lanterns`);
  return ((await answer.json()) as { project: { strips: Strip[] } }).project.strips;
}

const compressors = (strips: readonly Strip[]): readonly Node[] =>
  strips.flatMap(({ inserts }) => inserts.nodes.filter(({ model }) => model === "vca-compressor"));

const fader = (strips: readonly Strip[], name: string) => strips.find(({ look }) => look.name === name)?.level.fader;

test("all compressors are taken out in one step, and put back behind other changes", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await expect(strip(page, "Cello")).toBeVisible();
  const before = await stripsOf(server);
  const some = compressors(before).length;
  expect(some).toBeGreaterThan(5);
  await page.keyboard.press("Shift+R");
  const sheet = page.getByRole("dialog", { name: "Relieve plugins" });
  await sheet.getByRole("combobox", { name: "What" }).selectOption({ label: `VCA compressor (${some})` });
  await sheet.getByRole("radio", { name: "Take out" }).click();
  await sheet.getByRole("button", { name: `Take out ${some} plugins` }).click();
  await expect(sheet).toBeHidden();
  await expect.poll(async () => compressors(await stripsOf(server)).length).toBe(0);

  await setLevel(page, "Cello", "-11");
  await expect.poll(async () => fader(await stripsOf(server), "Cello")).toBe(-11);
  await page.reload();
  await expect(strip(page, "Cello")).toBeVisible();
  await page.keyboard.press("Shift+B");
  const back = page.getByRole("dialog", { name: "Put back" });
  await expect(back.getByRole("listitem")).toHaveCount(some);
  await back.getByRole("button", { name: `Put back ${some} plugins` }).click();
  await expect(back).toBeHidden();
  await expect.poll(async () => compressors(await stripsOf(server)).length).toBe(some);
  const after = await stripsOf(server);
  expect(after.map(({ inserts }) => inserts)).toEqual(before.map(({ inserts }) => inserts));
  expect(fader(after, "Cello")).toBe(-11);

  await page.keyboard.press("Control+z");
  await expect.poll(async () => compressors(await stripsOf(server)).length).toBe(0);
  await page.keyboard.press("Shift+B");
  await back.getByRole("button", { name: `Put back ${some} plugins` }).click();
  await expect.poll(async () => compressors(await stripsOf(server)).length).toBe(some);
});

test("all levels go back to 0 dB in one step, which is told before, and taken back by one key", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await expect(strip(page, "Cello")).toBeVisible();
  const before = await stripsOf(server);
  await page.keyboard.press("Control+k");
  await page.keyboard.type("Back to empty");
  await page.keyboard.press("Enter");
  const sheet = page.getByRole("dialog", { name: "Back to empty" });
  for (const part of ["Instrument", "Inserts", "Sends", "Pan", "Clips"])
    await sheet.getByRole("toolbar", { name: "Parts" }).getByRole("button", { name: part }).click();
  await expect(sheet.getByText(/^Voice: level −1\.0 → 0\.0 dB/)).toBeVisible();
  await sheet.getByRole("button", { name: "Back to empty" }).click();
  const levels = (strips: readonly Strip[]) => strips.map(({ level }) => level.fader);
  await expect.poll(async () => new Set(levels(await stripsOf(server)))).toEqual(new Set([0]));
  expect((await stripsOf(server)).map(({ inserts }) => inserts)).toEqual(before.map(({ inserts }) => inserts));
  await page.keyboard.press("Control+z");
  await expect.poll(async () => levels(await stripsOf(server))).toEqual(levels(before));
});

test("two mixes are kept by a key, compared by a key each, and returned to", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await expect(strip(page, "Cello")).toBeVisible();
  const keep = async (name: string) => {
    await page.keyboard.press("Shift+K");
    const sheet = page.getByRole("dialog", { name: "Keep this mix" });
    await sheet.getByLabel("Name").fill(name);
    await page.keyboard.press("Enter");
    await expect(sheet).toBeHidden();
  };
  await setLevel(page, "Voice", "-8");
  await page.keyboard.press("Escape");
  await keep("Voice held back");
  await setLevel(page, "Voice", "-2");
  await page.keyboard.press("Escape");
  await keep("Voice out in front");
  await page.keyboard.press("z");
  const kept = page.getByRole("region", { name: "Kept mixes" });
  await expect(kept.getByRole("listitem")).toHaveCount(2);
  await page.keyboard.press("1");
  await expect(strip(page, "Voice")).toContainText("→ −2.0 dB");
  await page.keyboard.press("c");
  await page.keyboard.press("2");
  await expect(strip(page, "Voice")).toContainText("→ −8.0 dB");
  await page.reload();
  await expect(strip(page, "Voice")).toContainText("→ −8.0 dB");
  await page.keyboard.press("1");
  await expect(kept.getByRole("button", { pressed: true })).toContainText("Voice held back");
  await page.keyboard.press("Control+Enter");
  await expect.poll(async () => fader(await stripsOf(server), "Voice")).toBe(-8);
  await expect(kept.getByRole("listitem")).toHaveCount(2);
});
