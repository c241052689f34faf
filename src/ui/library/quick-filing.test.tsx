// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import type { PresetRow } from "@/contracts/records";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { listFolders } from "@/server/use-cases/filing/folders";
import { walkLibrary } from "@/server/use-cases/filing/history";
import { findPresets, findValues } from "@/server/use-cases/find-presets";
import { FileBySheet } from "./file-by-sheet";
import { useLibrarySheet } from "./filing";
import { MoveFolderSheet } from "./move-folder-sheet";
import { MoveSheet } from "./move-sheet";
import { ReadySearches } from "./ready-searches";
import { TagSheet } from "./tag-sheet";
import { WordsSheet } from "./words-sheet";

vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  house = await openHouse(loadDemo);
});

afterEach(async () => {
  useLibrarySheet.setState({ open: null });
  await house.close();
});

const found = async (q: string): Promise<readonly PresetRow[]> =>
  (await findPresets(house.context, { q, sort: "name", limit: 500 })).items;
const field = () => screen.getByRole<HTMLInputElement>("combobox");
const type = (text: string) => fireEvent.change(field(), { target: { value: text } });
const enter = () => fireEvent.keyDown(field(), { key: "Enter" });
const marked = () => screen.getAllByRole("option").find((option) => option.getAttribute("aria-selected") === "true");

describe("moving sounds by a few letters", () => {
  it("files them into the folder that is marked, and says where to; one undo takes all back", async () => {
    const sounds = (await found("cello")).slice(0, 3);
    house.show(<MoveSheet presets={sounds} />);
    await screen.findAllByRole("option");
    type("whole");
    await waitFor(() => expect(marked()?.textContent).toContain("Kits and sections / Whole mixes"));
    enter();
    await waitFor(() => expect(said).toEqual([`Move ${sounds.length} sounds into “Kits and sections / Whole mixes”`]));
    const folder = (await listFolders(house.context)).find(({ name }) => name === "Whole mixes")!;
    const where = async () => new Map((await found("cello")).map(({ id, card }) => [id, card.folder]));
    const now = await where();
    expect(sounds.map(({ id }) => now.get(id))).toEqual(sounds.map(() => folder.id));
    value(await walkLibrary(house.context, "undo"));
    const then = await where();
    expect(sounds.map(({ id }) => then.get(id))).toEqual(sounds.map(({ card }) => card.folder));
  });

  it("with Ctrl leaves them where they are and shows them there, too; once more, not any more", async () => {
    const sounds = (await found("cello")).slice(0, 2);
    const folder = (await listFolders(house.context)).find(({ name }) => name === "Whole mixes")!;
    const cards = async () => {
      const now = new Map((await found("cello")).map(({ id, card }) => [id, card]));
      return sounds.map(({ id }) => now.get(id)!);
    };
    const take = async (presets: readonly PresetRow[]) => {
      house.show(<MoveSheet presets={presets} />);
      await screen.findAllByRole("option");
      type("whole");
      await waitFor(() => expect(marked()?.textContent).toContain("Kits and sections / Whole mixes"));
      fireEvent.keyDown(field(), { key: "Enter", ctrlKey: true });
    };
    await take(sounds);
    await waitFor(() => expect(said).toEqual(["File 2 sounds also in “Kits and sections / Whole mixes”"]));
    expect((await cards()).map((card) => card.folder)).toEqual(sounds.map(({ card }) => card.folder));
    expect((await cards()).map((card) => card.alsoIn)).toEqual(sounds.map(() => [folder.id]));
    cleanup();
    await take(await found("cello").then((all) => all.filter(({ id }) => sounds.some((one) => one.id === id))));
    await waitFor(() => expect(said.at(-1)).toBe("Take 2 sounds out of “Kits and sections / Whole mixes”"));
    expect((await cards()).map((card) => card.alsoIn)).toEqual([undefined, undefined]);
  });

  it("with Ctrl makes no folder, says so, and keeps what is typed for Enter", async () => {
    house.show(<MoveSheet presets={(await found("cello")).slice(0, 1)} />);
    await screen.findAllByRole("option");
    type("Brand new");
    fireEvent.keyDown(field(), { key: "Enter", ctrlKey: true });
    expect((await screen.findByRole("alert")).textContent).toContain("There is no folder “Brand new” yet");
    expect(field().value).toBe("Brand new");
    expect(said).toEqual([]);
  });

  it("makes the path that is typed, each folder of it once", async () => {
    const [sound] = await found("cello");
    house.show(<MoveSheet presets={[sound!]} />);
    await screen.findAllByRole("option");
    type("Bowed / Lowest");
    await waitFor(() => expect(marked()?.textContent).toBe("New folder “Bowed / Lowest”"));
    enter();
    await waitFor(() => expect(said.at(-1)).toMatch(/into “Bowed \/ Lowest”$/));
    const folders = await listFolders(house.context);
    const lowest = folders.find(({ name }) => name === "Lowest")!;
    expect(folders.find(({ id }) => id === lowest.parent)?.name).toBe("Bowed");
    expect(folders.filter(({ name }) => name === "Bowed")).toHaveLength(1);
  });
});

