import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { expect, test } from "./server";

/** Recall sheets are read back as others read them: the words by `pdftotext`, the fonts by `pdffonts`, what is drawn by `pdftoppm`. */

let folder: string;
test.beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-sheets-"));
});
test.afterAll(() => rmSync(folder, { recursive: true, force: true }));

const read = (command: string, ...args: readonly string[]): string =>
  execFileSync(command, [...args], { encoding: "utf8", maxBuffer: 2 ** 26 });

async function printed(
  page: Page,
  act: () => Promise<void>,
): Promise<{ readonly name: string; readonly file: string }> {
  const begun = page.waitForEvent("download");
  await act();
  const download = await begun;
  const file = join(folder, download.suggestedFilename());
  await download.saveAs(file);
  return { name: download.suggestedFilename(), file };
}

/** Words as they stand, with what is set apart on the page parted by one blank. */
const wordsOf = (file: string): string => read("pdftotext", "-layout", file, "-").replaceAll(/[ \n\f]+/g, " ");

/** Every font of a file: its name, and whether it is embedded. */
const fontsOf = (file: string) =>
  read("pdffonts", file)
    .trim()
    .split("\n")
    .slice(2)
    .map((line) => ({
      name: line.split(/\s+/)[0] ?? "",
      isEmbedded: / yes yes yes /.test(line),
    }));

/** The shades of grey on the first page, and whether there is any colour. */
function inksOf(file: string): { readonly isGrey: boolean; readonly darkest: number } {
  const ppm = execFileSync("pdftoppm", ["-r", "40", "-f", "1", "-l", "1", file], { maxBuffer: 2 ** 26 });
  // "P6", width and height, 255, then three bytes for each point.
  const [head = ""] = /^P6\s\d+\s\d+\s255\s/.exec(ppm.toString("latin1", 0, 40)) ?? [];
  const points = ppm.subarray(head.length);
  let [isGrey, darkest] = [true, 255];
  for (let at = 0; at + 2 < points.length; at += 3) {
    const [red = 0, green = 0, blue = 0] = points.subarray(at, at + 3);
    if (red !== green || green !== blue) isGrey = false;
    darkest = Math.min(darkest, red);
  }
  return { isGrey, darkest };
}

test("a sound is printed from its card: every value, its origin, our fonts embedded, black on white", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?q=${encodeURIComponent('name:="Narrator, close and calm"')}`);
  await page.getByRole("option", { name: /Narrator, close and calm/ }).click();
  await page.getByRole("button", { name: "Keep as a recall sheet, a file or an archive" }).click();
  const { name, file } = await printed(page, () => page.getByRole("menuitem", { name: /Recall sheet/ }).click());
  expect(name).toBe("Narrator, close and calm.pdf");
  await expect(page.getByText(/is saved as Narrator, close and calm\.pdf/)).toBeVisible();
  const words = wordsOf(file);
  for (const told of [
    "Effect chain",
    "Version 3",
    "Folder Voices / Narration",
    "gentle, close, tempo-locked",
    "Ines Maréchal",
    "Cut follows the booth's rumble.",
    "1 Parametric EQ",
    "Band 2 On On Bell 900 Hz −7.0 dB",
    "2 VCA compressor",
    "−24.0 dB",
    "3.0:1",
    "page 1 of 1",
  ])
    expect(words).toContain(told);
  const fonts = fontsOf(file);
  expect(fonts.map((font) => font.name).join(" ")).toMatch(/AtkinsonHyperlegibleNext.*/);
  expect(fonts.map((font) => font.name).join(" ")).toContain("Newsreader");
  expect(fonts.every(({ isEmbedded }) => isEmbedded)).toBe(true);
  const { isGrey, darkest } = inksOf(file);
  expect(isGrey).toBe(true);
  expect(darkest).toBeLessThan(60);
});

test("strips of a project are printed from their menu, with their sends and outputs; the project whole from the list", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await page.locator("#strip-voice").click({ button: "right" });
  const one = await printed(page, () => page.getByRole("menuitem", { name: /Recall sheet/ }).click());
  expect(one.name).toBe("Voice.pdf");
  const words = wordsOf(one.file);
  expect(words).toContain("Strip of Salt Lanterns");
  expect(words).toMatch(/Send to Level Pan Taken On Eighths −\d+\.\d dB C after the fader on Long echo −\d+\.\d dB C/);
  expect(words).toContain("Output Main");

  await page.goto(`${server.url}/projects`);
  await page.getByRole("option", { name: /Salt Lanterns/ }).click({ button: "right" });
  const whole = await printed(page, () => page.getByRole("menuitem", { name: /Recall sheet/ }).click());
  expect(whole.name).toBe("Salt Lanterns.pdf");
  const all = wordsOf(whole.file);
  const { project } = (await (await fetch(`${server.url}/api/projects/salt-lanterns`)).json()) as {
    project: { strips: readonly { look: { name: string } }[] };
  };
  for (const [at, strip] of project.strips.entries()) expect(all).toContain(`${at + 1} ${strip.look.name}`);
  expect(all).toMatch(/page 1 of \d+/);
});

test("a sound of any script is printed, with a mark for letters that no font has", async ({ page, server }) => {
  await page.goto(`${server.url}/library`);
  const answer = await fetch(`${server.url}/api/presets/air-only-just`);
  const { preset } = (await answer.json()) as { preset: { cardRevision: number } };
  const change = { id: "air-only-just", baseCard: preset.cardRevision, card: { name: "Ночь Šárka 600 Ω 声" } };
  const changed = await fetch(`${server.url}/api/presets`, {
    method: "PATCH",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ changes: [change] }),
  });
  expect(changed.status).toBe(200);
  const pdf = await fetch(`${server.url}/api/presets/air-only-just/sheet`);
  expect(pdf.headers.get("content-type")).toBe("application/pdf");
  const file = join(folder, "script.pdf");
  writeFileSync(file, new Uint8Array(await pdf.arrayBuffer()));
  expect(wordsOf(file)).toContain("Ночь Šárka 600 Ω ▯");
  expect(fontsOf(file).every(({ isEmbedded }) => isEmbedded)).toBe(true);
});
