// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { useEffect, useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse } from "@/app/testing/house";
import { said } from "@/app/testing/said";
import { KEYS } from "@/clients/events";
import type { PresetQuery } from "@/contracts/library";
import { loadDemo } from "@/demo/load";
import { value } from "@/server/testing";
import { walkLibrary } from "@/server/use-cases/filing/history";
import { changeSearch } from "@/server/use-cases/filing/searches";
import { findPresets } from "@/server/use-cases/find-presets";
import { getSettings } from "@/server/use-cases/settings";
import { Filters } from "./filters";
import { useLibrarySheet } from "./filing";
import { Narrowed } from "./narrowed";
import { DRAGGED_SOUNDS } from "./dragged";
import type { SetFilters } from "./use-library";
import { useListing } from "./use-listing";

vi.mock("next/navigation", () => import("@/app/testing/navigation"));
vi.mock("../kit/say", () => import("@/app/testing/said"));

let house: House;
/** What is asked for by now. */
const query: PresetQuery = {};
const moved: (string | null)[] = [];

/** The filters with a list behind them, as the library has them. */
function Sidebar({ begin }: { readonly begin: PresetQuery }) {
  const [asked, setAsked] = useState(begin);
  const { total, first } = useListing(asked);
  useEffect(() => {
    for (const name of Object.keys(query)) delete query[name as keyof PresetQuery];
    Object.assign(query, asked);
  }, [asked]);
  const set: SetFilters = (changes) =>
    setAsked((now) => ({ ...now, ...((typeof changes === "function" ? changes(now) : changes) as PresetQuery) }));
  return (
    <>
      <output>{first ? total : "…"}</output>
      <Narrowed query={asked} onSet={set} />
      <Filters
        query={asked}
        total={total}
        facets={first?.facets}
        onMove={(folder) => moved.push(folder)}
        onSet={set}
        onWords={(q) => setAsked({ ...asked, q })}
      />
    </>
  );
}

beforeEach(async () => {
  moved.length = 0;
  house = await openHouse(loadDemo);
});

afterEach(async () => {
  useLibrarySheet.setState({ open: null });
  await house.close();
});

const open = async (begin: PresetQuery = {}) => {
  house.show(<Sidebar begin={begin} />);
  await screen.findByRole("treeitem", { name: "Bowed" });
  await waitFor(() => expect(screen.getByRole("status").textContent).not.toBe("…"));
};
const facet = (name: string) => within(screen.getByRole("region", { name }));
const line = (heading: string, value: RegExp) => facet(heading).getByRole("button", { name: value });
const pressed = (button: HTMLElement) => button.getAttribute("aria-pressed") === "true";
const listed = () => Number(screen.getByRole("status").textContent);
const totalOf = async (asked: PresetQuery) => (await findPresets(house.context, asked)).total;