describe("tagging by a few letters", () => {
  it("puts a tag on all that lack it, then takes it off all; the sheet stays for the next", async () => {
    const sounds = (await found("cello")).slice(0, 4);
    house.show(<TagSheet presets={sounds} />);
    await screen.findAllByRole("option");
    type("rehearsal");
    await waitFor(() => expect(marked()?.textContent).toBe("New tag “rehearsal”"));
    enter();
    await waitFor(() => expect(said.at(-1)).toBe("Tag 4 sounds “rehearsal”"));
    await waitFor(async () => expect(await found("tag:rehearsal")).toHaveLength(4));
    type("rehearsal");
    await waitFor(() => expect(marked()?.textContent).toContain("on all"));
    enter();
    await waitFor(() => expect(said.at(-1)).toBe("Untag 4 sounds “rehearsal”"));
    expect(await found("tag:rehearsal")).toEqual([]);
  });

  it("says which only some have, and takes one that is written otherwise for the one that is there", async () => {
    const [warm] = await found("tag:warm");
    const other = (await found("-tag:warm")).find(({ pack }) => pack === null)!;
    house.show(<TagSheet presets={[warm!, other]} />);
    await screen.findAllByText("on 1 of 2");
    type("WARM");
    enter();
    await waitFor(() => expect(said.at(-1)).toBe("Tag 2 sounds “warm”"));
    expect((await found("tag:warm")).map(({ id }) => id)).toContain(other.id);
    expect(findValues(house.context, { field: "tag", begun: "warm" }).values.map((one) => one.value)).toEqual(["warm"]);
  });
});

describe("a folder", () => {
  it("is put into another by a few letters, never into itself", async () => {
    const folders = await listFolders(house.context);
    const voices = folders.find(({ name }) => name === "Voices")!;
    house.show(<MoveFolderSheet folder={voices.id} />);
    await screen.findAllByRole("option");
    expect(screen.getAllByRole("option").map((option) => option.textContent)).not.toContain("Voices");
    type("bow");
    await waitFor(() => expect(marked()?.textContent).toBe("Bowed"));
    enter();
    await waitFor(() => expect(said).toEqual(["Move folder “Voices”"]));
    const now = (await listFolders(house.context)).find(({ id }) => id === voices.id)!;
    expect(now.parent).toBe(folders.find(({ name }) => name === "Bowed")!.id);
  });
});

describe("filing by artist", () => {
  it("shows which folders and how many first, and does just that", async () => {
    const sounds = await found('artist:"Copper Heron"');
    house.show(<FileBySheet presets={sounds} by="artist" />);
    const list = within(await screen.findByRole("region", { name: "Folders" }));
    const line = await list.findByText("Copper Heron");
    expect(line.parentElement?.textContent).toBe(`Copper Heronnew${sounds.length} sounds`);
    fireEvent.click(screen.getByRole("button", { name: `File ${sounds.length} sounds` }));
    await waitFor(() => expect(said).toEqual([`File ${sounds.length} sounds by artist`]));
    const folder = (await listFolders(house.context)).find(({ name }) => name === "Copper Heron")!;
    expect(folder.count).toBe(sounds.length);
  });
});

describe("words in order", () => {
  it("are merged from a list, on every card at once", async () => {
    house.show(<WordsSheet />);
    fireEvent.click(screen.getByRole("radio", { name: "People" }));
    for (const name of ["Copper Heron", "Tidal Clocks"]) fireEvent.click(await screen.findByRole("checkbox", { name }));
    const into = screen.getByRole("textbox", { name: "Merge into" });
    expect(into).toHaveProperty("value", "Copper Heron");
    fireEvent.change(into, { target: { value: "Heron and Clocks" } });
    fireEvent.click(screen.getByRole("button", { name: "Merge" }));
    await screen.findByRole("checkbox", { name: "Heron and Clocks" });
    expect(screen.queryByRole("checkbox", { name: "Tidal Clocks" })).toBeNull();
    expect(await found("artist:tidal")).toEqual([]);
    value(await walkLibrary(house.context, "undo"));
    expect((await found("artist:tidal")).length).toBeGreaterThan(0);
  });
});

describe("what is still to be done", () => {
  it("is found by searches that are ready, each with how many there are", async () => {
    const asked: string[] = [];
    house.show(<ReadySearches words="" onWords={(words) => asked.push(words)} />);
    for (const [label, q] of [
      ["Not filed", "-folder:* pack:own"],
      ["Not tagged", "-tag:* pack:own"],
      ["Not rated", "rating:0 pack:own"],
      ["Never used", "-used:* pack:own"],
      ["Changed since used", "used:changed"],
    ] as const) {
      const { total } = await findPresets(house.context, { q });
      const line = await screen.findByRole("button", { name: new RegExp(`^${label}\\s*${total}$`) });
      fireEvent.click(line);
      expect(asked.at(-1)).toBe(q);
    }
  });
});
