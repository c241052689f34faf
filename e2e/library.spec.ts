import type { Page } from "@playwright/test";
import { expect, test } from "./server";

/** Naming, filing, finding, comparing: nothing is lost, and one key takes it back. */

const list = (page: Page) => page.getByRole("listbox", { name: "Sounds" });
const options = (page: Page) => list(page).getByRole("option");
const filters = (page: Page) => page.getByRole("navigation", { name: "Folders and filters" });

async function folderOf(page: Page, url: string, id: string): Promise<string | null> {
  const { preset } = (await (await page.request.get(`${url}/api/presets/${id}`)).json()) as {
    preset: { card: { folder: string | null } };
  };
  return preset.card.folder;
}

test("a sound is found three ways: by words with a slip, by a field completed in place, by filters; back brings each again", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library`);
  await expect(options(page).first()).toBeVisible();
  await page.keyboard.press("/");
  await page.keyboard.type("rosinn");
  await expect(page.getByText("Nothing begins with “rosinn”; read as “rosin”.")).toBeVisible();
  await expect(options(page)).toHaveText(/Cello, wood and rosin/);

  await page.keyboard.press("Control+a");
  await page.keyboard.type("cello artist:copp");
  const ways = page.getByRole("listbox", { name: "Ways to go on" });
  await expect(ways.getByRole("option", { name: /Copper Heron/ })).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(page.getByRole("combobox", { name: /Find a sound/ })).toHaveValue('cello artist:"Copper Heron" ');
  await page.keyboard.press("ArrowDown");
  await expect(list(page)).toBeFocused();
  await expect(options(page).first()).toHaveText(/Cello/);

  await page.goto(`${server.url}/library`);
  await filters(page)
    .getByRole("button", { name: /^Channel strip/ })
    .click();
  await expect(page).toHaveURL(/only=kind/);
  await filters(page)
    .getByRole("button", { name: /^Tidal Clocks/ })
    .click();
  await expect(options(page).first()).toHaveText(/Quay vibraphone/);
  const both = await options(page).count();
  await page.reload();
  await expect(options(page)).toHaveCount(both);
  await page.goBack();
  await expect(filters(page).getByRole("button", { name: /^Tidal Clocks/ })).toHaveAttribute("aria-pressed", "false");
});

test("the card of a plugin leads to the chain that holds it, and back", async ({ page, server }) => {
  await page.goto(`${server.url}/library?q=esses`);
  await expect(options(page)).toHaveText([/Maud's esses/]);
  const card = page.getByRole("complementary", { name: "Card" });
  await card.getByRole("button", { name: "Heron voice, verses" }).click();
  await expect(options(page)).toHaveText([/Heron voice, verses/]);
  await page.goBack();
  await expect(options(page)).toHaveText([/Maud's esses/]);
});

test("what is no query is looked for by its words, and said", async ({ page, server }) => {
  await page.goto(`${server.url}/library?q=${encodeURIComponent('taste:sour "')}`);
  await expect(page.getByText("“taste:” is no field; its words were looked for.")).toBeVisible();
  await expect(page.getByText("No sound matches")).toBeVisible();
});

test("twenty sounds are moved by keyboard, tagged together, and taken back by one key each, also after a reload", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?sort=name&only=pack:own`);
  await expect(options(page).first()).toBeVisible();
  await options(page).first().click();
  for (let n = 1; n < 20; n++) await page.keyboard.press("Shift+ArrowDown");
  await expect(page.getByText(/20 of \d+ chosen/)).toBeVisible();
  await page.keyboard.press("f");
  // F, some letters, Enter: three presses and a name.
  await page.getByRole("combobox", { name: "Into which folder" }).pressSequentially("bra");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Move 20 sounds into “Brass”")).toBeVisible();
  await expect(filters(page).getByRole("treeitem", { name: "Brass" })).toContainText(/(2[0-9]|30)/);

  await page.keyboard.press("t");
  await page.getByRole("combobox", { name: "Which tag" }).pressSequentially("rehearsal");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Tag 20 sounds “rehearsal”")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.goto(`${server.url}/library?q=tag:rehearsal`);
  await expect(page.getByText("20 sounds ·")).toBeVisible();

  // The log is on disk: another day, the same two keys.
  await page.keyboard.press("Control+z");
  await expect(page.getByText("No sound matches")).toBeVisible();
  await page.goto(`${server.url}/library`);
  await expect(options(page).first()).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(filters(page).getByRole("treeitem", { name: "Brass" })).toContainText(/^Brass10$/);
});

