import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { emptyCard } from "../presets/preset";
import { LONGEST_NAME } from "../names/free";
import { type Named, applyPattern, shortName, unknownFields } from "./pattern";

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
    expect(unknownFields("{colour} {song} {taste}")).toEqual(["colour", "taste"]);
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

describe("short names", () => {
  it("keep what tells them apart", () => {
    expect(shortName("Voice, one step forward", 16)).toBe("Vce one stp frwr");
    expect(shortName("Rim and air", 8)).toBe("Rim air");
    expect(shortName("Éclair of brass", 11)).toBe("Eclair brss");
    expect(shortName("Room", 8)).toBe("Room");
  });
  it("are never longer than they may be, and hold only letters that every display has", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 60 }), fc.integer({ min: 4, max: 24 }), (name, most) => {
        const short = shortName(name, most);
        expect(short.length).toBeLessThanOrEqual(most);
        expect(short).toMatch(/^[A-Za-z0-9 ]*$/);
      }),
    );
  });
});
