import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { About } from "./about";
import { isWithin, readNarrowing } from "./narrow";

/** A Sunday afternoon. */
const NOW = new Date(2026, 10, 29, 15, 0);
const NOTHING: About = { strips: [], parts: [], presets: [] };
const day = (date: number, hours = 0, minutes = 0): Date => new Date(2026, 10, date, hours, minutes);

describe("what narrows the history of a project", () => {
  it.each([
    ["since yesterday", day(28), null],
    ["today", day(29), day(30)],
    ["yesterday", day(28), day(29)],
    ["on 2026-11-24", day(24), day(25)],
    ["2026-11-24", day(24), day(25)],
    ["before 2026-11-24", null, day(24)],
    ["since 2026-11-20 before 2026-11-24", day(20), day(24)],
    ["since 14:30", day(29, 14, 30), null],
    ["Since Friday", day(27), null],
    ["since sunday", day(22), null],
  ])("%s says when, and nothing else", (text, since, until) => {
    expect(readNarrowing(text, NOW)).toEqual({ words: [], since, until });
  });

  it.each(["since", "before the bridge", "14:30", "on 2026-02-31", "since 25:00"])("%s says no time", (text) => {
    expect(readNarrowing(text, NOW)).toMatchObject({ since: null, until: null });
  });

  it("leaves the words, without those that only join", () => {
    expect(readNarrowing("level of Cello since yesterday", NOW).words).toEqual(["level", "cello"]);
  });

  it("reads every text, and is never broader with one word more", () => {
    const told = fc.record({
      at: fc.date({ min: day(1), max: day(30), noInvalidDate: true }),
      label: fc.constantFrom("Level: −3.0 dB", "Apply Wood and rosin", "Since when"),
      about: fc.constantFrom<About>(NOTHING, {
        strips: [{ id: "c", name: "Cello" }],
        parts: ["level"],
        presets: ["Wood and rosin"],
      }),
    });
    const word = fc.oneof(
      fc.constantFrom("level", "of", "since", "yesterday", "before", "14:30", "2026-11-24", "cello", "applied"),
      fc.string({ maxLength: 6 }),
    );
    fc.assert(
      fc.property(told, fc.array(word, { maxLength: 4 }), (change, words) => {
        expect(isWithin(readNarrowing("", NOW), change)).toBe(true);
        const [all, fewer] = [words, words.slice(0, -1)].map((some) => readNarrowing(some.join(" "), NOW));
        // "since" by itself is a word; with a day behind it, it is none.
        if (all!.words.length >= fewer!.words.length && isWithin(all!, change))
          expect(isWithin(fewer!, change)).toBe(true);
      }),
    );
  });

  it("finds a change by its words, its strips, its parts, and what it brought in", () => {
    const change = {
      at: day(28, 12),
      label: "−3.0 dB",
      about: { strips: [{ id: "c", name: "Célló" }], parts: ["level" as const], presets: ["Wood and rosin"] },
    };
    const finds = (text: string) => isWithin(readNarrowing(text, NOW), change);
    expect(["level of cello", "applied presets", "rosin", "cello yesterday", "3"].map(finds)).toEqual(
      Array.from({ length: 5 }, () => true),
    );
    expect(["pan of cello", "cello today", "osin"].map(finds)).toEqual([false, false, false]);
  });
});
