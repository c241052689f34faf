import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { emptyCard } from "../presets/preset";
import { LONGEST_NAME } from "../names/free";
import { type Named, applyPattern, namer, unknownFields } from "./pattern";

const SOUND: Named = {
  kind: "chain",
  card: {
    ...emptyCard("Untitled 3"),
    purpose: "Sung voice",
    tags: ["warm", "close"],
    origin: { artist: "Copper Heron", song: "Salt Lanterns", date: "2026-11-14" },
  },
  inside: { models: ["De-esser", "Opto compressor", "Tape"], found: [] },
};

describe("names by pattern", () => {
  it("put in what is known", () => {
    expect(applyPattern("{purpose}, {character}", SOUND, 1)).toBe("Sung voice, warm");
    expect(applyPattern("{song} – {model} {number:2}", SOUND, 7)).toBe(
      "Salt Lanterns – De-esser and Opto compressor and 1 more 07",
    );
  });
  it("leave no gap and no dangling sign where something is not known", () => {
    expect(applyPattern("{performer}, {purpose}", SOUND, 1)).toBe("Sung voice");
    expect(applyPattern("{purpose} ({mic}) · {date}", SOUND, 1)).toBe("Sung voice · 2026-11-14");
    expect(applyPattern("{performer} – {mic}", SOUND, 1)).toBe("");
  });
  it("leave alone what they do not know, and say so", () => {
    expect(applyPattern("{colour} {song}", SOUND, 1)).toBe("{colour} Salt Lanterns");
    expect(unknownFields("{colour} {song} {taste}")).toEqual(["{colour}", "{taste}"]);
    expect(applyPattern("{song:loud}, {number:from here}", SOUND, 1)).toBe("{song:loud}, {number:from here}");
    expect(unknownFields("{strip}, {song:up")).toEqual(["{song:up"]);
    expect(unknownFields("{song:loud}, {number:from here}, {song:upper}")).toEqual([
      "{song:loud}",
      "{number:from here}",
    ]);
  });
  it("number from where they are told to, by steps, with so many digits", () => {
    const names = (pattern: string) => [1, 2, 3].map((at) => applyPattern(pattern, SOUND, at));
    expect(names("{number:2}")).toEqual(["01", "02", "03"]);
    expect(names("{number:3, from 10, by 5}")).toEqual(["010", "015", "020"]);
    expect(names("{number:from 2, by -1}")).toEqual(["2", "1", "0"]);
  });
  it("count on by the same step, whatever they begin with", () => {
    const whole = (min: number, max: number) => fc.integer({ min, max });
    fc.assert(
      fc.property(whole(1, 9), whole(0, 999_999), whole(-999, 999), whole(1, 5000), (digits, from, by, at) => {
        const name = namer(`{number:${digits}, from ${from}, by ${by}}`)(SOUND, at);
        expect(Number(name)).toBe(from + (at - 1) * by);
        expect(name.replace("-", "").length).toBeGreaterThanOrEqual(digits);
      }),
    );
  });
  it("write in the letters they are told to, and put words in the place of others", () => {
    const of = (pattern: string) => applyPattern(pattern, SOUND, 1);
    expect(of("{song:upper}")).toBe("SALT LANTERNS");
    expect(of("{song:lower}, {purpose:title}")).toBe("salt lanterns, Sung Voice");
    expect(of("{song:sentence}")).toBe("Salt lanterns");
    expect(of("{song:replace lanterns with Lamps, upper}")).toBe("SALT LAMPS");
    expect(of("{name:without 3} {song:without salt}")).toBe("Untitled Lanterns");
    // What is looked for is what stands there, not a pattern of its own.
    expect(of("{name:replace . with x}")).toBe("Untitled 3");
    expect(of("{name:replace 3 with $&}")).toBe("Untitled $&");
  });
  it("leave no gap where words are left out and nothing stays", () => {
    expect(applyPattern("{song:without Salt Lanterns}, {purpose}", SOUND, 1)).toBe("Sung voice");
  });
  it("never make a name that is too long, or has blanks at its ends", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400, unit: "grapheme" }), fc.string(), (pattern, purpose) => {
        const name = applyPattern(`${pattern}{purpose}`, { ...SOUND, card: { ...SOUND.card, purpose } }, 1);
        expect(name.length).toBeLessThanOrEqual(LONGEST_NAME);
        expect(name).toBe(name.trim());
      }),
    );
  });
});