test("sounds are dragged into a folder; a folder is made, changed and taken away", async ({ page, server }) => {
  await page.goto(`${server.url}/library?q=rim%20and%20air`);
  // What stands above the folders has come: nothing moves below the pointer any more.
  await expect(page.getByRole("button", { name: "Keep this" })).toBeVisible();
  await options(page)
    .filter({ hasText: "Rim and air" })
    .dragTo(filters(page).getByRole("treeitem", { name: "Brass" }));
  await expect(page.getByText("Move “Rim and air”")).toBeVisible();
  expect(await folderOf(page, server.url, "rim-and-air")).toBe("brass");
  await page.getByRole("button", { name: "New folder" }).click();
  await page.getByRole("textbox", { name: "Name" }).fill("Borrowed");
  await page.getByRole("combobox", { name: "In" }).selectOption({ label: "Voices" });
  await page.getByRole("button", { name: "Make the folder" }).click();
  await filters(page).getByRole("treeitem", { name: "Borrowed" }).click();
  await expect(page.getByText("No sound matches")).toBeVisible();
  await filters(page).getByRole("button", { name: "Change" }).click();
  await page.getByRole("textbox", { name: "Name" }).fill("Choir");
  await page.getByRole("button", { name: "Save the folder" }).click();
  await expect(page.getByRole("alert")).toContainText("There is a folder “Choir” here already.");
  await page.getByRole("button", { name: "Take it away" }).click();
  await expect(filters(page).getByRole("treeitem", { name: "Borrowed" })).toHaveCount(0);
});

test("names are given by a pattern, each shown before, a taken one numbered", async ({ page, server }) => {
  await page.goto(`${server.url}/library?folder=main-output&sort=name`);
  await expect(options(page)).toHaveCount(6);
  await options(page).first().click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("r");
  await page.getByRole("combobox", { name: "Pattern" }).fill("Rim and air");
  await expect(page.getByRole("table", { name: "Names before and after" })).toContainText("Rim and air 2");
  await expect(page.getByText("that name is taken").first()).toBeVisible();
  await page.getByRole("combobox", { name: "Pattern" }).fill("Delay {number:2}, {purpose}");
  await page.getByRole("button", { name: "Rename 6 of 6" }).click();
  await expect(options(page).first()).toContainText(/^.*Delay 01, /);
  await page.keyboard.press("Control+z");
  await expect(options(page).filter({ hasText: "Delay 01" })).toHaveCount(0);
});

test("two versions are compared value by value and by ear; the earlier is made the newest, and nothing is lost", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?q=cello+wood`);
  await expect(options(page)).toHaveCount(1);
  await options(page).first().click();
  const card = page.getByRole("complementary", { name: "Card" });
  await card.getByRole("button", { name: "Compare version 1 with the newest" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("row", { name: /Band 1 gain/ })).toContainText("+2.5 dB+3.0 dB");
  await sheet.getByRole("button", { name: "Hear them" }).click();
  await sheet.getByRole("radio", { name: "B", exact: true }).click();
  await expect(page.getByTitle("B: Cello, wood and rosin, version 2")).toBeVisible();
  await sheet.getByRole("button", { name: "Make version 1 the newest" }).click();
  await expect(card).toContainText("version 3");
  await expect(card.getByRole("button", { name: /Compare version/ })).toHaveCount(2);
  await card.getByRole("textbox", { name: "Name of version 3" }).fill("As on the first day");
  await page.keyboard.press("Enter");
  await page.reload();
  await expect(card).toContainText("As on the first day");
});

test("what goes into the bin says who uses it, comes back, and is gone only when that is asked twice", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?q=used:yes`);
  await expect(options(page).first()).toBeVisible();
  const name = (await options(page).first().locator(".name").innerText()).replace(/^[^:]*:\s*/, "").trim();
  await options(page).first().click();
  await page.keyboard.press("Delete");
  await expect(page.getByText(`Put “${name}” into the bin`)).toBeVisible();
  await page.getByRole("button", { name: "Bin", exact: true }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet).toContainText(/used by \d+ strip/);
  await sheet.getByRole("button", { name: `Restore ${name}` }).click();
  await expect(sheet).toContainText("Nothing is in the bin");
  await sheet.getByRole("button", { name: "Close" }).click();
  await expect(options(page).first()).toContainText(name);
  await page.keyboard.press("Delete");
  await page.getByRole("button", { name: "Bin", exact: true }).click();
  await sheet.getByRole("button", { name: "Empty the bin…" }).click();
  await expect(sheet.getByRole("alert")).toContainText("gone for good");
  await sheet.getByRole("button", { name: "Yes, empty it" }).click();
  await expect(sheet).toContainText("Nothing is in the bin");
});

