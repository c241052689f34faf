import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MODELS } from "../processors/models";
import { WIRED } from "../recall/testing/wired";
import type { MacroTarget } from "./chain";
import {
  findTargetSpec,
  movesTo,
  placeOfAxis,
  placeOfValue,
  switchForAll,
  targetValue,
  valueAtPlace,
  withCopiedTargets,
  withoutLostTargets,
} from "./macros";
import { withoutNode } from "./tree";

const SPECS = MODELS.flatMap((model) => model.params);

describe("a macro's target", () => {
  it("stands at its ends at the ends, also backwards, whatever the bend", () => {
    fc.assert(
      fc.property(fc.constantFrom(...SPECS), fc.double({ min: -1, max: 1, noNaN: true }), (spec, bend) => {
        for (const [from, to] of [
          [spec.min, spec.max],
          [spec.max, spec.min],
        ] as const) {
          const target: MacroTarget = { node: "x", param: spec.id, from, to, bend };
          expect(valueAtPlace(spec, target, 0)).toBe(from);
          expect(valueAtPlace(spec, target, 1)).toBe(to);
        }
      }),
    );
  });
  it("tells its place from its value, and the value from the place", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SPECS.filter((s) => !s.choices)),
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        (spec, bend, place) => {
          const target: MacroTarget = { node: "x", param: spec.id, from: spec.max, to: spec.min, bend };
          const value = valueAtPlace(spec, target, place);
          expect(valueAtPlace(spec, target, placeOfValue(spec, target, value)!)).toBeCloseTo(value, 3);
        },
      ),
    );
  });
  it("rises all the way, slower at first with a bend of 1", () => {
    const spec = { ...SPECS.find((s) => s.id === "mix")! };
    const at = (bend: number, place: number) =>
      valueAtPlace(spec, { node: "x", param: "mix", from: 0, to: 100, bend }, place);
    expect(at(0, 0.5)).toBe(50);
    expect(at(1, 0.5)).toBe(6.25);
    expect(at(-1, 0.5)).toBeCloseTo(84.0896, 3);
  });
});

describe("a macro in its chain", () => {
  const [targets] = WIRED.macros[0]!.axes as [MacroTarget[]];
  it("stands where its values are, and says what a move changes", () => {
    // The first amplifier's drive of 18 dB is 0.45 of 0 to 40.
    expect(placeOfAxis(WIRED, targets)).toBeCloseTo(0.45, 6);
    const moves = movesTo(WIRED, targets, 1);
    expect(moves.map((m) => [m.target.node, m.to])).toEqual([
      ["amp1", 40],
      ["amp2", 6],
      ["laneB", 0],
    ]);
    expect(movesTo(WIRED, [targets[0]!], 0.45)).toEqual([]);
  });
  it("aims at plugins, sections and lanes, and at nothing else", () => {
    expect(findTargetSpec(WIRED, { node: "pedals", param: "enabled" })?.name).toBe("On");
    expect(findTargetSpec(WIRED, { node: "laneA", param: "pan" })?.unit).toBe("pan");
    expect(findTargetSpec(WIRED, { node: "amp1", param: "nothing" })).toBeNull();
    expect(findTargetSpec(WIRED, { node: "split", param: "enabled" })).toBeNull();
    expect(targetValue(WIRED, { node: "laneA", param: "enabled" })).toBe(1);
  });
  it("loses the targets that went with a node, and counts them", () => {
    expect(withoutLostTargets(withoutNode(WIRED, "amp1")).lost).toBe(1);
    expect(withoutLostTargets(withoutNode(WIRED, "split")).lost).toBe(3);
    expect(withoutLostTargets(WIRED)).toEqual({ macros: WIRED.macros, lost: 0 });
  });
  it("aims at a copy as it does at the original", () => {
    const [macro] = withCopiedTargets(WIRED.macros, new Map([["amp1", "copy"]]));
    expect(macro?.axes[0]?.at(-1)).toEqual({ ...targets[0], node: "copy" });
    expect(withCopiedTargets(WIRED.macros, new Map())[0]).toBe(WIRED.macros[0]);
  });
  it("switches every plugin by one switch", () => {
    const macro = switchForAll(WIRED, "all", "All");
    expect(macro.axes[0]).toHaveLength(5);
    expect(placeOfAxis(WIRED, macro.axes[0]!)).toBe(1);
    expect(movesTo(WIRED, macro.axes[0]!, 0)).toHaveLength(5);
  });
});
