// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet, engine } from "@/app/testing/engine";
import { layOut } from "@/app/testing/furnish";
import { press } from "@/app/testing/hands";
import { type House, openHouse } from "@/app/testing/house";
import { goTo, tellAtOnce, tellLate, whereNow } from "@/app/testing/navigation";
import { said } from "@/app/testing/said";
import { INCLUDED } from "@/core/packs/included";
import { loadDemo } from "@/demo/load";
import type { Context } from "@/server/store/context";
import { value } from "@/server/testing";
import { alsoIn } from "@/core/library/filed-in";
import { patchCards } from "@/server/use-cases/filing/cards";
import { findPresets } from "@/server/use-cases/find-presets";
import { getPreset, saveVersion } from "@/server/use-cases/library";
import { installPack } from "@/server/use-cases/packs";
import { getProject } from "@/server/use-cases/projects/read";
import { Frame } from "../frame/frame";
import { fold } from "@/core/names/words";
import * as hearing from "../listening/hear-preset";
import { useInHand } from "../projects/in-hand";
import { closeSheet, useLibrarySheet } from "./filing";
import { writeAddress } from "./in-address";
import { Library } from "./library";
import { openComparison } from "./open-comparison";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;

beforeEach(async () => {
  said.length = 0;
  quiet();
  closeSheet();
  await useInHand.persist.rehydrate();
  useInHand.setState({ project: null, strips: [], bench: null, alwaysPlan: false });
});

afterEach(() => {
  tellAtOnce();
  return house.close();
});

const withPack = (context: Context) => installPack(context, INCLUDED);

async function open(address = "/library", fill: (context: Context) => Promise<unknown> = loadDemo): Promise<void> {
  house = await openHouse(fill);
  layOut({ width: 900, height: 620 });
  goTo(address);
  house.show(
    <Frame theme="day">
      <Library />
    </Frame>,
  );
  await waitFor(() => expect(lines().length).toBeGreaterThan(0));
}

const lines = () => within(screen.getByRole("listbox", { name: "Sounds" })).getAllByRole("option");
/** Without its kind, which is for screen readers. */
const nameOf = (line: Element) => line.querySelector(".name")!.textContent.replace(/^[^:]+: /, "");
const names = () => lines().map(nameOf);
const chosen = () =>
  lines()
    .filter((l) => l.getAttribute("aria-selected") === "true")
    .map(nameOf);
const card = () => within(screen.getByRole("complementary", { name: "Card" }));
const field = () => screen.getByRole<HTMLInputElement>("combobox", { name: "Find a sound, a strip, an action" });
const type = (words: string) => {
  act(() => field().focus());
  fireEvent.change(field(), { target: { value: words } });
};
const hold = (hand: Partial<ReturnType<typeof useInHand.getState>>) => act(() => void useInHand.setState(hand));
const presetOf = async (id: string) => value(await getPreset(house.context, id)).preset;

/** First, while the code of the sheets has not come yet. */
describe("a sheet on its way", () => {
  it("keeps what is typed for it from being done behind it", async () => {
    await open("/library?q=rim+and+air");
    const { rating } = (await presetOf("rim-and-air")).card;
    press("t");
    press("3");
    press("Delete");
    await screen.findByRole("dialog");
    expect((await presetOf("rim-and-air")).card.rating).toBe(rating);
    expect(house.asked.filter((a) => a.startsWith("PATCH"))).toEqual([]);
  });
});

describe("a sound that folders refer to", () => {
  it("says where it lies in their lists, and on its card where else; there it is taken out again", async () => {
    await open("/library?folder=bowed", async (context) => {
      await loadDemo(context);
      const { cardRevision, card } = value(await getPreset(context, "rim-and-air")).preset;
      const to = alsoIn(card, "bowed");
      value(await patchCards(context, { changes: [{ id: "rim-and-air", baseCard: cardRevision, card: to }] }));
    });
    const away = () => lines().filter((line) => line.textContent.includes("lies in"));
    expect(away().map(nameOf)).toEqual(["Rim and air"]);
    expect(away()[0]!.textContent).toContain("lies in Percussion");
    fireEvent.click(away()[0]!);
    expect(await card().findByRole("button", { name: "also in Bowed" })).toBeTruthy();
    fireEvent.click(card().getByRole("button", { name: "Take out of “Bowed”" }));
    await waitFor(() => expect(said).toEqual(["Take “Rim and air” out of “Bowed”"]));
    await waitFor(() => expect(names()).not.toContain("Rim and air"));
    expect((await presetOf("rim-and-air")).card.alsoIn).toBeUndefined();
  });
});