test("a starting point is set from the bench, honoured there, seen among the plugins, and given back", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/bench?preset=two-to-one`);
  await page.getByRole("radio", { name: /^Sounds/ }).click();
  await page.getByRole("button", { name: "Opens with" }).click();
  await page.getByRole("menuitem", { name: "everywhere" }).first().click();
  await expect(page.getByText("VCA compressor now opens with “Two to one, soft knee” everywhere.")).toBeVisible();
  await page.goto(`${server.url}/bench?new=1`);
  await expect(page.getByText("No plugins yet")).toBeVisible();
  await page.keyboard.press("2");
  await expect(page.getByText("Every value is as in “Two to one, soft knee”.")).toBeVisible();
  await page.goto(`${server.url}/plugins`);
  await page.getByRole("option", { name: /VCA compressor/ }).click();
  const start = page.getByRole("combobox", { name: "Opens with, everywhere" });
  await expect(start).toHaveValue("two-to-one");
  await start.selectOption("");
  await page.reload();
  await page.getByRole("option", { name: /VCA compressor/ }).click();
  await expect(start).toHaveValue("");
});

test("a starting point whose preset is gone opens as the maker set it, and says so", async ({ page, server }) => {
  const { revision } = (await (await page.request.get(`${server.url}/api/settings`)).json()) as { revision: number };
  const put = await page.request.put(`${server.url}/api/settings`, {
    data: {
      baseRevision: revision,
      settings: {
        patterns: {},
        searches: [],
        shortcuts: [],
        startingPoints: [{ model: "vca-compressor", strip: null, preset: "two-to-one", version: null }],
        apart: [],
      },
    },
  });
  expect(put.status()).toBe(200);
  await page.request.delete(`${server.url}/api/presets/two-to-one`);
  await page.goto(`${server.url}/bench?preset=tape-a-touch`);
  await expect(page.getByRole("button", { name: /^Tape/ }).first()).toBeVisible();
  await page.keyboard.press("2");
  await expect(page.getByText(/starting point of VCA compressor is not here any more/)).toBeVisible();
  await expect(page.getByRole("button", { name: /^VCA compressor/ }).first()).toBeVisible();
});

/** Opens a page, until the person's own shortcuts are there. */
const withShortcuts = (page: Page, url: string) =>
  Promise.all([page.waitForResponse((r) => r.url().endsWith("/api/settings")), page.goto(url)]);

test("a sound is applied by two keys in a row, and keys that would clash are refused with the reason", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?q=rim`);
  const card = page.getByRole("complementary", { name: "Card" });
  await card.getByRole("button", { name: "Give “Rim and air” a shortcut" }).click();
  await page.keyboard.press("m");
  await expect(card.getByRole("alert")).toHaveText("M is kept for mute.");
  await page.keyboard.press("Escape");
  await card.getByRole("button", { name: "Give “Rim and air” a shortcut" }).click();
  await page.keyboard.press("j");
  await page.keyboard.press("v");
  await page.keyboard.press("Enter");
  await expect(card.getByRole("button", { name: /Shortcut of “Rim and air”: J, V/ })).toBeVisible();
  await withShortcuts(page, `${server.url}/projects/neap-tide`);
  await page.getByRole("row", { name: /Patch noise/ }).click();
  await page.keyboard.press("j");
  await page.keyboard.press("v");
  await expect(page.getByRole("row", { name: /Patch noise/ })).toContainText("Rim and air");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toContainText("Apply “Rim and air”");

  // On the bench it goes into the section that is chosen; what stands around that stays.
  await withShortcuts(page, `${server.url}/bench?preset=harmonium-two-amplifiers`);
  const chain = page.getByRole("group", { name: "Chain" });
  const post = chain.getByRole("region", { name: "Section Post" });
  await expect(post.getByRole("button", { name: "Plate reverb" })).toBeVisible();
  await post.getByRole("button", { name: "Section Post" }).click();
  await page.keyboard.press("j");
  await page.keyboard.press("v");
  await expect(post.getByRole("button", { name: "VCA compressor" })).toBeVisible();
  await expect(post.getByRole("button", { name: "Plate reverb" })).toHaveCount(0);
  await expect(chain.getByRole("button", { name: "Kitchen amp", exact: true })).toBeVisible();
  await expect(chain.getByRole("button", { name: "Opto compressor", exact: true })).toBeVisible();
});

