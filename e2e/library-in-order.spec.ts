import type { Page } from "@playwright/test";
import { expect, test } from "./server";

/** A library that is kept in order: filed by keys, its words merged, found by what is missing, its history walked. */

const list = (page: Page) => page.getByRole("listbox", { name: "Sounds" });
const options = (page: Page) => list(page).getByRole("option");

interface Row {
  readonly id: string;
  readonly pack: string | null;
  readonly savedAt: string;
  readonly card: {
    readonly name: string;
    readonly folder: string | null;
    readonly tags: readonly string[];
    readonly rating: number;
    readonly origin: {
      readonly artist?: string;
      readonly performer?: string;
      readonly date?: string;
      readonly from?: { readonly preset: string };
    };
  };
}

async function allRows(page: Page, url: string): Promise<readonly Row[]> {
  const { items } = (await (await page.request.get(`${url}/api/presets?sort=name&limit=500`)).json()) as {
    items: Row[];
  };
  return items;
}

/** How many sounds the list says that it has. */
async function listed(page: Page): Promise<number> {
  const words = await page.getByText(/^(\d+ of )?[\d,]+ sounds? ·/).textContent();
  return Number(/([\d,]+) sounds?/.exec(words ?? "")?.[1]?.replaceAll(",", ""));
}

test("25 sounds are filed by no more than 40 presses, and taken back by one", async ({ page, server }) => {
  await page.goto(`${server.url}/library?sort=name&only=pack:own`);
  await expect(options(page).first()).toBeVisible();
  const before = await allRows(page, server.url);
  const brass = before.filter(({ card }) => card.folder === "brass").length;
  let presses = 0;
  const press = async (keys: string) => {
    presses++;
    await page.keyboard.press(keys);
  };
  await list(page).focus();
  for (let n = 1; n < 25; n++) await press("Shift+ArrowDown");
  await expect(page.getByText(/25 of \d+ chosen/)).toBeVisible();
  await press("f");
  await expect(page.getByRole("combobox", { name: "Into which folder" })).toBeFocused();
  for (const letter of "bras") await press(letter);
  await press("Enter");
  await expect(page.getByText("Move 25 sounds into “Brass”")).toBeVisible();
  expect(presses).toBeLessThanOrEqual(40);
  const filed = (await allRows(page, server.url)).filter(({ card }) => card.folder === "brass").length;
  expect(filed).toBeGreaterThanOrEqual(25);
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Taken back: Move 25 sounds into “Brass”")).toBeVisible();
  expect((await allRows(page, server.url)).filter(({ card }) => card.folder === "brass")).toHaveLength(brass);
});

test("two artists are merged wherever they are named, and parted again by one key", async ({ page, server }) => {
  await page.goto(`${server.url}/library`);
  const before = await allRows(page, server.url);
  const by = (rows: readonly Row[], artist: string) => rows.filter(({ card }) => card.origin.artist === artist).length;
  const [one, other] = ["Copper Heron", "Tidal Clocks"] as const;
  await page.getByRole("button", { name: "Words in order" }).click();
  const sheet = page.getByRole("dialog");
  await sheet.getByRole("radio", { name: "People" }).click();
  for (const artist of [one, other]) await sheet.getByRole("checkbox", { name: artist, exact: true }).click();
  await sheet.getByRole("textbox", { name: "Merge into" }).fill("Heron and Clocks");
  await sheet.getByRole("button", { name: "Merge", exact: true }).click();
  await expect(page.getByText(/^\d+ cards changed/)).toBeVisible();
  const after = await allRows(page, server.url);
  expect(by(after, "Heron and Clocks")).toBe(by(before, one) + by(before, other));
  expect([by(after, one), by(after, other)]).toEqual([0, 0]);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await expect(page.getByText(/^Taken back: Merge/)).toBeVisible();
  const cards = (rows: readonly Row[]) => rows.map(({ id, card }) => [id, card]);
  expect(cards(await allRows(page, server.url))).toEqual(cards(before));
});

