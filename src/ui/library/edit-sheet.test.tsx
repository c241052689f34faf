// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { INCLUDED } from "@/core/packs/included";
import type { Card } from "@/core/presets/preset";
import { value } from "@/server/testing";
import { patchCards } from "@/server/use-cases/filing/cards";
import { listFolders, makeFolder } from "@/server/use-cases/filing/folders";
import { installPack } from "@/server/use-cases/packs";
import { findPresets } from "@/server/use-cases/find-presets";
import { libraryHistory, walkLibrary } from "@/server/use-cases/filing/history";
import { getPreset, savePresets } from "@/server/use-cases/library";
import { EditSheet } from "./edit-sheet";

vi.mock("next/navigation", () => ({ useRouter: () => ({ push: () => undefined }) }));

const CONTENT = INCLUDED.presets.find((p) => p.content.kind === "chain")!.content;
const CARDS: readonly Partial<Card>[] = [
  { name: "Rim and air", tags: ["warm", "close"], rating: 3, purpose: "rim", origin: { artist: "Copper Heron" } },
  { name: "Nave, far pair", tags: ["warm"], rating: 3, purpose: "room", origin: { artist: "Copper Heron", take: "4" } },
  { name: "Reed, soft", tags: [], rating: 0, purpose: "room", origin: { artist: "Tidal Clocks" } },
];

let house: House;
let rows: readonly PresetRow[];

beforeEach(async () => {
  house = await openHouse();
  rows = value(await savePresets(house.context, { presets: CARDS.map((card) => presetOf(CONTENT, card)) }));
});

afterEach(() => house.close());

const open = (some: readonly PresetRow[], begin: "name" | "folder" | "tags" = "name") =>
  house.show(<EditSheet presets={some} begin={begin} />);
const field = (label: string) => screen.getByLabelText(label, { exact: true });
const type = (label: string, text: string) => fireEvent.change(field(label), { target: { value: text } });
/** What a field of several says, chip by chip. */
const chips = (label: string) =>
  within(field(label).parentElement!)
    .queryAllByRole("button")
    .map((button) => button.getAttribute("aria-label")!.replace("Remove ", ""));
const send = (name: RegExp | string) => fireEvent.click(screen.getByRole("button", { name }));
const cards = async () =>
  Promise.all(rows.map(async ({ id }) => value(await getPreset(house.context, id)).preset.card));
const saved = () => waitFor(() => expect(house.asked).toContain("PATCH /api/presets"));
const undoLabel = async () => (await libraryHistory(house.context)).undo;

