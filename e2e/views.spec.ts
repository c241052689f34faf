import type { Page } from "@playwright/test";
import { rowOf, setLevel } from "./levels";
import { expect, test } from "./server";

/** What is shown of a project, by a key; what was done in a day, in words. */

const rows = (page: Page) => page.getByRole("grid", { name: "Strips" }).locator("[role=row][data-strip]");

const named = (page: Page) => rows(page).locator(".name").allTextContents();

const stripsOf = async (server: { readonly url: string }): Promise<unknown> =>
  (
    (await (await fetch(`${server.url}/api/projects/salt-lanterns`)).json()) as {
      project: { strips: unknown };
    }
  ).project.strips;

test("only the drums, by a key: kept under a name, also after a reload, and nothing is heard otherwise", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await expect(rowOf(page, "Cello")).toBeVisible();
  const before = await stripsOf(server);
  const all = await named(page);
  await page.locator("#strip-drum .name").click();
  await page.keyboard.press("Shift+H");
  const drums = ["Drum", "Frame drum close", "Frame drum rim", "Frame drum far"];
  await expect.poll(() => named(page)).toEqual(drums);
  await expect(page.getByText("4 of 12 strips")).toBeVisible();
  await page.keyboard.press("v");
  const sheet = page.getByRole("dialog", { name: "Keep this view" });
  await sheet.getByRole("textbox", { name: "Name" }).fill("Only drums");
  await page.keyboard.press("Enter");
  await expect(sheet).toBeHidden();

  await page.keyboard.press("0");
  await expect.poll(() => named(page)).toEqual(all);
  await rowOf(page, "Voice").locator(".name").click();
  await page.keyboard.press("1");
  await expect.poll(() => named(page)).toEqual(drums);
  // What is hidden is in nobody's hand.
  await expect(page.getByText("None chosen: a sound makes a new strip")).toBeVisible();
  await page.reload();
  await expect.poll(() => named(page)).toEqual(drums);
  expect(await stripsOf(server)).toEqual(before);

  // A strip that comes in hand is shown, whatever hides it; the view is told to be changed.
  await page.keyboard.press("Control+K");
  await page.keyboard.type("Cello");
  await page.getByRole("option", { name: "Cello strip", exact: true }).click();
  await expect.poll(() => named(page)).toContain("Cello");
  await expect(page.getByText("changed", { exact: true })).toBeVisible();
  await page.keyboard.press("1");
  await expect.poll(() => named(page)).toEqual(drums);
});

test("only sends, with nothing beside: columns are part of a view, and a digit of a level is no view", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await expect(rowOf(page, "Cello")).toBeVisible();
  const hide = async (column: string) => {
    await page.getByRole("button", { name: "Columns" }).click();
    await page.getByRole("menuitem", { name: `${column} shown` }).click();
    await expect(page.getByRole("menu")).toBeHidden();
  };
  for (const column of ["Source", "Inserts", "Keyed by", "Pan", "To"]) await hide(column);
  await page.getByRole("grid", { name: "Strips" }).focus();
  await page.keyboard.press("v");
  const sheet = page.getByRole("dialog", { name: "Keep this view" });
  await sheet.getByRole("textbox", { name: "Name" }).fill("Only sends");
  await sheet.getByRole("combobox", { name: "Key" }).selectOption("5");
  await sheet.getByRole("textbox", { name: "Name" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog")).toBeHidden();
  await page.keyboard.press("0");
  const heads = page.getByRole("columnheader");
  await expect(heads).toHaveCount(8);
  await page.keyboard.press("5");
  await expect(heads).toHaveText(["Strip", "Sends", "Level"]);
  await setLevel(page, "Cello", "-5");
  await expect(rowOf(page, "Cello")).toContainText("−5.0");
  await expect(heads).toHaveText(["Strip", "Sends", "Level"]);
});

test("strips are found by words, and left by Escape", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await expect(rowOf(page, "Cello")).toBeVisible();
  const all = await named(page);
  await page.keyboard.press("f");
  await page.getByRole("textbox", { name: "Find strips" }).fill("strings");
  await expect.poll(() => named(page)).toEqual(["Strings", "Nyckelharpa", "Cello"]);
  await page.getByRole("textbox", { name: "Find strips" }).fill("nothing like it");
  await expect(page.getByText("No strip is shown")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect.poll(() => named(page)).toEqual(all);
});

test("what was done in a day is told in words, and kept with a mix", async ({ page, server }) => {
  await page.goto(`${server.url}/projects/salt-lanterns`);
  await expect(rowOf(page, "Cello")).toBeVisible();
  await setLevel(page, "Cello", "-11");
  await setLevel(page, "Voice", "-9");
  await expect(page.getByText(/undo “Level/)).toBeVisible();
  await page.keyboard.press("z");
  await page.getByRole("listbox", { name: "What was done" }).focus();
  await page.keyboard.press("End");
  await page.getByRole("button", { name: "In words…" }).click();
  const words = page.getByRole("dialog");
  await expect(words).toContainText("Cello");
  await expect(words).toContainText("−11.0 dB");
  await expect(words).toContainText("−9.0 dB");
  await page.keyboard.press("Escape");
  await page.getByRole("listbox", { name: "What was done" }).focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+K");
  const keep = page.getByRole("dialog", { name: "Keep this mix" });
  await keep.getByRole("button", { name: /^Write what was done/ }).click();
  await expect(keep.getByRole("textbox", { name: "Note" })).toHaveValue(/Cello[^]*−11\.0 dB/);
});
