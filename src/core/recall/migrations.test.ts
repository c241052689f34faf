import { describe, expect, it } from "vitest";
import { EMPTY_CHAIN } from "../chains/chain";
import { createStrip } from "../strips/strip";
import { liftSteps } from "./migrations";
import { cellOf } from "./steps";
import { StepSchema } from "./steps/step-schema";

/* Steps as they were kept first, each beside what it is by now. */

const before = (cell: object, rest: object) => ({ id: "s", cell, needs: ["r"], ...rest });
const strip = createStrip("cello", "audio", { name: "Cello" }, null);

const LIFTED: readonly (readonly [first: object, now: object])[] = [
  [
    before({ strip: "cello", part: "level" }, { kind: "setLevel", from: strip.level, to: { fader: -6, mute: true } }),
    { id: "s", kind: "setPart", strip: "cello", part: "level", from: strip.level, to: { fader: -6, mute: true } },
  ],
  [
    before({ strip: "cello", part: "source" }, { kind: "setSource", from: strip.source, to: strip.source }),
    { id: "s", kind: "setPart", strip: "cello", part: "source", from: strip.source, to: strip.source },
  ],
  [
    before({ strip: "cello", part: "inserts" }, { kind: "setInserts", from: EMPTY_CHAIN, to: EMPTY_CHAIN }),
    { id: "s", kind: "setChain", strip: "cello", from: EMPTY_CHAIN, to: EMPTY_CHAIN },
  ],
  [
    before(
      { strip: "cello", part: "effects", layer: "layer1" },
      { kind: "setValue", node: "eq", param: "gain", from: 0, to: 1 },
    ),
    { id: "s", kind: "setValue", strip: "cello", layer: "layer1", node: "eq", param: "gain", from: 0, to: 1 },
  ],
  [
    before({ strip: "cello", part: "strip" }, { kind: "placeStrip", from: null, to: { strip, after: null } }),
    { id: "s", kind: "placeStrip", strip: "cello", from: null, to: { strip, after: null } },
  ],
  [
    before({ strip: null, part: "project" }, { kind: "setTempo", from: 92, to: 96 }),
    { id: "s", kind: "setDetail", detail: "tempo", from: 92, to: 96 },
  ],
  [
    { id: "s", kind: "setTempo", from: 92, to: 96 },
    { id: "s", kind: "setDetail", detail: "tempo", from: 92, to: 96 },
  ],
];

describe("steps of an earlier Diathesis", () => {
  it.each(LIFTED)("are what they were: %j", (first, now) => {
    const lifted = liftSteps([first]);
    expect(lifted).toEqual([now]);
    expect(StepSchema.safeParse(lifted[0]).error).toBeUndefined();
  });

  it("of today stay as they are", () => {
    const steps = LIFTED.map(([, now]) => now);
    expect(liftSteps(steps)).toEqual(steps);
  });
});

describe("what a step changes", () => {
  it("follows from its kind, and cannot be said otherwise", () => {
    expect(liftSteps(LIFTED.map(([first]) => first)).map(cellOf)).toEqual([
      { strip: "cello", part: "level" },
      { strip: "cello", part: "source" },
      { strip: "cello", part: "inserts" },
      { strip: "cello", part: "source" },
      { strip: "cello", part: null },
      { strip: null, part: null },
      { strip: null, part: null },
    ]);
    const level = { id: "s", kind: "setPart", strip: "cello", part: "look", from: strip.level, to: strip.level };
    expect(StepSchema.safeParse(level).success).toBe(false);
    expect(StepSchema.safeParse({ ...level, part: "level" }).success).toBe(true);
    expect(StepSchema.safeParse({ ...level, part: "level", cell: { strip: "cello", part: "look" } }).success).toBe(
      false,
    );
  });
});
