import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FiledNameSchema } from "../presets/schema";
import { cutText, isVisible } from "./cut";
import { numberedStem } from "./free";

describe("cutting a text", () => {
  it("never goes through a sign, and takes no more than it must", () => {
    const signs = fc.array(fc.constantFrom("a", "é", "e\u0301", "🦁", "👩‍👩‍👧‍👦", "👍🏽", "🇳🇴", "ß", "語", "\u200d"), {
      maxLength: 30,
    });
    fc.assert(
      fc.property(signs, fc.nat(60), (list, most) => {
        const text = list.join("");
        const cut = cutText(text, most);
        expect(text.startsWith(cut)).toBe(true);
        expect(cut.length).toBeLessThanOrEqual(most);
        expect(cut).not.toMatch(/\p{Surrogate}/u);
        const whole = [...new Intl.Segmenter(undefined, { granularity: "grapheme" }).segment(text)].map(
          (s) => s.segment,
        );
        const fitting: string[] = [];
        for (const sign of whole) {
          if (fitting.join("").length + sign.length > most) break;
          fitting.push(sign);
        }
        expect(cut).toBe(fitting.join(""));
      }),
    );
  });

  it("leaves names with an emoji at their end whole or without it", () => {
    expect(cutText("Rim 🦁", 5)).toBe("Rim ");
    expect(cutText("Rim 🦁", 6)).toBe("Rim 🦁");
    expect(numberedStem(`${"x".repeat(194)}🦁🦁`)).toBe("x".repeat(194));
  });
});

describe("a name", () => {
  it("can be seen", () => {
    for (const unseen of ["\u200b", "\u200d\ufe0f", "\u2800", "\u3164", "\u00ad", "\u2060 \ufeff"]) {
      expect(isVisible(unseen)).toBe(false);
      expect(FiledNameSchema(200).safeParse(unseen).success).toBe(false);
    }
    for (const seen of ["a", "🦁", "語", "·", "\u0301"])
      expect(FiledNameSchema(200).safeParse(seen).success).toBe(true);
  });
});
