import { heardProcessor } from "../chains/heard-chain";
import { describe, expect, it } from "vitest";
import { createChainRuntime } from "../sound/chain/chain-runtime";
import { seededRandom } from "../random";
import { EFFECTS } from "./models";
import type { ParamSpec } from "../units/param-spec";
import { noise } from "../sound/testing";

const RATE = 48_000;
const NOISE = noise(1, RATE);
const SILENCE = new Float32Array(RATE);

describe.each(EFFECTS.map((model) => [model.name, model] as const))("%s", (_, model) => {
  it("stays finite through 30 s of noise and 10 s of silence at corners of its parameter space", () => {
    const random = seededRandom(model.id.length * 31 + model.params.length);
    const corners: readonly ((spec: ParamSpec) => number)[] = [
      (spec) => spec.max,
      (spec) => (random() < 0.5 ? spec.min : spec.max),
    ];
    for (const corner of corners) {
      const values = Object.fromEntries(model.params.map((spec) => [spec.id, corner(spec)]));
      const runtime = createChainRuntime([heardProcessor(model, values)], RATE);
      const [left, right] = [new Float32Array(RATE), new Float32Array(RATE)];
      let loudest = 0;
      for (let second = 0; second < 40; second++) {
        left.set(second < 30 ? NOISE.left : SILENCE);
        right.set(second < 30 ? NOISE.right : SILENCE);
        runtime.process(left, right, RATE);
        for (let i = 0; i < RATE; i += 7) loudest = Math.max(loudest, Math.abs(left[i]!), Math.abs(right[i]!));
      }
      expect(Number.isFinite(loudest)).toBe(true);
      expect(loudest).toBeLessThan(1e6);
    }
  }, 120_000);
});