test("a copy is made, found among the near copies, merged, and parted again by one key", async ({ page, server }) => {
  await page.goto(`${server.url}/library?q=vibraphone+halo`);
  await expect(options(page)).toHaveCount(1);
  await options(page).first().click();
  await page.keyboard.press("u");
  await expect(page.getByText("Made a copy of “Vibraphone halo”")).toBeVisible();
  await expect(options(page)).toHaveCount(2);
  await page.getByRole("button", { name: "Near copies" }).click();
  const sheet = page.getByRole("dialog");
  const group = sheet.getByRole("group", { name: /Vibraphone halo, copy/ });
  await group.getByRole("radio", { name: /^Vibraphone halo Tidal Clocks/ }).check();
  await group.getByRole("button", { name: "Merge into “Vibraphone halo”" }).click();
  await expect(group).toHaveCount(0);
  await sheet.getByRole("button", { name: "Close" }).click();
  await expect(options(page)).toHaveCount(1);
  await expect(page.getByRole("complementary", { name: "Card" })).toContainText("merged into it");
  await page.keyboard.press("Control+z");
  await expect(options(page)).toHaveCount(2);
});

test("sounds that are rated one after the other in the moment before a reload are all rated", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?sort=name`);
  await expect(options(page).first()).toBeVisible();
  const rated = async (): Promise<(number | null)[]> => {
    const answer = await page.request.get(`${server.url}/api/presets?sort=name&limit=4`);
    const { items } = (await answer.json()) as { items: { card: { rating: number | null } }[] };
    return items.map(({ card }) => card.rating);
  };
  await options(page).first().click();
  for (const key of ["2", "ArrowDown", "1", "ArrowDown", "2", "ArrowDown", "1"]) await page.keyboard.press(key);
  await page.reload();
  await expect.poll(rated).toEqual([2, 1, 2, 1]);
});

test("the place in the list is kept through the bench and back, and through a reload", async ({ page, server }) => {
  await page.goto(`${server.url}/library?sort=name`);
  await expect(options(page).first()).toBeVisible();
  await list(page).focus();
  await page.keyboard.press("End");
  for (let n = 0; n < 9; n++) await page.keyboard.press("ArrowUp");
  const chosen = list(page).getByRole("option", { selected: true });
  const name = await chosen.locator(".name").textContent();
  const where = await page.getByText(/^\d+ of \d+ sounds/).textContent();
  await page.keyboard.press("b");
  await expect(page).toHaveURL(/\/bench/);
  await page.goBack();
  await expect(chosen.locator(".name")).toHaveText(name ?? "");
  await expect(chosen).toBeInViewport();
  await expect(page.getByText(/^\d+ of \d+ sounds/)).toHaveText(where ?? "");
  await page.reload();
  await expect(chosen.locator(".name")).toHaveText(name ?? "");
});

test("a search is kept under a name, and brings words, filters and folder again", async ({ page, server }) => {
  await page.goto(`${server.url}/library?q=voice&folder=voices`);
  const count = await (async () => {
    await expect(options(page).first()).toBeVisible();
    return options(page).count();
  })();
  await page.getByRole("button", { name: "Keep this" }).click();
  await page.getByRole("textbox", { name: "Name of this search" }).fill("Voices for Thursday");
  await page.keyboard.press("Enter");
  await page.goto(`${server.url}/library`);
  await page.getByRole("button", { name: "Voices for Thursday", exact: true }).click();
  await expect(page).toHaveURL(/q=voice/);
  await expect(page).toHaveURL(/folder=voices/);
  await expect(options(page)).toHaveCount(count);
  await page.getByRole("button", { name: "Voices for Thursday", exact: true }).press("Delete");
  await expect(page.getByText("Let go of the search “Voices for Thursday”").first()).toBeVisible();
  await page.reload();
  await expect(page.getByRole("button", { name: "Voices for Thursday", exact: true })).toHaveCount(0);
});

test("strips are saved from the ledger by a pattern, found again three ways, and a taken name asks", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/projects/ferry-light`);
  await page.getByRole("row", { name: /Nyckelharpa/ }).click();
  await page.keyboard.press("Shift+ArrowDown");
  await page.keyboard.press("Control+s");
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("heading", { name: "Save 2 strips" })).toBeVisible();
  // What the like was filed under is filled in: nobody has to remember.
  await sheet.getByRole("combobox", { name: "Pattern" }).fill("{strip} of {song}, {number:2}");
  await expect(sheet.getByRole("table")).toContainText("as “Nyckelharpa of Ferry Light, 01”");
  await sheet.getByRole("checkbox", { name: "Level of all" }).click();
  await sheet.getByRole("checkbox", { name: "Level of Cello" }).click();
  await sheet.getByRole("button", { name: "Save 2 presets" }).click();
  await expect(page.getByText("Saved 2 presets", { exact: true })).toBeVisible();

  // By words, by fields, by filters.
  const name = "Cello of Ferry Light, 02";
  await page.goto(`${server.url}/library?q=${encodeURIComponent("cello 02")}`);
  await expect(options(page).first()).toContainText(name);
  await page.goto(`${server.url}/library?q=${encodeURIComponent(`name:"${name}"`)}`);
  await expect(options(page)).toHaveText([new RegExp(name)]);
  const card = page.getByRole("complementary", { name: "Card" });
  await expect(card).toContainText("Effect chain");
  await expect(card).toContainText("Bowed");
  await expect(card).toContainText("Oskar Vane");
  await page.goto(`${server.url}/library?sort=saved&folder=bowed&only=${encodeURIComponent('song:"Ferry Light"')}`);
  await expect(options(page).first()).toContainText("of Ferry Light");
  await page.goto(`${server.url}/library?q=${encodeURIComponent("nyckelharpa 01")}`);
  await expect(card).toContainText("Channel strip");
  await expect(card.getByText("Level", { exact: true })).toBeVisible();

  // The same again: the names are taken, and nothing is replaced.
  await page.goto(`${server.url}/projects/ferry-light`);
  await page.getByRole("row", { name: /Cello/ }).locator(".name").click();
  await page.keyboard.press("Control+s");
  await sheet.getByLabel("Name", { exact: true }).fill(name);
  await expect(sheet.getByText(`“${name}” is there already.`)).toBeVisible();
  await expect(sheet.getByRole("button", { name: "Save effect chain" })).toBeDisabled();
  await sheet.getByRole("button", { name: "Save as version 2" }).click();
  // Nothing has changed since: that is no version.
  await expect(page.getByText(`“${name}” is as it was saved in version 1.`)).toBeVisible();
});

