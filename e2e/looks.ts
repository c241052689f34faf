import type { Page } from "@playwright/test";
import { expect } from "./server";

/** Each screen, sheet and pane: its name, its address, and what is done until it stands there. */
export type Look = readonly [name: string, path: string, ready: (page: Page) => Promise<void>];

export const LOOKED_AT: readonly Look[] = [
  ["library", "/library", async (page) => expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible()],
  [
    "library, nothing found",
    "/library?q=zzz",
    async (page) => expect(page.getByText("No sound matches")).toBeVisible(),
  ],
  [
    "library, filters chosen",
    "/library?only=artist%3A%22Copper%20Heron%22&q=warm",
    async (page) => expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible(),
  ],
  [
    "card of many",
    "/library",
    async (page) => {
      await page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first().click();
      await page.keyboard.press("Shift+ArrowDown");
      await page.keyboard.press("e");
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "names by pattern",
    "/library",
    async (page) => {
      await page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first().click();
      await page.keyboard.press("Control+a");
      await page.keyboard.press("r");
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "two versions",
    "/library?q=cello+wood",
    async (page) => {
      await page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first().click();
      await page.keyboard.press("c");
      await expect(page.getByRole("row", { name: /Band 1 gain/ })).toBeVisible();
    },
  ],
  ...(["f", "t"] as const).map(
    (key): Look => [
      key === "f" ? "moved by letters" : "tagged by letters",
      "/library?only=pack:own",
      async (page) => {
        await page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first().click();
        await page.keyboard.press("Shift+ArrowDown");
        await page.keyboard.press(key);
        await expect(page.getByRole("dialog").getByRole("option").nth(3)).toBeVisible();
      },
    ],
  ),
  [
    "filed by artist",
    "/library?only=pack:own",
    async (page) => {
      await page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first().click();
      await page.keyboard.press("Control+a");
      await page.keyboard.press("Control+k");
      await page.keyboard.type("folder for the artist");
      await page.keyboard.press("Enter");
      await expect(page.getByRole("dialog").getByRole("button", { name: /^File \d+ sounds$/ })).toBeVisible();
    },
  ],
  [
    "words in order",
    "/library",
    async (page) => {
      await page.getByRole("button", { name: "Words in order" }).click();
      await page.getByRole("dialog").getByRole("checkbox").first().click();
      await expect(page.getByRole("dialog").getByRole("button", { name: "Take away" })).toBeVisible();
    },
  ],
  [
    "history of the library",
    "/library",
    async (page) => {
      await page.getByRole("listbox", { name: "Sounds" }).getByRole("option").first().click();
      await page.keyboard.press("3");
      await expect(page.getByText(/^Rate/).first()).toBeVisible();
      await page.getByRole("button", { name: "History", exact: true }).click();
      await expect(
        page
          .getByRole("dialog")
          .getByRole("button", { name: /^Take back/ })
          .first(),
      ).toBeVisible();
    },
  ],
  [
    "all values of a field",
    "/library",
    async (page) => {
      await page.getByRole("button", { name: "Still to do" }).click();
      await page.getByRole("region", { name: "Tagged" }).getByRole("button", { name: /^All/ }).click();
      await expect(page.getByRole("dialog").getByRole("checkbox").first()).toBeVisible();
    },
  ],
  [
    "bin",
    "/library",
    async (page) => {
      await page.getByRole("button", { name: "Bin", exact: true }).click();
      await expect(page.getByRole("dialog")).toContainText("Nothing is in the bin");
    },
  ],
  [
    "new folder",
    "/library",
    async (page) => {
      await page.getByRole("button", { name: "New folder" }).click();
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "near copies",
    "/library",
    async (page) => {
      await page.getByRole("button", { name: "Near copies" }).click();
      await expect(page.getByRole("dialog")).toContainText("group");
    },
  ],
  [
    "names to mend",
    "/library",
    async (page) => {
      await page.getByRole("button", { name: "Names to mend" }).click();
      await expect(page.getByRole("dialog").getByRole("textbox").first()).toBeVisible();
    },
  ],
  [
    "card of a sound, to be changed",
    "/library?q=echo%20into%20fog",
    async (page) => {
      await page.getByRole("button", { name: "Change", exact: true }).first().click();
      await expect(page.getByRole("dialog")).toContainText("measured:");
    },
  ],
  [
    "save sheet of several strips",
    "/projects/ferry-light",
    async (page) => {
      await page.getByRole("row", { name: /Nyckelharpa/ }).click();
      await page.keyboard.press("Shift+ArrowDown");
      await page.keyboard.press("Shift+ArrowDown");
      await page.keyboard.press("Control+s");
      await expect(page.getByRole("dialog")).toContainText("Save 3 presets");
    },
  ],
  ["plugins", "/plugins", async (page) => expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible()],
  ["bench, nothing on it", "/bench", async (page) => expect(page.getByText("Nothing is on the bench")).toBeVisible()],
  ["bench, new sound", "/bench?new=1", async (page) => expect(page.getByText("No plugins yet")).toBeVisible()],
  [
    "bench, equaliser",
    "/bench?project=tidemill-tour&strip=narrator",
    async (page) => expect(page.getByRole("group", { name: "Response of the equaliser" })).toBeVisible(),
  ],
  [
    "bench, compressor",
    "/bench?project=salt-lanterns&strip=voice",
    async (page) => {
      await page.getByRole("button", { name: /^Catch/ }).click();
      await expect(page.getByRole("group", { name: "Transfer line" })).toBeVisible();
    },
  ],
  [
    "bench, delay",
    "/bench?preset=vibraphone-halo",
    async (page) => {
      await page.getByRole("button", { name: /^Multi-tap delay/ }).click();
      await expect(page.getByRole("group", { name: "Taps in time and pan" })).toBeVisible();
    },
  ],
  [
    "projects",
    "/projects",
    async (page) => expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible(),
  ],
  [
    "projects, two beside each other",
    "/projects/salt-lanterns/beside?with=ferry-light",
    async (page) => expect(page.getByRole("row", { name: /Nyckelharpa/ })).toBeVisible(),
  ],
  [
    "ledger, only what is asked for",
    "/projects/salt-lanterns",
    async (page) => {
      await page.locator("#strip-drum .name").click();
      await page.keyboard.press("Shift+H");
      await expect(page.getByText("4 of 12 strips")).toBeVisible();
    },
  ],
  [
    "ledger, a view that is to be kept",
    "/projects/salt-lanterns",
    async (page) => {
      await expect(page.getByRole("row", { name: /Nyckelharpa/ })).toBeVisible();
      await page.keyboard.press("v");
      await expect(page.getByRole("dialog", { name: "Keep this view" })).toBeVisible();
    },
  ],
  [
    "ledger",
    "/projects/salt-lanterns",
    async (page) => expect(page.getByRole("row", { name: /Nyckelharpa/ })).toBeVisible(),
  ],
  [
    "ledger, strips of other projects beside",
    "/projects/salt-lanterns",
    async (page) => {
      await page.getByRole("radio", { name: "Strips of projects" }).click();
      await page.getByRole("textbox", { name: "Find a strip of any project" }).fill("voice");
      await expect(page.getByRole("listbox", { name: "Strips" }).getByRole("option").first()).toBeVisible();
    },
  ],
  [
    "library, strips of projects found",
    "/library?q=cello",
    async (page) => expect(page.getByRole("region", { name: "Strips of projects" })).toBeVisible(),
  ],
  [
    "used in",
    "/library?q=nyckelharpa%2C%20lead",
    async (page) => {
      await page.getByRole("button", { name: /^Bring version/ }).click();
      await expect(page.getByRole("dialog").getByText("version 2 of 3")).toBeVisible();
      await page.getByText("What would change here, value by value").click();
    },
  ],
  [
    "starter",
    "/projects/salt-lanterns",
    async (page) => {
      await page.getByRole("button", { name: /^Copper Heron · 92 bpm/ }).click();
      await page.getByRole("button", { name: "Keep as a starter…" }).click();
      await expect(page.getByRole("heading", { name: "Keep as a project starter" })).toBeVisible();
    },
  ],
  [
    "card of a set",
    "/library?q=bowed%20pair",
    async (page) => expect(page.getByRole("complementary", { name: "Card" })).toContainText("Inside, 4 strips"),
  ],
  [
    "plan of a set",
    "/projects/ferry-light/plan?preset=frame-drum-three-ways&version=1",
    async (page) => expect(page.getByRole("table", { name: "Changes" })).toBeVisible(),
  ],
  [
    "plan of a strip of another project",
    "/projects/salt-lanterns/plan?from=ferry-light&take=voice&strips=voice",
    async (page) => expect(page.getByText("2 questions")).toBeVisible(),
  ],
  [
    "plan",
    "/projects/neap-tide/plan?preset=frame-drum-close&version=1&strips=vibes-high,patch-line",
    async (page) => expect(page.getByRole("button", { name: /Apply 7 changes/ })).toBeVisible(),
  ],
  [
    "save sheet",
    "/bench?project=salt-lanterns&strip=voice",
    async (page) => {
      await page.getByRole("button", { name: "Save as…" }).click();
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  ],
  [
    "bench, lanes and macros",
    "/bench?preset=harmonium-two-amplifiers",
    async (page) => {
      await page.getByRole("radio", { name: /^Macros/ }).click();
      await expect(page.getByRole("slider", { name: "Place", exact: true })).toBeVisible();
    },
  ],
  [
    "bench, instrument",
    "/bench?project=neap-tide&strip=ghost-vibes",
    async (page) => {
      await page.getByRole("button", { name: "Layer Vibraphone" }).click();
      await expect(page.getByRole("img", { name: "Course of a note" })).toBeVisible();
    },
  ],
  [
    "bench, sounds",
    "/bench?preset=two-to-one",
    async (page) => {
      await page.getByRole("radio", { name: "Sounds" }).click();
      await expect(
        page
          .getByRole("list", { name: /^Sounds for/ })
          .getByRole("button")
          .first(),
      ).toBeVisible();
    },
  ],
  [
    "bench, check",
    "/bench?project=salt-lanterns&strip=eighths",
    async (page) => {
      await page.getByRole("radio", { name: /^Check/ }).click();
      await expect(page.getByRole("heading", { name: "Remarks" })).toBeVisible();
    },
  ],
  [
    "bench, other model",
    "/bench?project=salt-lanterns&strip=strings",
    async (page) => {
      await page.getByRole("button", { name: "Other model" }).click();
      await page.getByRole("menuitem", { name: "Console EQ" }).click();
      await expect(page.getByRole("dialog")).toContainText("on average");
    },
  ],
  [
    "meters",
    "/bench?preset=voice-ease",
    async (page) => {
      await page.getByRole("button", { name: /open the meters/ }).click();
      await expect(page.getByText("Correlation of the sides")).toBeVisible();
    },
  ],
  [
    "shortcuts",
    "/library",
    async (page) => {
      await expect(page.getByRole("listbox").getByRole("option").first()).toBeVisible();
      await page.keyboard.press("?");
      await expect(page.getByRole("dialog")).toContainText("matching loudness");
    },
  ],
  [
    "action field",
    "/projects/salt-lanterns",
    async (page) => {
      await expect(page.getByRole("row", { name: /Nyckelharpa/ })).toBeVisible();
      await page.keyboard.press("Control+k");
      await page.keyboard.type("day");
      await expect(page.getByRole("option", { name: /Day or Lamp/ })).toBeVisible();
    },
  ],
  [
    "relief as a plan",
    "/projects/salt-lanterns",
    async (page) => {
      await expect(page.getByRole("row", { name: /^Cello/ })).toBeVisible();
      await page.keyboard.press("Shift+R");
      await expect(page.getByRole("dialog", { name: "Relieve plugins" })).toBeVisible();
    },
  ],
  [
    "back to empty",
    "/projects/salt-lanterns",
    async (page) => {
      await expect(page.getByRole("row", { name: /^Cello/ })).toBeVisible();
      await page.keyboard.press("Control+k");
      await page.keyboard.type("Back to empty");
      await page.keyboard.press("Enter");
      await expect(page.getByRole("dialog", { name: "Back to empty" })).toBeVisible();
    },
  ],
  [
    "a mix to be kept",
    "/projects/salt-lanterns",
    async (page) => {
      await expect(page.getByRole("row", { name: /^Cello/ })).toBeVisible();
      await page.keyboard.press("Shift+K");
      await expect(page.getByRole("dialog", { name: "Keep this mix" })).toBeVisible();
    },
  ],
  [
    "the past of a project",
    "/projects/salt-lanterns/past?at=0",
    async (page) => expect(page.getByRole("row", { name: /Nyckelharpa/ })).toBeVisible(),
  ],
  [
    "the past of a project, a strip in hand",
    "/projects/salt-lanterns",
    async (page) => {
      await page.getByRole("row", { name: /Cello/ }).click();
      await page.keyboard.press("m");
      await page.keyboard.press("z");
      await page.getByRole("option", { name: "Its beginning" }).click();
      await expect(page.getByRole("region", { name: "What differs of Cello" })).toContainText("muted");
    },
  ],
  [
    "a wrap-up",
    "/projects/salt-lanterns/wrap-up",
    async (page) => {
      await expect(page.getByRole("row", { name: /Chain of 3/ })).toBeVisible();
      await page.getByRole("switch", { name: /^In the library/ }).click();
      await page
        .getByRole("row", { name: /Chain of 3/ })
        .first()
        .click();
      await expect(page.getByRole("region", { name: /^In hand/ })).toContainText("heard as B");
    },
  ],
  [
    "a wrap-up, several in hand",
    "/projects/salt-lanterns/wrap-up",
    async (page) => {
      await expect(page.getByRole("row", { name: /Chain of 3/ })).toBeVisible();
      await page.keyboard.press("Control+a");
      await expect(page.getByRole("region", { name: /^In hand/ })).toContainText("ticked");
    },
  ],
  [
    "a wrap-up of many projects",
    "/projects",
    async (page) => {
      await expect(page.getByRole("option", { name: /Salt Lanterns/ })).toBeVisible();
      await page.keyboard.press("Shift+W");
      await expect(page.getByText("in 9 projects")).toBeVisible();
    },
  ],
  [
    "the archive",
    "/archive",
    async (page) => {
      await page.evaluate(() => fetch("/api/archive/backups", { method: "POST" }));
      await expect(page.getByRole("row", { name: /^Backup of/ }).first()).toBeVisible();
    },
  ],
  [
    "the part of the library that is archived",
    "/archive",
    async (page) => {
      await page.getByRole("button", { name: "Archive a part…" }).click();
      await expect(page.getByRole("dialog", { name: "Archive a part" })).toBeVisible();
    },
  ],
  [
    "what comes in",
    "/archive",
    async (page) => {
      const wish = { wish: { kind: "all" } };
      await page.evaluate(
        (body) =>
          fetch("/api/archive/files", { method: "POST", body, headers: { "Content-Type": "application/json" } }),
        JSON.stringify(wish),
      );
      await expect(async () => {
        await page.reload();
        await expect(page.getByRole("button", { name: /^Look at Library/ }).first()).toBeVisible({ timeout: 2000 });
      }).toPass();
      await page
        .getByRole("button", { name: /^Look at Library/ })
        .first()
        .click();
      await expect(page.getByRole("grid", { name: "What is in the file" })).toBeVisible();
    },
  ],
  [
    "no such address",
    "/nowhere",
    async (page) => expect(page.getByText("There is nothing at this address")).toBeVisible(),
  ],
  ["no such project", "/projects/nowhere", async (page) => expect(page.getByText("There is no project")).toBeVisible()],
];
