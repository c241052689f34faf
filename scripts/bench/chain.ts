import { type HeardChain, heardProcessor } from "../../src/core/chains/heard-chain";
import { type Biquad, bell } from "../../src/core/dsp/biquad";
import { createChainRuntime } from "../../src/core/sound/chain/chain-runtime";
import { drumWithCello } from "../../src/core/materials/drum-with-cello";
import { getModel } from "../../src/core/processors/models";
import type { Values } from "../../src/core/units/param-spec";
import { setTo } from "../../src/core/sound/testing";
import { decibels, hertz } from "../../src/core/units/quantities";
import { type Figure, median } from "./figure";

const RATE = 48_000;
const BLOCK = 128;
const SECONDS = 4;

const SIX: readonly [model: string, values: Values][] = [
  [
    "parametric-eq",
    {
      "band1.used": 1,
      "band2.used": 1,
      "band2.gain": 3,
      "band3.used": 1,
      "band3.gain": -4,
      "band4.used": 1,
      "band4.gain": 2,
      "band5.used": 1,
      "band5.gain": -2,
      "band6.used": 1,
      "band6.gain": 3,
    },
  ],
  ["vca-compressor", { threshold: -24, ratio: 3, makeupMode: 1 }],
  ["tube", { drive: 8 }],
  ["chorus", {}],
  ["multitap-delay", { feedback: 30 }],
  ["room", {}],
];

/** EQ, compressor, saturation, chorus, delay and room. */
export const SIX_PROCESSORS: HeardChain = SIX.map(([model, values]) =>
  heardProcessor(getModel(model), setTo(getModel(model), values)),
);

interface Section {
  readonly b: Biquad;
  readonly z: Float64Array;
}

/** Six stereo biquads in a plain loop: the floor that a chain is measured against. */
function sixBiquads(left: Float32Array, right: Float32Array, sections: readonly Section[]): void {
  for (const { b, z } of sections) {
    const { b0, b1, b2, a1, a2 } = b;
    let [l1, l2, r1, r2] = [z[0]!, z[1]!, z[2]!, z[3]!];
    for (let i = 0; i < left.length; i++) {
      const x = left[i]!;
      const y = b0 * x + l1;
      l1 = b1 * x - a1 * y + l2;
      l2 = b2 * x - a2 * y;
      left[i] = y;
      const u = right[i]!;
      const v = b0 * u + r1;
      r1 = b1 * u - a1 * v + r2;
      r2 = b2 * u - a2 * v;
      right[i] = v;
    }
    z[0] = l1;
    z[1] = l2;
    z[2] = r1;
    z[3] = r2;
  }
}

/** Rendering four seconds of material through six processors: against six biquads, and against the clock. */
export function chainCost(): readonly Figure[] {
  const material = drumWithCello(RATE);
  const length = SECONDS * RATE;
  const [left, right] = [new Float32Array(length), new Float32Array(length)];
  const blocks = Array.from({ length: Math.floor(length / BLOCK) }, (_, n) =>
    [left, right].map((s) => s.subarray(n * BLOCK, (n + 1) * BLOCK)),
  );
  const timed = (process: (l: Float32Array, r: Float32Array) => void): number => {
    left.set(material.left.subarray(0, length));
    right.set(material.right.subarray(0, length));
    const begin = performance.now();
    for (const [l, r] of blocks) process(l!, r!);
    return performance.now() - begin;
  };
  const runtime = createChainRuntime(SIX_PROCESSORS, RATE);
  const sections = [80, 200, 500, 1200, 3000, 8000].map((freq) => ({
    b: bell({ freq: hertz(freq), q: 1, sampleRate: RATE }, decibels(3)),
    z: new Float64Array(4),
  }));
  const chain = () => timed((l, r) => runtime.process(l, r, BLOCK));
  const floor = () => timed((l, r) => sixBiquads(l, r, sections));
  for (let warm = 0; warm < 3; warm++) {
    chain();
    floor();
  }
  const rounds = Array.from({ length: 11 }, () => ({ chain: chain(), floor: floor() }));
  const runs = rounds.length;
  return [
    {
      name: "chain-vs-eq",
      value: median(rounds.map((r) => r.chain / r.floor)),
      op: "<=",
      goal: 13,
      unit: "ratio",
      runs,
    },
    {
      name: "chain-realtime",
      value: (SECONDS * 1000) / median(rounds.map((r) => r.chain)),
      op: ">=",
      goal: 40,
      unit: "× real time",
      runs,
    },
  ];
}