describe("the card of one sound", () => {
  it("shows what is written, and changes what is touched", async () => {
    open([rows[0]!]);
    expect(field("Name")).toHaveProperty("value", "Rim and air");
    expect(chips("Artist")).toEqual(["Copper Heron"]);
    type("Name", "  Rim, closer ");
    type("Microphone", "pair of ribbons");
    send("Save the card");
    await saved();
    await waitFor(async () =>
      expect((await cards())[0]).toEqual({
        ...rows[0]!.card,
        name: "Rim, closer",
        origin: { artist: "Copper Heron", microphone: "pair of ribbons" },
      }),
    );
    expect(await undoLabel()).toBe("Change “Rim and air”");
  });

  it("says several names one by one, as they are known, and takes them off one by one", async () => {
    open([rows[2]!]);
    const artist = field("Artist");
    expect(chips("Artist")).toEqual(["Tidal Clocks"]);
    fireEvent.focus(artist);
    fireEvent.change(artist, { target: { value: "copper" } });
    await screen.findByRole("option", { name: "Copper Heron" });
    // What is typed comes first; what is known is marked by an arrow. Enter adds it, and sends nothing yet.
    fireEvent.keyDown(artist, { key: "ArrowDown" });
    fireEvent.keyDown(artist, { key: "Enter" });
    expect(chips("Artist")).toEqual(["Tidal Clocks", "Copper Heron"]);
    fireEvent.change(artist, { target: { value: "Salt Ballet; tidal clocks" } });
    expect(chips("Artist")).toEqual(["Tidal Clocks", "Copper Heron", "Salt Ballet"]);
    fireEvent.change(artist, { target: { value: "Nave" } });
    fireEvent.keyDown(artist, { key: "Enter" });
    expect(chips("Artist").at(-1)).toBe("Nave");
    fireEvent.keyDown(artist, { key: "Backspace" });
    fireEvent.keyDown(artist, { key: "Backspace" });
    expect(chips("Artist")).toEqual(["Tidal Clocks", "Copper Heron"]);
    expect(house.asked).not.toContain("PATCH /api/presets");
    // With nothing typed, Enter is for the sheet.
    fireEvent.keyDown(artist, { key: "Enter" });
    await saved();
    await waitFor(async () => expect((await cards())[2]!.origin.artist).toBe("Tidal Clocks; Copper Heron"));
  });

  it("has a short name beside its name, and says where its name is another's", async () => {
    open([rows[0]!]);
    expect(field("Short name")).toHaveProperty("placeholder", "Rim and air");
    type("Short name", "RIM");
    type("Name", "nave, far pair");
    expect(await screen.findByText("Another sound has that name.")).toBeTruthy();
    type("Name", "Rim and air");
    await waitFor(() => expect(screen.queryByText("Another sound has that name.")).toBeNull());
    send("Save the card");
    await saved();
    await waitFor(async () => expect((await cards())[0]).toEqual({ ...rows[0]!.card, short: "RIM" }));
  });

  it("sends nothing where nothing was touched", async () => {
    open([rows[0]!]);
    send("Save the card");
    await waitFor(() =>
      expect(screen.getByRole("button", { name: "Save the card" })).toHaveProperty("disabled", false),
    );
    expect(house.asked.filter((a) => a.startsWith("PATCH"))).toEqual([]);
  });

  it("takes a field out when it is emptied", async () => {
    open([rows[1]!]);
    type("Take", "");
    send("Save the card");
    await saved();
    await waitFor(async () => expect((await cards())[1]!.origin).toEqual({ artist: "Copper Heron" }));
  });

  it.each([
    ["without a name", " ", "Give it a name."],
    ["with one of 201 letters", "x".repeat(201), "200 letters at the most."],
  ])("is refused %s, in words, and stays open with what was typed", async (_, name, words) => {
    open([rows[0]!]);
    type("Name", name);
    send("Save the card");
    expect(await screen.findByText(words)).toBeTruthy();
    expect(field("Name")).toHaveProperty("value", name);
    expect(house.asked.filter((a) => a.startsWith("PATCH"))).toEqual([]);
  });

  it("says what the server does not take, and keeps what was typed", async () => {
    open([rows[0]!]);
    type("For", "x".repeat(5000));
    send("Save the card");
    expect(await screen.findByRole("alert")).toBeTruthy();
    expect(chips("For")).toEqual(["rim"]);
    expect(field("For")).toHaveProperty("value", "x".repeat(5000));
    expect(await cards()).toEqual(rows.map((r) => r.card));
  });
});

describe("the card of what comes with a pack", () => {
  it("is rated, tagged and filed; all else says beforehand that it stays", async () => {
    await installPack(house.context, INCLUDED);
    const some = (await findPresets(house.context, { q: "pack:included", limit: 1 })).items[0]!;
    open([some]);
    for (const fixed of ["Name", "For", "Artist", "Notes", "Mark"])
      expect(field(fixed).matches(":disabled")).toBe(true);
    expect(screen.getByText(/its rating, tags and folder are yours to set/)).toBeTruthy();
    fireEvent.change(field("Rating"), { target: { value: "2" } });
    type("Add tags", "mine");
    send("Save the card");
    await saved();
    const now = async () => value(await getPreset(house.context, some.id)).preset.card;
    await waitFor(async () =>
      expect(await now()).toEqual({ ...some.card, rating: 2, tags: [...some.card.tags, "mine"] }),
    );
  });

  it("among others, of which the rest is changed, too, keeps its own words", async () => {
    await installPack(house.context, INCLUDED);
    const some = (await findPresets(house.context, { q: "pack:included", limit: 1 })).items[0]!;
    open([some, rows[0]!]);
    fireEvent.change(field("Rating"), { target: { value: "1" } });
    type("Notes", "Heard again");
    send("Change 2 sounds");
    await saved();
    const card = async (id: string) => value(await getPreset(house.context, id)).preset.card;
    await waitFor(async () => expect(await card(some.id)).toEqual({ ...some.card, rating: 1 }));
    expect(await card(rows[0]!.id)).toEqual({ ...rows[0]!.card, rating: 1, notes: "Heard again" });
  });
});

