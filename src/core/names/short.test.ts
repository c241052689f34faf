import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { shortName, shortNames } from "./short";

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
  it("of several are told apart within their letters, in the order of the list", () => {
    expect(shortNames(["Lead voice", "LEAD VOICE", "Rim", "鼓"], 7)).toEqual(["Ld vce", "LD VCE2", "Rim", ""]);
    const names = fc.array(fc.string({ unit: "grapheme", maxLength: 12 }), { maxLength: 30 });
    fc.assert(
      fc.property(names, fc.integer({ min: 4, max: 24 }), (list, most) => {
        const shorts = shortNames(list, most).filter((short) => short !== "");
        expect(new Set(shorts.map((short) => short.toLowerCase())).size).toBe(shorts.length);
        for (const short of shorts) expect(short.length).toBeLessThanOrEqual(most);
      }),
    );
  });
});