describe("filters", () => {
  it("count what a click would leave, and leave that", async () => {
    await open();
    const plugin = line("Kind", /^Plugin preset/);
    const count = Number(within(plugin).getByText(/^\d+$/).textContent);
    fireEvent.click(plugin);
    await waitFor(() => expect(listed()).toBe(count));
    expect(query.only).toBe('kind:="plugin"');
    expect(pressed(line("Kind", /^Plugin preset/))).toBe(true);
    fireEvent.click(line("Kind", /^Plugin preset/));
    await waitFor(async () => expect(listed()).toBe(await totalOf({})));
  });

  it("that are chosen one right after the other both stand, though the screen was not told of the first yet", async () => {
    await open();
    act(() => {
      fireEvent.click(line("Kind", /^Channel strip/));
      fireEvent.click(line("Artist", /^Tidal Clocks/));
    });
    await waitFor(() => expect(query.only).toContain("Tidal Clocks"));
    expect(query.only).toContain("strip");
  });

  it("of one field widen, of several narrow", async () => {
    await open();
    fireEvent.click(line("Artist", /^Copper Heron/));
    await waitFor(() => expect(query.only).toBe('artist:="Copper Heron"'));
    const heron = await totalOf({ only: 'artist:"Copper Heron"' });
    await waitFor(() => expect(listed()).toBe(heron));
    fireEvent.click(line("Kind", /^Effect chain/));
    await waitFor(async () => expect(listed()).toBe(await totalOf({ only: query.only })));
    expect(listed()).toBeLessThan(heron);
  });

  it("that no sound has any more stand with a count of none, to be let go of", async () => {
    await open({ only: 'artist:"Nobody at all"' });
    const nobody = line("Artist", /^Nobody at all/);
    expect(nobody.textContent).toContain("0");
    fireEvent.click(nobody);
    await waitFor(async () => expect(listed()).toBe(await totalOf({})));
  });

  it("that were written into the address by hand are shown as chosen", async () => {
    await open({ only: "kind:chain" });
    expect(pressed(line("Kind", /^Effect chain/))).toBe(true);
  });

  it("show a few values of a field, and all of them when asked: narrowed by how they begin, by count or by name", async () => {
    await open();
    const before = facet("Tagged").getAllByRole("button").length;
    fireEvent.click(facet("Tagged").getByRole("button", { name: /^All \d+…$/ }));
    const all = within(await screen.findByRole("dialog", { name: "All values of Tagged" }));
    const values = () => all.getAllByRole("checkbox").map((box) => box.getAttribute("aria-label") ?? "");
    await waitFor(() => expect(values().length).toBeGreaterThan(before));
    const byCount = values();
    fireEvent.click(all.getByRole("radio", { name: "Name" }));
    await waitFor(() => expect(values()).toEqual(byCount.toSorted()));
    fireEvent.change(all.getByRole("textbox"), { target: { value: "wa" } });
    await waitFor(() => expect(values()).toEqual(byCount.filter((tag) => tag.startsWith("wa")).toSorted()));
    fireEvent.click(all.getByRole("checkbox", { name: "warm" }));
    await waitFor(() => expect(query.only).toBe('tag:="warm"'));
    // What is chosen stays in sight, whatever is listed.
    await waitFor(() => expect(all.getByRole("checkbox", { name: "warm" }).getAttribute("aria-checked")).toBe("true"));
  });

  it("are closed but for those that most look by, and open with one that is chosen", async () => {
    await open({ only: 'song:"Neap Tide"' });
    const isOpen = (name: RegExp) => screen.getByRole("button", { name }).getAttribute("aria-expanded");
    expect(isOpen(/^Artist/)).toBe("true");
    expect(isOpen(/^Song/)).toBe("true");
    expect(isOpen(/^Plugin inside/)).toBe("false");
    fireEvent.click(screen.getByRole("button", { name: /^Plugin inside/ }));
    expect(facet("Plugin inside").getAllByRole("listitem").length).toBeGreaterThan(1);
  });
});

describe("folders", () => {
  it("are chosen, let go of, and changed on a sheet", async () => {
    await open();
    fireEvent.click(screen.getByRole("treeitem", { name: "Bowed" }));
    await waitFor(async () => expect(listed()).toBe(await totalOf({ folder: "bowed" })));
    fireEvent.click(screen.getByRole("button", { name: "Change" }));
    expect(useLibrarySheet.getState().open).toMatchObject({ sheet: "folder", folder: "bowed" });
    fireEvent.click(screen.getByRole("treeitem", { name: "Bowed" }));
    await waitFor(() => expect(query.folder).toBeUndefined());
  });

  it("take sounds that are dropped on them, and nothing else", async () => {
    await open();
    const bowed = screen.getByRole("treeitem", { name: "Bowed" });
    fireEvent.drop(bowed, { dataTransfer: { types: ["text/plain"] } });
    expect(moved).toEqual([]);
    fireEvent.dragOver(bowed, { dataTransfer: { types: [DRAGGED_SOUNDS] } });
    fireEvent.drop(bowed, { dataTransfer: { types: [DRAGGED_SOUNDS] } });
    fireEvent.drop(screen.getByRole("button", { name: /^All sounds/ }), { dataTransfer: { types: [DRAGGED_SOUNDS] } });
    expect(moved).toEqual(["bowed", null]);
  });
});