describe("the card of several", () => {
  it("shows what they have in common, and “several” where they differ", () => {
    open(rows.slice(0, 2));
    expect(screen.getByRole("heading", { name: "2 sounds" })).toBeTruthy();
    expect(screen.queryByLabelText("Name", { exact: true })).toBeNull();
    expect(chips("Artist")).toEqual(["Copper Heron"]);
    expect(field("For")).toHaveProperty("placeholder", "several");
    expect(field("Rating")).toHaveProperty("value", "3");
  });

  it("changes only what is touched, of all of them, in one step", async () => {
    open(rows);
    type("Client", "Salt Ballet");
    type("Add tags", "tour, wide ,");
    send("Change 3 sounds");
    await saved();
    await waitFor(async () =>
      expect((await cards()).map((c) => c.tags)).toEqual([
        ["warm", "close", "tour", "wide"],
        ["warm", "tour", "wide"],
        ["tour", "wide"],
      ]),
    );
    expect((await cards()).map((c) => [c.name, c.rating, c.purpose, c.origin])).toEqual(
      rows.map(({ card }) => [card.name, card.rating, card.purpose, { ...card.origin, client: "Salt Ballet" }]),
    );
    value(await walkLibrary(house.context, "undo"));
    expect(await cards()).toEqual(rows.map((r) => r.card));
  });

  it("takes a tag off those that have it, and says of how many it is", async () => {
    open(rows);
    const tag = screen.getByRole("button", { name: /tag warm/ });
    expect(tag.parentElement?.textContent).toContain("2");
    fireEvent.click(tag);
    send("Change 3 sounds");
    await saved();
    await waitFor(async () => expect((await cards()).map((c) => c.tags)).toEqual([["close"], [], []]));
  });

  it("goes into a new folder in one step of undo with the rest", async () => {
    open(rows, "folder");
    fireEvent.change(field("Folder"), { target: { value: "+" } });
    fireEvent.change(await screen.findByLabelText("Called"), { target: { value: "Tour" } });
    fireEvent.change(field("Rating"), { target: { value: "5" } });
    send("Change 3 sounds");
    await saved();
    await waitFor(async () =>
      expect((await listFolders(house.context)).map((f) => [f.name, f.count])).toEqual([["Tour", 3]]),
    );
    expect((await cards()).map((c) => c.rating)).toEqual([5, 5, 5]);
    value(await walkLibrary(house.context, "undo"));
    expect(await listFolders(house.context)).toEqual([]);
    expect(await cards()).toEqual(rows.map((r) => r.card));
  });

  it("asks what a new folder is called", async () => {
    open(rows, "folder");
    fireEvent.change(field("Folder"), { target: { value: "+" } });
    await screen.findByLabelText("Called");
    send("Change 3 sounds");
    expect(await screen.findByText("Name the new folder.")).toBeTruthy();
    expect(await listFolders(house.context)).toEqual([]);
  });

  it("lists folders with the way to them", async () => {
    const voices = value(await makeFolder(house.context, { name: "Voices", parent: null }));
    value(await makeFolder(house.context, { name: "Choir", parent: voices.id }));
    open(rows, "folder");
    await waitFor(() =>
      expect(
        within(field("Folder"))
          .getAllByRole("option")
          .map((o) => o.textContent),
      ).toEqual(["No folder", "Voices", "Voices / Choir", "New folder…"]),
    );
  });
});

describe("a card that was changed elsewhere while it was open", () => {
  const elsewhere = async (card: Partial<Card>) =>
    value(await patchCards(house.context, { changes: [{ id: rows[0]!.id, baseCard: 1, card }] }));

  it("takes what does not meet", async () => {
    open([rows[0]!]);
    await elsewhere({ name: "Rim, closer", tags: ["warm", "close", "tour"] });
    fireEvent.click(screen.getByRole("button", { name: "Remove rim" }));
    type("For", "rim of the frame drum");
    type("Add tags", "dry");
    send("Save the card");
    await waitFor(async () =>
      expect((await cards())[0]).toMatchObject({
        name: "Rim, closer",
        purpose: "rim of the frame drum",
        tags: ["warm", "close", "tour", "dry"],
      }),
    );
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("is told also where a list shows already what the other made of it", async () => {
    const theirs = await elsewhere({ name: "Rim, theirs" });
    house.queries.setQueryData([...KEYS.presets, "a list"], { items: theirs });
    open([rows[0]!]);
    type("Name", "Rim, mine");
    send("Save the card");
    expect((await screen.findByRole("alert")).textContent).toContain("It is called “Rim, theirs” by now.");
    expect((await cards())[0]!.name).toBe("Rim, theirs");
  });

  it("says what does, and puts its own in that place when it is sent again", async () => {
    open([rows[0]!]);
    await elsewhere({ name: "Rim, theirs" });
    type("Name", "Rim, mine");
    send("Save the card");
    expect((await screen.findByRole("alert")).textContent).toContain("It is called “Rim, theirs” by now.");
    expect((await cards())[0]!.name).toBe("Rim, theirs");
    send("Save the card");
    await waitFor(async () => expect((await cards())[0]!.name).toBe("Rim, mine"));
    value(await walkLibrary(house.context, "undo"));
    expect((await cards())[0]!.name).toBe("Rim, theirs");
  });
});