test("a pack preset stays as it is; changed on the bench it is found as one's own, and knows where it is from", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?q=${encodeURIComponent("speech clear level")}`);
  const card = page.getByRole("complementary", { name: "Card" });
  await expect(card).toContainText("Included");
  await page.keyboard.press("Delete");
  await expect(page.getByText("all else of it stays as it is.")).toBeVisible();
  await page.keyboard.press("5");
  await expect(card).toContainText("5 of 5");
  await page.keyboard.press("b");
  await expect(page.getByRole("heading", { name: "Speech, clear and level", level: 1 })).toBeVisible();
  const node = page.locator("[role=group][aria-label=Chain] [data-node]").nth(2);
  await node.click();
  const ratio = page.getByRole("slider", { name: "Ratio", exact: true });
  await ratio.focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Control+s");
  const sheet = page.getByRole("dialog");
  await sheet.getByLabel("Name", { exact: true }).fill("Speech of mine");
  await sheet.getByRole("button", { name: "Save effect chain" }).click();
  await expect(page.getByText("Saved “Speech of mine”")).toBeVisible();

  await page.goto(`${server.url}/library?q=speech&only=pack:own`);
  await expect(options(page)).toHaveText([/Speech of mine/]);
  await card.getByRole("button", { name: /Speech, clear and level, version 1/ }).click();
  await expect(page.getByRole("dialog")).toContainText("Ratio");
  await page.keyboard.press("Escape");
  await page.goto(`${server.url}/library?q=speech&only=pack:Included`);
  await expect(options(page)).toHaveText([/Speech, clear and level/]);
  await expect(card).toContainText("version 1");
});

test("new strips begin as the sound that was chosen for their kind, until it is taken back", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?q=${encodeURIComponent('name:"Return, hall"')}`);
  const card = page.getByRole("complementary", { name: "Card" });
  await options(page).first().click();
  await card.getByRole("combobox", { name: "New strips that begin as this" }).selectOption("new return buses");
  await expect(page.getByText("New return buses begin as “Return, hall”.")).toBeVisible();
  await page.goto(`${server.url}/projects/tidemill-tour`);
  const add = async (kind: string) => {
    await page.getByRole("button", { name: "Strip", exact: true }).click();
    await page.getByRole("menuitem", { name: kind }).click();
  };
  await add("Return bus");
  await expect(page.getByRole("row", { name: /Return bus/ })).toContainText("Return, hall");
  await add("Group bus");
  await expect(page.getByRole("row", { name: /Group bus/ })).toContainText("no plugins");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("row", { name: /Group bus/ })).toHaveCount(0);

  await page.reload();
  await page.getByRole("row", { name: /Return bus/ }).click();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("return buses be blank");
  await page.keyboard.press("Enter");
  await expect(page.getByText("New return buses are blank again.")).toBeVisible();
  await add("Return bus");
  await expect(page.getByRole("row", { name: /Return bus 2/ })).toContainText("no plugins");
});

