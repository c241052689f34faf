import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Card, emptyCard } from "../presets/preset";
import { findOvertaken } from "./overtaken";

const WORDS = ["", "Rim", "Rim and air", "room"];
const origin = fc.record(
  { artist: fc.constantFrom("Copper Heron", "Tidal Clocks"), song: fc.constantFrom("Neap Tide", "Salt Lanterns") },
  { requiredKeys: [] },
);
const card: fc.Arbitrary<Card> = fc.record({
  name: fc.constantFrom(...WORDS),
  folder: fc.constantFrom(null, "a", "b"),
  tags: fc.subarray(["warm", "far"]),
  purpose: fc.constantFrom(...WORDS),
  rating: fc.integer({ min: 0, max: 2 }),
  notes: fc.constant(""),
  origin,
});
const FIELDS = ["name", "folder", "purpose", "rating"] as const;
const change = fc
  .tuple(card, fc.subarray([...FIELDS]))
  .map(([to, fields]) => Object.fromEntries(fields.map((f) => [f, to[f]])) as Partial<Card>);

describe("a change that another one came before", () => {
  it("is overtaken in nothing where the card is as it was seen", () => {
    fc.assert(fc.property(change, card, (made, seen) => void expect(findOvertaken(made, seen, seen)).toEqual([])));
  });

  it("does no harm to what the other changed, where nothing is overtaken", () => {
    fc.assert(
      fc.property(change, card, change, (made, seen, other) => {
        const now = { ...seen, ...other };
        fc.pre(findOvertaken(made, seen, now).length === 0);
        const both = { ...now, ...made };
        for (const field of FIELDS)
          if (now[field] !== seen[field]) expect(both[field], field).toBe(now[field]);
          else expect(both[field], field).toBe(field in made ? made[field] : seen[field]);
      }),
    );
  });

  it("names each field that both have changed, with what stands there by now", () => {
    fc.assert(
      fc.property(card, card, card, (seen, to, now) => {
        const made: Partial<Card> = { name: to.name, rating: to.rating };
        const expected = (["name", "rating"] as const).filter((f) => seen[f] !== now[f] && to[f] !== now[f]);
        expect(findOvertaken(made, seen, now)).toEqual(expected.map((field) => ({ field, now: now[field] })));
      }),
    );
  });

  it("leaves alone what of an origin was only carried along", () => {
    const seen = { ...emptyCard("Rim"), origin: { artist: "Copper Heron", song: "Neap Tide" } };
    const now = { ...seen, origin: { artist: "Tidal Clocks", song: "Neap Tide" } };
    const song = { origin: { ...seen.origin, song: "Salt Lanterns" } };
    expect(findOvertaken(song, seen, now)).toEqual([]);
    const artist = { origin: { artist: "Half Moon Choir", song: "Neap Tide" } };
    expect(findOvertaken(artist, seen, now)).toEqual([{ field: "artist", now: "Tidal Clocks" }]);
    const without = { origin: { song: "Neap Tide" } };
    expect(findOvertaken(without, seen, now)).toEqual([{ field: "artist", now: "Tidal Clocks" }]);
  });

  it("adds tags to whatever there is", () => {
    const seen = emptyCard("Rim");
    const now = { ...seen, tags: ["far"] };
    expect(findOvertaken({ tags: ["warm"], dismissed: ["dark"] }, seen, now)).toEqual([]);
  });
});
