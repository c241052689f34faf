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
  const random = seededRandom(model.id.length * 31 + model.params.length);

  /** What builds up does so where all is at its highest: there it is given the longest. */
  it.each<{ name: string; noise: number; silence: number; corner: (spec: ParamSpec) => number }>([
    { name: "30 s of noise and 10 s of silence at its highest", noise: 30, silence: 10, corner: (spec) => spec.max },
    {
      name: "8 s of noise and 4 s of silence at some other corner",
      noise: 8,
      silence: 4,
      corner: (spec) => (random() < 0.5 ? spec.min : spec.max),
    },
  ])(
    "stays finite through $name",
    ({ noise: noisy, silence, corner }) => {
      const values = Object.fromEntries(model.params.map((spec) => [spec.id, corner(spec)]));
      const runtime = createChainRuntime([heardProcessor(model, values)], RATE);
      const [left, right] = [new Float32Array(RATE), new Float32Array(RATE)];
      let loudest = 0;
      for (let second = 0; second < noisy + silence; second++) {
        left.set(second < noisy ? NOISE.left : SILENCE);
        right.set(second < noisy ? NOISE.right : SILENCE);
        runtime.process(left, right, RATE);
        for (let i = 0; i < RATE; i += 7) loudest = Math.max(loudest, Math.abs(left[i]!), Math.abs(right[i]!));
      }
      expect(Number.isFinite(loudest)).toBe(true);
      expect(loudest).toBeLessThan(1e6);
    },
    120_000,
  );
});