describe("the library", () => {
  it("is walked by arrows; the card and the ear follow", async () => {
    await open("/library?sort=name");
    const [first, second] = names();
    expect(chosen()).toEqual([first]);
    press("ArrowDown");
    expect(chosen()).toEqual([second]);
    expect(card().getByRole("heading", { level: 2 }).textContent).toBe(second);
    await waitFor(() => expect(engine.sounds.a).not.toBeNull());
    press("ArrowUp");
    press("ArrowUp");
    expect(chosen()).toEqual([first]);
    press("ArrowDown", { shiftKey: true });
    expect(chosen()).toEqual([first, second]);
    press("Escape");
    expect(chosen()).toEqual([second]);
  });

  it("filters as one types, keeps that in the address, and is left for the list by Enter", async () => {
    await open();
    type("rim and air");
    await waitFor(() => expect(names()[0]).toBe("Rim and air"));
    expect(whereNow()).toBe("/library?q=rim+and+air");
    press("Enter", {}, field());
    expect(document.activeElement).toBe(screen.getByRole("listbox", { name: "Sounds" }));
    type("");
    expect(whereNow()).toBe("/library");
  });

  it("offers how the words may go on, and takes one by Tab", async () => {
    await open();
    type("arti");
    const ways = await screen.findByRole("listbox", { name: "Ways to go on" });
    expect(within(ways).getAllByRole("option")[0]!.textContent).toContain("artist:");
    press("Tab", {}, field());
    expect(field().value).toBe("artist:");
    await waitFor(() => expect(within(ways).getAllByRole("option").length).toBeGreaterThan(1));
    press("ArrowDown", {}, field());
    const second = within(ways).getAllByRole("option", { selected: true })[0]!.textContent;
    press("Enter", {}, field());
    expect(second.toLowerCase()).toContain(/artist:=?"?([^"]+)/.exec(field().value)![1]!.trim().toLowerCase());
  });

  it("plays an instrument where one is chosen", async () => {
    await open("/library?q=wooden+bars");
    await waitFor(() => expect(engine.sounds.a?.instrument?.layers).toHaveLength(1));
    expect(engine.sounds.a?.chain).toEqual([]);
  });

  it("narrows to a folder and a filter, shows both, and lets go of all", async () => {
    await open();
    const filters = within(screen.getByRole("navigation", { name: "Folders and filters" }));
    fireEvent.click(filters.getByRole("treeitem", { name: "Voices" }));
    await waitFor(() => expect(whereNow()).toContain("folder=voices"));
    fireEvent.click(await filters.findByRole("button", { name: /^Channel strip/ }));
    const narrowed = await screen.findByRole("group", { name: "Narrowed to" });
    expect(narrowed.textContent).toContain("Folder: Voices");
    expect(narrowed.textContent).toContain("Kind: Channel strip");
    fireEvent.click(within(narrowed).getByRole("button", { name: "Let go of all" }));
    await waitFor(() => expect(screen.queryByRole("group", { name: "Narrowed to" })).toBeNull());
    expect(whereNow()).toBe("/library");
  });

  it("says what it did not understand, and what it read otherwise", async () => {
    await open("/library?q=narrtor");
    const status = await screen.findByText(/Nothing begins with “narrtor”/);
    expect(status.textContent).toContain("read as “narrator”");
    type("taste:rim");
    await screen.findByText(/“taste:” is no field/);
  });

  it("says that nothing matches, with the way back to all", async () => {
    await open();
    const all = lines().length;
    type("nothing like this at all");
    fireEvent.click(await screen.findByRole("button", { name: "Show all sounds" }));
    await waitFor(() => expect(lines()).toHaveLength(all));
  });
});

