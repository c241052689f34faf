import { heardProcessor } from "../../chains/heard-chain";
import { describe, expect, it } from "vitest";
import { PEAK_HOLD } from "../../dsp/peak-hold";
import { renderChain } from "../../sound/render";
import type { Values } from "../../units/param-spec";
import { setTo, stereoOf } from "../../sound/testing";
import { createVcaCompressor } from "./compressor.kernel";
import { gainAt, makeupOf } from "./static-curve";
import { VCA_COMPRESSOR, vcaCurve } from "./vca-compressor";

const RATE = 48_000;
const heard = (values: Values) => setTo(VCA_COMPRESSOR, values);
const chain = (values: Values) => [heardProcessor(VCA_COMPRESSOR, heard(values))];
const makeupFor = (values: Values) => makeupOf(heard(values), vcaCurve(heard(values)));
const amplitude = (dB: number) => 10 ** (dB / 20);

/** A constant level goes in: what comes out, once the times have passed, is the static curve. */
const settledGain = (values: Values, dB: number): number => {
  const steady = stereoOf(RATE, RATE, () => amplitude(dB));
  return 20 * Math.log10(renderChain(chain(values), steady).left.at(-1)! / amplitude(dB));
};

describe("the compressor's static curve", () => {
  const values: Values = { threshold: -20, ratio: 4, knee: 8, attack: 5, release: 20 };
  it("is heard as it is drawn, within 0.1 dB, below, within and above the knee", () => {
    for (const dB of [-50, -24.5, -23, -20, -17, -15, -6, 0])
      expect(Math.abs(settledGain(values, dB) - gainAt(vcaCurve(heard(values)), dB))).toBeLessThan(0.1);
  });

  it("follows threshold and ratio: 12 dB over at 4:1 gives 9 dB less", () => {
    expect(settledGain({ ...values, knee: 0 }, -8)).toBeCloseTo(-9, 2);
  });

  it("is smooth: the knee meets both straight lines", () => {
    const curve = vcaCurve(heard(values));
    expect(gainAt(curve, -24)).toBeCloseTo(0, 9);
    expect(gainAt(curve, -16)).toBeCloseTo(-0.75 * 4, 9);
  });

  it("gives back half of what full scale loses when make-up is half", () => {
    expect(makeupFor({ ...values, knee: 0, makeupMode: 1 })).toBeCloseTo(7.5, 6);
    expect(settledGain({ ...values, knee: 0, makeupMode: 1 }, -40)).toBeCloseTo(7.5, 2);
  });

  it("mixes in parallel", () => {
    const gain = settledGain({ ...values, knee: 0, mix: 50 }, -8);
    expect(gain).toBeCloseTo(20 * Math.log10(0.5 + 0.5 * amplitude(-9)), 2);
  });
});

describe("attack and release", () => {
  /** Samples until the reduction has covered 1 − 1/e of the way after a step of level at `from` → `to` dB. */
  function timeTo(values: Values, from: number, to: number): number {
    const kernel = createVcaCompressor(RATE);
    kernel.set(heard(values), true);
    const feed = (dB: number, samples: number, watch?: (reduction: number, i: number) => void) => {
      for (let i = 0; i < samples; i++) {
        const [l, r] = [new Float32Array([amplitude(dB)]), new Float32Array([amplitude(dB)])];
        kernel.process(l, r, 0, 1);
        watch?.(kernel.reading(), i + 1);
      }
    };
    feed(from, RATE);
    const begin = kernel.reading();
    const end = gainAt(vcaCurve(heard(values)), to);
    let found = 0;
    feed(to, RATE, (reduction, i) => {
      if (found === 0 && (reduction - begin) / (end - begin) >= 1 - 1 / Math.E) found = i;
    });
    return (1000 * found) / RATE;
  }

  for (const [attack, release] of [
    [1, 40],
    [10, 120],
    [80, 300],
  ] as const)
    it(`takes ${attack} ms and ${release} ms, within 5 %`, () => {
      const values = { threshold: -30, ratio: 4, knee: 0, attack, release };
      expect(Math.abs(timeTo(values, -60, -10) / attack - 1)).toBeLessThan(0.05);
      // A peak is held for 10 ms before it is let go.
      expect(Math.abs((timeTo(values, -10, -60) - 1000 * PEAK_HOLD) / release - 1)).toBeLessThan(0.05);
    });
});