describe("what the list is narrowed to", () => {
  const narrowed = () => screen.queryByRole("group", { name: "Narrowed to" });

  it("stands over the list in words, each to be let go of by itself, or all at once", async () => {
    await open({ only: 'kind:"chain" artist:"Copper Heron","Tidal Clocks" rating:4+', folder: "bowed" });
    await waitFor(() =>
      expect(narrowed()!.textContent).toBe(
        ["Folder: Bowed", "Kind: Effect chain", "Artist: Copper Heron", "Artist: Tidal Clocks", "Rating: 4+ of 5"]
          .map((words) => `${words}×`)
          .join("") + "Let go of all",
      ),
    );
    fireEvent.click(screen.getByRole("button", { name: "Remove the filter Artist: Tidal Clocks" }));
    await waitFor(() => expect(query.only).toBe('kind:"chain" artist:"Copper Heron" rating:4+'));
    fireEvent.click(screen.getByRole("button", { name: "Remove the folder" }));
    await waitFor(() => expect(query.folder).toBeUndefined());
    fireEvent.click(screen.getByRole("button", { name: "Let go of all" }));
    await waitFor(async () => expect(listed()).toBe(await totalOf({})));
    expect(narrowed()).toBeNull();
  });
});

describe("searches under a name", () => {
  const names = async () => (await getSettings(house.context)).settings.searches.map(({ name }) => name);
  const keepAs = async (name: string) => {
    fireEvent.click(screen.getByRole("button", { name: "Keep this" }));
    const field = await screen.findByLabelText("Name of this search");
    fireEvent.change(field, { target: { value: name } });
    fireEvent.blur(field);
  };

  it("bring words, filters and folder again, and go when they are let go of", async () => {
    const begin = { q: "voice", only: 'kind:"chain"', folder: "bowed" };
    await open(begin);
    await keepAs("  Bowed voices ");
    const kept = await screen.findByRole("button", { name: "Bowed voices" });
    expect(screen.queryByRole("button", { name: "Keep this" })).toBeNull();
    fireEvent.click(screen.getByRole("button", { name: /^All sounds/ }));
    await waitFor(() => expect(query.only).toBeUndefined());
    fireEvent.click(kept);
    await waitFor(() => expect(query).toMatchObject(begin));
    fireEvent.keyDown(screen.getByRole("button", { name: "Bowed voices" }), { key: "Delete" });
    await waitFor(async () => expect(await names()).toEqual([]));
    await waitFor(() => expect(said.at(-1)).toContain("Let go of the search “Bowed voices”"));
    value(await walkLibrary(house.context, "undo"));
    expect(await names()).toEqual(["Bowed voices"]);
  });

  it("are called otherwise and put in order, by key and by their menu", async () => {
    await open({ q: "voice" });
    await keepAs("One");
    const one = await screen.findByRole("button", { name: "One" });
    fireEvent.click(screen.getByRole("button", { name: /^All sounds/ }));
    value(await changeSearch(house.context, { id: "two", search: { name: "Two", q: "horn", only: "", folder: null } }));
    await act(() => house.queries.invalidateQueries({ queryKey: KEYS.settings }));
    await screen.findByRole("button", { name: "Two" });
    fireEvent.keyDown(one, { key: "ArrowDown", altKey: true });
    await waitFor(async () => expect(await names()).toEqual(["Two", "One"]));
    fireEvent.keyDown(screen.getByRole("button", { name: "More for the search One" }), { key: "Enter" });
    fireEvent.click(await screen.findByRole("menuitem", { name: /^Move up/ }));
    await waitFor(async () => expect(await names()).toEqual(["One", "Two"]));
    fireEvent.keyDown(screen.getByRole("button", { name: "Two" }), { key: "F2" });
    const field = await screen.findByLabelText("Name of the search Two");
    fireEvent.change(field, { target: { value: "Horns" } });
    fireEvent.keyDown(field, { key: "Enter" });
    fireEvent.blur(field);
    await waitFor(async () => expect(await names()).toEqual(["One", "Horns"]));
  });

  it("are not kept without a name", async () => {
    await open({ q: "voice" });
    await keepAs("   ");
    expect(screen.queryByLabelText("Name of this search")).toBeNull();
    expect((await getSettings(house.context)).settings.searches).toEqual([]);
  });
});
