import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { inNameOrder } from "./order";

describe("the order of names", () => {
  it("heeds neither case nor accents, and takes numbers for numbers", () => {
    const filed = ["Ärger", "Take 2", "take 10", "Zither"];
    expect(["Zither", "take 10", "Take 2", "Ärger"].toSorted(inNameOrder)).toEqual(filed);
  });

  it("is one order: only the same are equal, and turned round it is the other way", () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (a, b) => {
        expect(inNameOrder(a, b) === 0).toBe(a === b);
        expect(Math.sign(inNameOrder(a, b)) + Math.sign(inNameOrder(b, a))).toBe(0);
      }),
    );
  });
});
