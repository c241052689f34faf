import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type PartName, PARTS } from "../strips/parts";
import { LAWS, type Met } from "./testing/laws";

/** Of each law; `npm run bench -- --only laws` runs 20,000. */
const RUNS = { numRuns: 160 };

describe("the laws of recall", () => {
  const met: Met = { changed: new Set<PartName>(), spared: new Set<PartName>() };

  it.each(LAWS)("$name", ({ property }) => {
    fc.assert(property(met), RUNS);
  });

  it("run over every part, changed where it is chosen and left where it is not", () => {
    expect([...met.changed].toSorted()).toEqual([...PARTS].toSorted());
    expect([...met.spared].toSorted()).toEqual([...PARTS].toSorted());
  });
});