test("lists are narrowed whatever is put into their fields, and nothing is refused", async ({ page, server }) => {
  const refused: string[] = [];
  page.on("response", (answer) => answer.status() >= 400 && refused.push(answer.url()));
  await page.goto(`${server.url}/library`);
  await page.getByRole("button", { name: "Words in order" }).click();
  await page.getByRole("textbox", { name: "Find among tags" }).click();
  await page.keyboard.insertText("later hour ".repeat(500));
  await expect(page.getByText("None begins so.")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("region", { name: "Tagged" }).getByRole("button", { name: /^All/ }).click();
  await page.getByRole("textbox", { name: "Find a value of Tagged" }).click();
  await page.keyboard.insertText("later hour ".repeat(500));
  await expect(page.getByRole("dialog").getByRole("checkbox")).toHaveCount(0);
  expect(refused).toEqual([]);
});

test("sounds are found by a stretch, by a slip in a field, by a phrase, and by what is missing", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library`);
  const rows = await allRows(page, server.url);
  const year = ({ card }: Row) => Number(card.origin.date?.slice(0, 4));
  const ways: readonly (readonly [query: string, is: (row: Row) => boolean])[] = [
    ["rating:>=4", ({ card }) => card.rating >= 4],
    ["rating:0", ({ card }) => card.rating === 0],
    ["-tag:*", ({ card }) => card.tags.length === 0],
    ["-folder:*", ({ card }) => card.folder === null],
    ["year:2021..2023", (row) => year(row) >= 2021 && year(row) <= 2023],
    ["saved:<2026", ({ savedAt }) => new Date(savedAt).getFullYear() < 2026],
    ["performer:haldne", ({ card }) => card.origin.performer?.includes("Halden") === true],
    ['name:"wood and rosin"', ({ card }) => card.name.includes("wood and rosin")],
  ];
  for (const [query, is] of ways) {
    const wanted = rows.filter(is).length;
    expect(wanted, query).toBeGreaterThan(0);
    await page.goto(`${server.url}/library?q=${encodeURIComponent(query)}`);
    await expect(options(page).first()).toBeVisible();
    await expect.poll(() => listed(page), { message: query }).toBe(wanted);
  }
});

test("the history of the library takes back one change among others, also one of another window", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?q=${encodeURIComponent('name:"Rim and air"')}`);
  await expect(options(page).first()).toBeVisible();
  await list(page).focus();
  await page.keyboard.press("1");
  await expect(page.getByText("Rate “Rim and air”").first()).toBeVisible();
  const other = await page.context().newPage();
  await other.goto(`${server.url}/library?q=${encodeURIComponent("cello wood rosin")}`);
  await expect(options(other).first()).toBeVisible();
  await list(other).focus();
  await other.keyboard.press("2");
  await expect(other.getByText(/^Rate “Cello/).first()).toBeVisible();
  await other.close();

  await page.getByRole("button", { name: "History", exact: true }).click();
  const sheet = page.getByRole("dialog");
  const lines = sheet.getByRole("region", { name: "What was done" }).getByRole("listitem");
  await expect(lines.filter({ hasText: "Rate “Cello" }).first()).toContainText("window of");
  await expect(lines.filter({ hasText: "Rate “Rim and air”" }).first()).toContainText("this window");
  await sheet.getByRole("textbox", { name: "Find in the history" }).fill("rate rim");
  await expect(lines).toHaveCount(1);
  await sheet.getByRole("button", { name: /^Take back/ }).click();
  await expect(page.getByText("Taken back: Rate “Rim and air”")).toBeVisible();
  await expect(sheet.getByRole("button", { name: /^Do again/ })).toBeVisible();
  await page.keyboard.press("Escape");
  // What is left to be taken back is the other window's, and says so.
  await page.keyboard.press("Control+z");
  await expect(page.getByText(/^Taken back: Rate “Cello.* \(done in another window\)$/)).toBeVisible();
});

test("5,000 at once are tagged, stopped and taken back; near copies among them keep nobody waiting", async ({
  page,
  server,
}) => {
  test.setTimeout(300_000);
  // However slow the machine is: how long it may take is measured by the bench.
  const patient = { timeout: 60_000 };
  const MANY = 5000;
  const { items } = (await (await page.request.get(`${server.url}/api/presets?q=kind:plugin&limit=1`)).json()) as {
    items: { kind: string; content: object; card: object }[];
  };
  const [{ kind, content, card }] = items as [(typeof items)[number]];
  const presets = Array.from({ length: MANY }, (_, n) => ({
    kind,
    content,
    card: { ...card, name: `Of the archive ${n}`, folder: null, tags: [], rating: 0, notes: "archive" },
  }));
  const made = await page.request.post(`${server.url}/api/presets/batch`, { data: { presets } });
  expect(made.status()).toBe(201);
  const total = async (words: string): Promise<number> => {
    const answer = await page.request.get(`${server.url}/api/presets?q=${encodeURIComponent(words)}&limit=1`);
    return ((await answer.json()) as { total: number }).total;
  };

  await page.goto(`${server.url}/library?q=${encodeURIComponent("notes:archive")}`);
  await expect(options(page).first()).toBeVisible();
  await list(page).focus();
  await page.keyboard.press("Control+a");
  await expect(page.getByText("5,000 of 5,000 chosen")).toBeVisible();
  await page.keyboard.press("4");
  await expect.poll(() => total("notes:archive rating:4"), patient).toBe(MANY);
  // What was under way is told in nearly the same words.
  await expect(page.getByText("Rate 5,000 sounds", { exact: true })).toBeVisible(patient);
  await page.keyboard.press("Control+z");
  await expect.poll(() => total("notes:archive rating:4"), patient).toBe(0);
  await expect(page.getByText("Taken back: Rate 5,000 sounds")).toBeVisible(patient);

  // Stopped in the middle, nothing of it has happened.
  await page.keyboard.press("5");
  // The undo has a button of that name, too.
  const rating = page.getByRole("listitem").filter({ hasText: /^Rate 5,000 sounds…/ });
  await rating.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText(/^Rate 5,000 sounds…/)).toHaveCount(0, patient);
  expect([0, MANY]).toContain(await total("notes:archive rating:5"));

  await page.keyboard.press("Control+Alt+c");
  await expect(page.getByRole("dialog", { name: "Near copies" })).toBeVisible();
  await page.getByLabel("Set alike within").selectOption("5");
  let answered = 0;
  const group = page.getByText(`20 of ${MANY} are shown.`);
  while (!(await group.isVisible())) {
    await total("notes:archive");
    answered++;
  }
  expect(answered).toBeGreaterThan(1);
  await page.getByRole("button", { name: "Show 500" }).click();
  await expect(page.getByText(`500 of ${MANY} are shown.`)).toBeVisible(patient);
});
