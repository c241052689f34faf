import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PATTERN_FIELDS, unknownFields } from "./pattern";
import { patternHelp } from "./pattern-help";

/** The pattern with the hand at `|`. */
const at = (text: string) => patternHelp(text.replace("|", ""), text.indexOf("|"));
const labels = (text: string) => at(text)?.offers.map(({ label }) => label);
const taken = (text: string, label: string): string => {
  const help = at(text);
  const offer = help?.offers.find((one) => one.label === label);
  if (!help || !offer) throw new Error(`“${label}” is not offered.`);
  const pattern = text.replace("|", "");
  return `${pattern.slice(0, help.from)}${offer.insert}|${pattern.slice(help.to)}`;
};

describe("what a pattern goes on with", () => {
  it("is every field behind an open brace, and fewer with each letter", () => {
    expect(labels("{|")).toEqual(Object.keys(PATTERN_FIELDS));
    expect(labels("Voice {pr|")).toEqual(["project"]);
    expect(labels("Voice {project}|")).toBeUndefined();
    expect(labels("Voice|")).toBeUndefined();
  });
  it("is what the field can do behind a colon, and behind each comma", () => {
    expect(labels("{song:|")).toEqual(["upper", "lower", "title", "sentence", "replace … with …", "without …"]);
    expect(labels("{song:upper, re|}")).toEqual(["replace … with …"]);
    expect(labels("{number:|}")).toEqual(["2", "from …", "by …"]);
    expect(labels("{colour:|}")).toBeUndefined();
  });
  it("is taken with the brace that closes it, where there is none", () => {
    expect(taken("{so|", "song")).toBe("{song}|");
    expect(taken("{so|}, {strip}", "song")).toBe("{song|}, {strip}");
    expect(taken("{so|ng:upper}", "song")).toBe("{song|:upper}");
    expect(taken("{song:up|", "upper")).toBe("{song:upper}|");
    expect(taken("{number:2, fr|}", "from …")).toBe("{number:2, from |}");
  });
  it("is understood once it is taken, however much of it was typed", () => {
    for (const field of Object.keys(PATTERN_FIELDS)) {
      const options = labels(`{${field}:|`)!.filter((label) => !label.includes("…"));
      for (const [text, label] of [
        ...[...field].map((_, n) => [`Voice {${field.slice(0, n)}|`, field] as const),
        ...options.flatMap((option) =>
          [...option].map((_, n) => [`{${field}:${option.slice(0, n)}|`, option] as const),
        ),
      ])
        expect(unknownFields(taken(text, label).replace("|", "")), `${text} taken as ${label}`).toEqual([]);
    }
  });
  it("reads any pattern, wherever the hand is", () => {
    const pattern = fc.array(fc.constantFrom("{", "}", ":", ",", "so", "number", "song", " ", "up", "2", "from 3"), {
      maxLength: 12,
    });
    fc.assert(
      fc.property(pattern, fc.nat(40), (parts, hand) => {
        const text = parts.join("");
        const at = Math.min(hand, text.length);
        const help = patternHelp(text, at);
        if (!help) return;
        expect(help.from).toBeLessThanOrEqual(at);
        expect(help.to).toBeGreaterThanOrEqual(at);
        // What stands in the way of the hand is a part of one field, and never its braces.
        expect(text.slice(help.from, help.to)).not.toMatch(/[{}]/);
      }),
    );
  });
});