test("names that say too little are mended together, taken back by one key; near copies are kept for good", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library`);
  await expect(options(page).first()).toBeVisible();
  await page.keyboard.press("Control+Alt+r");
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByText("says nothing about the sound").first()).toBeVisible();
  await sheet.getByRole("textbox", { name: "New name of “asdf”" }).fill("Gate, cold room");
  const button = sheet.getByRole("button", { name: /^Rename \d+ of \d+$/ });
  const [, n, of] = /(\d+) of (\d+)/.exec(await button.innerText())!;
  await button.click();
  await expect(page.getByText(`Rename ${n} sounds`)).toBeVisible();
  await expect(sheet.getByRole("textbox")).toHaveCount(Number(of) - Number(n));
  await sheet.getByRole("button", { name: "Close" }).click();
  await page.goto(`${server.url}/library?q=cold%20room%20gate`);
  await expect(options(page).first()).toContainText("Gate, cold room");
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Taken back: Rename")).toBeVisible();
  await page.goto(`${server.url}/library?q=asdf`);
  await expect(options(page)).toHaveText([/asdf/]);

  await page.keyboard.press("Control+Alt+c");
  await sheet.getByLabel("Set alike within").selectOption({ label: "1 % of each ruler" });
  const group = sheet.getByRole("group", { name: /Skin compressor/ });
  await group.getByRole("button", { name: "Keep both" }).click();
  await expect(group).toHaveCount(0);
  await page.reload();
  await expect(options(page).first()).toBeVisible();
  await page.keyboard.press("Control+Alt+c");
  await sheet.getByLabel("Set alike within").selectOption({ label: "1 % of each ruler" });
  await expect(sheet.getByText("1 group was kept as it is.")).toBeVisible();
  await expect(group).toHaveCount(0);
});

test("a variation is made and compared with its original; sounds are filed by artist; a measured tag is taken off", async ({
  page,
  server,
}) => {
  await page.goto(`${server.url}/library?q=${encodeURIComponent('name:"Cello under the voice"')}`);
  const card = page.getByRole("complementary", { name: "Card" });
  await expect(card).toContainText("Measured");
  await page.keyboard.press("v");
  await expect(page.getByRole("heading", { name: "Cello under the voice, variation", level: 1 })).toBeVisible();
  await page.goto(`${server.url}/library?q=${encodeURIComponent("under voice variation")}`);
  await card.getByRole("button", { name: /Cello under the voice, version 4/ }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();

  await page.keyboard.press("Control+k");
  await page.keyboard.type("folder for the artist");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "File 1 sound" }).click();
  await expect(filters(page).getByRole("treeitem", { name: "Copper Heron" })).toContainText("1");
  await expect(page.getByText(/^File “.*” by artist/)).toBeVisible();
  await expect(card.getByRole("button", { name: "Copper Heron", exact: true })).toBeVisible();

  await options(page).first().click();
  await page.keyboard.press("e");
  const sheet = page.getByRole("dialog");
  await sheet.getByRole("button", { name: /measured tag warm/ }).click();
  await sheet.getByRole("button", { name: "Save the card" }).click();
  await expect(
    page.getByText("Tag “Cello under the voice, variation”").or(page.getByText("Change “Cello under")),
  ).toBeVisible();
  await page.goto(`${server.url}/library?q=${encodeURIComponent("measured:warm under voice")}`);
  await expect(options(page)).toHaveText([/^(?!.*variation)/]);
});