describe("the way to another sound", () => {
  it("goes from a plugin to a chain that has it inside, and back", async () => {
    await open();
    const { items } = await findPresets(house.context, { q: "kind:plugin", limit: 200 });
    const details = await Promise.all(items.map(({ id }) => getPreset(house.context, id)));
    const { preset, heldBy } = details.map((detail) => value(detail)).find((detail) => detail.heldBy.length > 0)!;
    type(`name:"${preset.card.name}"`);
    await waitFor(() => expect(names()).toEqual([preset.card.name]));
    const [holder] = heldBy;
    fireEvent.click(await card().findByRole("button", { name: holder!.name }));
    await waitFor(() => expect(chosen()).toEqual([holder!.name]));
    expect(field().value).toBe(`name:="${holder!.name}"`);
    act(() => window.history.back());
    await waitFor(() => expect(chosen()).toEqual([preset.card.name]));
  });
});

describe("the address", () => {
  const sound = () => new URLSearchParams(window.location.search).get("sound");
  // The last lines of a long list are not drawn here, where nothing scrolls.
  const onCard = () => card().getByRole("heading", { level: 2 }).textContent;
  const lastByName = async () => {
    const { items, total } = await findPresets(house.context, { sort: "name", limit: 500 });
    return { ...items.at(-1)!, total };
  };

  it("names the sound, which is found wherever it stands in the list, and nothing else is heard before it", async () => {
    const order = INCLUDED.presets.toSorted((a, b) => (fold(a.card.name) < fold(b.card.name) ? -1 : 1));
    const last = order.at(-1)!;
    const heard = vi.spyOn(hearing, "hearPreset");
    await open(`/library?sort=name&sound=${last.id}`, withPack);
    await waitFor(() => expect(onCard()).toBe(last.card.name));
    await waitFor(() => expect(heard).toHaveBeenCalled());
    expect(new Set(heard.mock.calls.map(([, , { name }]) => name))).toEqual(new Set([last.card.name]));
    heard.mockRestore();
    const { total } = await lastByName();
    expect(total).toBeGreaterThan(60);
    expect(screen.getByText(new RegExp(`^${total} of ${total} sounds`))).toBeTruthy();
  });

  it("follows the hand, and going back brings the place of the list before", async () => {
    await open("/library?sort=name", withPack);
    press("End");
    const { id, card: last } = await lastByName();
    await waitFor(() => expect(onCard()).toBe(last.name));
    await waitFor(() => expect(sound()).toBe(id));
    act(() => window.history.pushState(null, "", "/library?q=strip"));
    const [first] = (await findPresets(house.context, { q: "strip", limit: 5 })).items;
    await waitFor(() => expect(onCard()).toBe(first!.card.name));
    press("ArrowDown");
    await waitFor(() => expect(sound()).not.toBeNull());
    act(() => window.history.back());
    await waitFor(() => expect(sound()).toBe(id));
    await waitFor(() => expect(onCard()).toBe(last.name));
  });

  it("is told of late, and written over with what is older: what was chosen since stays chosen", async () => {
    await open("/library?sort=name", withPack);
    const tell = tellLate();
    press("ArrowDown", { shiftKey: true });
    await waitFor(() => expect(sound()).not.toBeNull());
    const first = whereNow();
    for (let n = 0; n < 3; n++) press("ArrowDown", { shiftKey: true });
    await waitFor(() => expect(whereNow()).not.toBe(first));
    const last = whereNow();
    expect(chosen()).toHaveLength(5);
    const looked = () => house.asked.filter((ask) => ask.includes("/api/places")).length;
    for (const address of [first, last]) act(() => tell(address));
    expect(looked()).toBe(0);
    expect(chosen()).toHaveLength(5);
    // What it tells of then, nobody wrote here: that is meant, and is looked for.
    act(() => tell(first));
    expect(looked()).toBe(1);
    await waitFor(() => expect(chosen()).toHaveLength(1));
  });

  it("is told of late: the words that were typed since stay, and so does a filter", async () => {
    await open("/library?sort=name", withPack);
    const tell = tellLate();
    type("r");
    const first = whereNow();
    type("ri");
    const last = whereNow();
    act(() => tell(first));
    expect(field().value).toBe("ri");
    press("ArrowDown");
    await waitFor(() => expect(whereNow()).toContain("sound="));
    expect(new URLSearchParams(window.location.search).get("q")).toBe("ri");
    act(() => tell(last));
    act(() => tell("/library?q=strip"));
    expect(field().value).toBe("strip");
  });

  it("names a comparison, opens it again, and lets go of it when it is closed", async () => {
    await open("/library?q=rim+and+air&compare=rim-and-air.1~narrator-close.1");
    const sheet = await screen.findByRole("dialog", { name: "Two sounds beside each other" });
    expect(sheet.textContent).toContain("Narrator, close and calm");
    press("Escape", {}, sheet);
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    await waitFor(() => expect(whereNow()).not.toContain("compare"));
  });

  it("is heard of late: a comparison that was closed meanwhile stays closed", async () => {
    await open("/library?q=rim+and+air");
    const text = "rim-and-air.1~narrator-close.1";
    await act(() => openComparison(text));
    expect(useLibrarySheet.getState().open).toBeNull();
    writeAddress({ compare: text });
    writeAddress({ compare: null });
    await act(() => openComparison(text));
    expect(useLibrarySheet.getState().open).toBeNull();
  });

  it("of a comparison with what is not there opens none", async () => {
    await open("/library?q=rim+and+air&compare=rim-and-air.1~nothing-such.1");
    await waitFor(() => expect(whereNow()).not.toContain("compare"));
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  it("of a sound that is not in the list leaves the first", async () => {
    await open("/library?sort=name&sound=nothing-such", withPack);
    await waitFor(() => expect(chosen()).toEqual([names()[0]]));
  });

  it("names the version that is looked at", async () => {
    await open("/library?q=rim+and+air");
    const { version, content } = await presetOf("rim-and-air");
    const other = (await findPresets(house.context, { kind: "chain", limit: 50 })).items.find(
      (p) => p.id !== "rim-and-air" && p.kind === "chain",
    )!;
    expect(other.content).not.toEqual(content);
    value(await saveVersion(house.context, "rim-and-air", { baseVersion: version, content: other.content }));
    await act(() => house.queries.invalidateQueries());
    await card().findByText(new RegExp(`^.* · version ${version + 1} · own$`));
    const versions = await card().findAllByRole("button", { pressed: false });
    fireEvent.click(versions.at(-1)!);
    await waitFor(() => expect(whereNow()).toContain(`sound=rim-and-air&version=${version}`));
  });
});

describe("the card of a sound", () => {
  it("leads to all that was made of it", async () => {
    await open("/library?q=rim+and+air");
    press("u");
    const lead = await card().findByRole("button", { name: "1 sound" });
    fireEvent.click(lead);
    await waitFor(() => expect(field().value).toBe('from:="rim-and-air"'));
    await waitFor(() => expect(lines()).toHaveLength(1));
    expect(card().getByText(/Rim and air, version 1/)).toBeTruthy();
  });

  it("leads to all that a project uses, as the search counts them", async () => {
    await open("/library?q=used:yes");
    const lead = (await card().findAllByTitle(/^All sounds that /))[0]!;
    const project = lead.textContent;
    fireEvent.click(lead);
    await waitFor(() => expect(field().value).toBe(`in:="${project}"`));
    const { total } = await findPresets(house.context, { q: `in:="${project}"` });
    expect(total).toBeGreaterThan(0);
    await waitFor(() => expect(lines()).toHaveLength(total));
  });
});

describe("what is done with a sound", () => {
  it("is applied by Enter to the strips in hand, and taken back by one key", async () => {
    await open("/library?q=rim+and+air");
    press("Enter");
    await waitFor(() => expect(said).toEqual(["Choose a project first; then Enter applies a sound to its strips."]));
    hold({ project: "salt-lanterns", strips: ["cello"] });
    await screen.findByText(/strip Cello/);
    press("Enter");
    await waitFor(() => expect(said.at(-1)).toBe("Applied “Rim and air” to Cello"));
    const cello = async () =>
      value(await getProject(house.context, "salt-lanterns")).project.strips.find((s) => s.id === "cello")!;
    expect((await cello()).inserts.from?.preset).toBe("rim-and-air");
    press("z", { ctrlKey: true });
    await waitFor(async () => expect((await cello()).inserts.nodes).toEqual([]));
  });

  it("is opened on the bench, planned, or varied, each by a key", async () => {
    await open("/library?q=rim+and+air");
    press("b");
    expect(whereNow()).toBe("/bench?preset=rim-and-air");
    hold({ project: "salt-lanterns", strips: ["cello"] });
    await screen.findByText(/strip Cello/);
    press("Enter", { shiftKey: true });
    expect(whereNow()).toBe("/projects/salt-lanterns/plan?preset=rim-and-air&version=1&strips=cello");
    press("v");
    await waitFor(() => expect(whereNow()).toMatch(/^\/bench\?preset=(?!rim-and-air)/));
  });

  it("of several strips is varied where it stands, and is not opened on the bench, by a key or by its name", async () => {
    await open("/library?q=bowed+pair");
    const before = whereNow();
    press("v");
    await waitFor(() => expect(said).toEqual(["Made “Bowed pair that ducks under a voice, variation”"]));
    press("b");
    await waitFor(() => expect(said.at(-1)).toMatch(/holds several strips/));
    expect(whereNow()).toBe(before);
    expect(house.asked.filter((asked) => asked === "POST /api/drafts")).toEqual([]);
  });

  it("is rated by a digit; undo goes to what was touched last", async () => {
    await open("/library?q=rim+and+air");
    const before = (await presetOf("rim-and-air")).card.rating;
    press("1");
    await waitFor(() => expect(said).toEqual(["Rate “Rim and air”"]));
    expect((await presetOf("rim-and-air")).card.rating).toBe(1);
    await waitFor(() => expect(card().getByText("1 of 5")).toBeTruthy());
    press("z", { ctrlKey: true });
    await waitFor(async () => expect((await presetOf("rim-and-air")).card.rating).toBe(before));
    expect(said.at(-1)).toBe("Taken back: Rate “Rim and air”");
    press("Z", { ctrlKey: true, shiftKey: true });
    await waitFor(async () => expect((await presetOf("rim-and-air")).card.rating).toBe(1));
  });

  it("goes into the bin by Delete, out of the list, and comes back", async () => {
    await open("/library?q=rim+and+air");
    press("Delete");
    await waitFor(() => expect(said).toEqual(["Put “Rim and air” into the bin"]));
    await waitFor(() =>
      expect(screen.queryByRole("listbox", { name: "Sounds" })?.textContent ?? "").not.toContain("Rim and air"),
    );
    press("z", { ctrlKey: true });
    await waitFor(() => expect(names()).toContain("Rim and air"));
  });

  it("stays as it is where it came with a pack, and says how to have one of one's own", async () => {
    await open("/library?q=pack:included", withPack);
    press("Delete");
    await waitFor(() => expect(said.at(-1)).toContain("all else of it stays as it is. Make a copy (U)"));
    press("3");
    await waitFor(() => expect(said.at(-1)).toMatch(/^Rate “/));
    expect(card().getByRole("button", { name: "Copy to own" })).toBeTruthy();
  });

  it("has its sheets by their keys, for all that are chosen", async () => {
    await open("/library?sort=name&only=pack:own");
    press("ArrowDown", { shiftKey: true });
    for (const [key, sheet] of [
      ["e", "edit"],
      ["f", "move"],
      ["t", "tag"],
      ["r", "rename"],
      ["c", "compare"],
    ] as const) {
      press(key);
      const { open: opened } = useLibrarySheet.getState();
      expect(opened?.sheet, key).toBe(sheet);
      if (opened && "presets" in opened) expect(opened.presets).toHaveLength(2);
      act(() => closeSheet());
    }
  });
});

describe("a library with nothing of one's own", () => {
  it("says what to do first", async () => {
    await open("/library", withPack);
    const note = screen.getByText(/Nothing of your own yet/);
    fireEvent.click(within(note.parentElement!).getByRole("button", { name: "Start a new sound" }));
    expect(whereNow()).toBe("/bench?new=1");
  });
});
