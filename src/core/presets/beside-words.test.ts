import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { INCLUDED } from "../packs/included";
import { linesOf, valuesBeside } from "./beside-words";
import type { Content } from "./preset";
import { compareContents } from "./versions-of-sets";

const CONTENTS = INCLUDED.presets.map(({ content }) => content).filter(({ kind }) => kind === "plugin");

/** A plugin with some of its numbers turned. */
const turned = (content: Content, by: readonly number[]): Content => {
  if (content.kind !== "plugin") return content;
  const values = Object.entries(content.processor.values).map(([name, value], n) => [
    name,
    typeof value === "number" ? value * (1 + (by[n % by.length] ?? 0)) : value,
  ]);
  return { ...content, processor: { ...content.processor, values: Object.fromEntries(values) as never } };
};

describe("several sounds beside each other", () => {
  it("say what each says where they differ, and nothing where all say the same", () => {
    const [content] = CONTENTS as [Content];
    expect(valuesBeside([content, content, content])).toEqual([]);
    expect(valuesBeside([content])).toEqual([]);
    expect(valuesBeside([])).toEqual([]);
  });

  it("tell of each and the first what a comparison of the two tells", () => {
    const turns = fc.array(fc.array(fc.constantFrom(0, 0, 0.01, 0.2), { minLength: 1, maxLength: 4 }), {
      minLength: 1,
      maxLength: 5,
    });
    fc.assert(
      fc.property(fc.constantFrom(...CONTENTS), turns, (content, many) => {
        const contents = [content, ...many.map((by) => turned(content, by))];
        const rows = valuesBeside(contents);
        for (const [n, other] of contents.entries()) {
          const told = compareContents(content, other).flatMap(linesOf);
          const shown = rows
            .filter(({ values }) => values[n] !== values[0])
            .map(({ what, values }) => ({ what, from: values[0], to: values[n] }));
          // A turn that is too small to be written otherwise is no difference that a reader sees.
          const seen = told.filter(({ from, to }) => from !== to).map(({ what, from, to }) => ({ what, from, to }));
          const byName = (a: { what: string }, b: { what: string }) => a.what.localeCompare(b.what);
          expect(shown.toSorted(byName)).toEqual(seen.toSorted(byName));
        }
      }),
    );
  });
});
