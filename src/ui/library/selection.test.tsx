// @vitest-environment jsdom
import { act, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import type { PresetQuery } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { INCLUDED } from "@/core/packs/included";
import { value } from "@/server/testing";
import { patchCards } from "@/server/use-cases/filing/cards";
import { savePresets } from "@/server/use-cases/library";
import { useSelection } from "./selection";
import { useListing } from "./use-listing";

const CONTENT = INCLUDED.presets.find((p) => p.content.kind === "plugin")!.content;
const COUNT = 200;
const NAMES = Array.from({ length: COUNT }, (_, n) => `Take ${String(n).padStart(3, "0")}`);

let house: House;

beforeEach(async () => {
  house = await openHouse();
  value(await savePresets(house.context, { presets: NAMES.map((name) => presetOf(CONTENT, { name })) }));
});

afterEach(() => house.close());

/** The list by name, and what is chosen of it. */
async function open(query: PresetQuery = { sort: "name" }) {
  const hook = renderHook(
    (asked: PresetQuery) => {
      const listing = useListing(asked);
      return { listing, selection: useSelection(listing) };
    },
    { wrapper: house.wrapper, initialProps: query },
  );
  const now = () => hook.result.current;
  await waitFor(() => expect(now().listing.total).toBeGreaterThan(0));
  return {
    now,
    rerender: hook.rerender,
    name: () => now().selection.chosen?.card.name,
    all: () => now().selection.all.map((p) => p.card.name),
    idAt: (place: number) => now().listing.at(place)!.id,
    settled: (check: () => void) => waitFor(check),
  };
}

describe("a list that is longer than a page", () => {
  it("fetches the first page, and others as they come in sight", async () => {
    const { now, settled } = await open();
    expect(now().listing.total).toBe(COUNT);
    expect(now().listing.here).toHaveLength(60);
    expect(now().listing.at(150)).toBeUndefined();
    act(() => now().listing.look(140, 160));
    await settled(() => expect(now().listing.at(150)?.card.name).toBe("Take 150"));
    expect(now().listing.placeOf(now().listing.at(150)!.id)).toBe(150);
    // Each page once, however often it came in sight.
    const pages = house.asked.flatMap((a) => /offset=\d+/.exec(a)?.[0] ?? []);
    expect(pages.length).toBe(new Set(pages).size);
  });

  it("hands out a stretch over pages that are not here, in order and whole", async () => {
    const { now } = await open();
    const rows = await act(() => now().listing.load(55, 130));
    expect(rows.map((p) => p.card.name)).toEqual(NAMES.slice(55, 131));
  });

  it("begins anew when something else is asked for", async () => {
    const { now, rerender, settled, name } = await open();
    act(() => now().selection.move(COUNT));
    await settled(() => expect(name()).toBe("Take 199"));
    rerender({ sort: "name", q: "007" });
    await settled(() => expect(now().listing.total).toBe(1));
    expect(name()).toBe("Take 007");
    expect(now().listing.here).toHaveLength(1);
  });
});

describe("choosing", () => {
  it("begins with the first, and steps without leaving the list at either end", async () => {
    const { now, name } = await open();
    expect(name()).toBe("Take 000");
    act(() => now().selection.move(-1));
    expect(name()).toBe("Take 000");
    act(() => now().selection.move(1));
    act(() => now().selection.move(10));
    expect(name()).toBe("Take 011");
  });

  it("stretches from where it began, also where no line was chosen by hand before", async () => {
    const { now, all } = await open();
    for (let n = 0; n < 5; n++) act(() => now().selection.move(1, "upTo"));
    expect(all()).toEqual(NAMES.slice(0, 6));
    act(() => now().selection.move(-2, "upTo"));
    expect(all()).toEqual(NAMES.slice(0, 4));
  });

  it("stretches to the end of what is not here yet", async () => {
    const { now, idAt, all, settled } = await open();
    act(() => now().selection.choose(idAt(10)));
    act(() => now().selection.move(COUNT, "upTo"));
    await settled(() => expect(all()).toEqual(NAMES.slice(10)));
    expect(now().selection.chosen?.card.name).toBe("Take 199");
  });

  it("goes to the end of what is not here yet, and back", async () => {
    const { now, name, settled } = await open();
    act(() => now().selection.move(COUNT));
    await settled(() => expect(name()).toBe("Take 199"));
    await settled(() => expect(now().listing.placeOf(now().selection.chosen!.id)).toBe(199));
    act(() => now().selection.move(-1));
    expect(name()).toBe("Take 198");
    act(() => now().selection.move(-COUNT));
    expect(name()).toBe("Take 000");
  });

  it("adds one by one, and takes one out again", async () => {
    const { now, idAt, all } = await open();
    act(() => now().selection.choose(idAt(2)));
    act(() => now().selection.choose(idAt(5), "also"));
    act(() => now().selection.choose(idAt(9), "also"));
    expect(all()).toEqual(["Take 002", "Take 005", "Take 009"]);
    act(() => now().selection.choose(idAt(5), "also"));
    expect(all()).toEqual(["Take 002", "Take 009"]);
    act(() => void now().selection.letGo());
    expect(all()).toHaveLength(1);
  });

  it("takes a stretch from where it began, in both directions", async () => {
    const { now, idAt, all } = await open();
    act(() => now().selection.choose(idAt(10)));
    act(() => now().selection.choose(idAt(13), "upTo"));
    expect(all()).toEqual(NAMES.slice(10, 14));
    act(() => now().selection.choose(idAt(8), "upTo"));
    expect(all()).toEqual(NAMES.slice(8, 11));
  });

  it("has what is done with all wait for those that are on their way, and not where another was chosen since", async () => {
    const { now, settled, idAt, all } = await open();
    const done: string[][] = [];
    const note = () => now().selection.withAll((rows) => done.push(rows.map((row) => row.card.name)));
    act(() => now().selection.chooseAll());
    act(note);
    expect([done, now().selection.isWaiting]).toEqual([[], true]);
    await settled(() => expect(done).toEqual([NAMES]));
    await settled(() => expect(now().selection.isWaiting).toBe(false));
    act(note);
    expect(done).toEqual([NAMES, NAMES]);

    act(() => void now().selection.letGo());
    act(() => now().selection.choose(idAt(3)));
    act(note);
    expect(done.at(-1)).toEqual(["Take 003"]);
    expect(all()).toEqual(["Take 003"]);
  });

  it("has what is done with many done with the newest of their cards, whoever has changed them", async () => {
    const { now, settled, all } = await open();
    act(() => now().selection.chooseAll());
    await settled(() => expect(all()).toEqual(NAMES));
    const far = now().selection.all[150]!;
    value(await patchCards(house.context, { changes: [{ id: far.id, baseCard: 1, card: { rating: 5 } }] }));
    const { updatedAt } = now().listing;
    await act(() => house.queries.invalidateQueries());
    await settled(() => expect(now().listing.updatedAt).toBeGreaterThan(updatedAt));
    const done: PresetRow[][] = [];
    act(() => now().selection.withAll((rows) => done.push([...rows])));
    expect(now().selection.isWaiting).toBe(true);
    await settled(() => expect(done).toHaveLength(1));
    expect(done[0]).toHaveLength(COUNT);
    expect(done[0]![150]).toMatchObject({ id: far.id, cardRevision: 2, card: { rating: 5 } });
    await settled(() => expect(now().selection.isWaiting).toBe(false));
  });

  it("is no more of what has left the list", async () => {
    const { now, settled, all } = await open({ sort: "name", q: "rating:0" });
    act(() => now().selection.chooseAll());
    await settled(() => expect(all()).toEqual(NAMES));
    const changes = now()
      .selection.all.slice(20)
      .map(({ id }) => ({ id, baseCard: 1, card: { rating: 5 } }));
    value(await patchCards(house.context, { changes }));
    await act(() => house.queries.invalidateQueries());
    await settled(() => expect(now().listing.total).toBe(20));
    expect(all()).toEqual(NAMES.slice(0, 20));
    expect(now().selection.count).toBe(20);
  });

  it("is of so many at once, before any of them has come", async () => {
    const { now, all, settled } = await open();
    act(() => now().selection.chooseAll());
    expect(now().selection.count).toBe(COUNT);
    expect(now().selection.isChosen(now().listing.at(40)!.id)).toBe(true);
    await settled(() => expect(all()).toEqual(NAMES));
    expect(now().selection.count).toBe(COUNT);
  });

  it("takes all, also those that no one has looked at", async () => {
    const { now, all, settled } = await open();
    act(() => now().selection.chooseAll());
    await settled(() => expect(all()).toEqual(NAMES));
    act(() => void now().selection.letGo());
    expect(all()).toHaveLength(1);
  });

  it("keeps what was chosen while other pages come in sight", async () => {
    const { now, idAt, all, settled } = await open();
    act(() => now().listing.look(110, 130));
    await settled(() => expect(now().listing.at(120)).toBeDefined());
    const far = idAt(120);
    act(() => now().selection.choose(idAt(1)));
    act(() => now().selection.choose(far, "also"));
    act(() => now().listing.look(0, 10));
    await settled(() => expect(now().listing.placeOf(far)).toBe(120));
    expect(all()).toEqual(["Take 001", "Take 120"]);
  });

  it("is of nothing in an empty list", async () => {
    const { now } = await open();
    const empty = renderHook(() => useSelection(useListing({ q: "nothing like it" })), { wrapper: house.wrapper });
    await waitFor(() => expect(house.asked.some((a) => a.includes("nothing"))).toBe(true));
    expect(empty.result.current.chosen).toBeNull();
    expect(empty.result.current.all).toEqual([]);
    act(() => empty.result.current.chooseAll());
    const asked = house.asked.length;
    act(() => empty.result.current.move(1));
    expect(empty.result.current.all).toEqual([]);
    expect(house.asked.length).toBe(asked);
    expect(now().listing.total).toBe(COUNT);
  });

  it("does what Enter is for with the list that was asked for, not with the one before", async () => {
    const { now, rerender, settled } = await open();
    const done: string[] = [];
    const enter = () => act(() => now().selection.withChosen((preset) => done.push(preset.card.name)));
    enter();
    expect(done).toEqual(["Take 000"]);
    rerender({ q: "137", sort: "name" });
    expect(now().listing.isOnItsWay).toBe(true);
    expect(now().selection.chosen?.card.name).toBe("Take 000");
    enter();
    await settled(() => expect(done).toEqual(["Take 000", "Take 137"]));
    rerender({ q: "nothing like it", sort: "name" });
    enter();
    await settled(() => expect(now().listing.isOnItsWay).toBe(false));
    expect(done).toHaveLength(2);
  });
});
