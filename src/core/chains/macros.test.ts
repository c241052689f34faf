import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MODELS } from "../processors/models";
import { WIRED } from "../recall/testing/wired";
import { type Model, defaultValues } from "../processors/model";
import { positionOf, valueAt } from "../units/param-spec";
import { beatsPerMinute } from "../units/quantities";
import type { Chain, ChainNode, MacroTarget, Processor } from "./chain";
import {
  findTargetProblem,
  findTargetSpec,
  learnedTarget,
  movesTo,
  placeOfAxis,
  placeOfValue,
  switchForAll,
  targetValue,
  valueAtPlace,
  withCopiedTargets,
  withoutLostTargets,
} from "./macros";
import { LANE_LEVEL } from "./params";
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
  it("is learned from where the value stands, wherever the macro does: putting it there again moves nothing", () => {
    const processor = (model: Model, id: string, value: number): Processor => ({
      type: "processor",
      key: "x",
      model: model.id,
      enabled: true,
      values: { ...defaultValues(model), [id]: value },
    });
    const some = fc.constantFrom(...MODELS).chain((model) =>
      fc.record({
        model: fc.constant(model),
        spec: fc.constantFrom(...model.params),
        share: fc.double({ min: 0, max: 1, noNaN: true }),
        place: fc.constantFrom(0, 0.25, 0.5, 0.75, 1),
      }),
    );
    let inTheMiddle = 0;
    fc.assert(
      fc.property(some, ({ model, spec, share, place }) => {
        const at = spec.choices ? Math.round(share) : share;
        const value = spec.choices ? spec.choices[at]!.value : Number(valueAt(spec, at).toPrecision(4));
        const lane = { key: "lane", name: "A", enabled: true, level: valueAt(LANE_LEVEL, place), pan: 0, nodes: [] };
        const split: ChainNode = { type: "split", key: "s", by: { way: "copy" }, lanes: [lane] };
        const chain: Chain = { nodes: [processor(model, spec.id, value), split], macros: [] };
        // What the axis has already tells where it stands.
        const has = { node: "lane", param: "level", from: LANE_LEVEL.min, to: LANE_LEVEL.max, bend: 0 };
        const target = learnedTarget(chain, [has], { node: "x", param: spec.id }, beatsPerMinute(120))!;
        const stands = placeOfAxis(chain, [has])!;
        const isAtAnEnd = value === spec.min || value === spec.max;
        if (isAtAnEnd && stands > 0 && stands < 1) return;
        if (stands > 0 && stands < 1 && !spec.choices) inTheMiddle++;
        expect(target.from).not.toBe(target.to);
        expect(findTargetProblem(chain, target)).toBeNull();
        const then = valueAtPlace(spec, target, stands);
        expect(positionOf(spec, then)).toBeCloseTo(positionOf(spec, value), 4);
        expect(learnedTarget(chain, [target], { node: "x", param: spec.id }, beatsPerMinute(120))).toBeNull();
      }),
    );
    expect(inTheMiddle).toBeGreaterThan(10);
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
    // Under the same key another model, of which a value of that name goes elsewhere.
    const other = (model: string): Chain => ({
      nodes: [{ type: "processor", key: "c", model, enabled: true, values: {} }],
      macros: [
        { key: "m", name: "M", style: "line", axes: [[{ node: "c", param: "release", from: 5, to: 900, bend: 0 }]] },
      ],
    });
    const fits = ["vca-compressor", "opto-compressor"].map((model) => withoutLostTargets(other(model)));
    expect(fits.map(({ lost }) => lost)).toEqual([0, 1]);
    expect(fits[1]?.macros[0]?.axes).toEqual([[]]);
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
