import { describe, expect, it } from "vitest";
import { Oversampler } from "./oversampler";
import { type Doublings, oversamplingDelay } from "./oversampling";

const RATE = 48_000;
const COUNT = 32;

/** Runs a signal up, shapes it, and runs it down. */
function through(
  signal: (i: number) => number,
  length: number,
  shape: (x: number) => number = (x) => x,
  more: { rate?: number; doublings?: Doublings } = {},
) {
  const oversampler = new Oversampler(more.rate ?? RATE, more.doublings ?? 3);
  const out = new Float64Array(length);
  const block = new Float64Array(COUNT);
  for (let at = 0; at < length; at += COUNT) {
    for (let i = 0; i < COUNT; i++) block[i] = signal(at + i);
    oversampler.up(block, COUNT);
    for (let i = 0; i < oversampler.factor * COUNT; i++) oversampler.high[i] = shape(oversampler.high[i]!);
    oversampler.down(block, COUNT);
    out.set(block, at);
  }
  return out;
}

/** Amplitude of one frequency in the second half, by correlation over whole periods of a window. */
function amplitudeAt(samples: Float64Array, hz: number): number {
  const begin = samples.length / 2;
  let [re, im] = [0, 0];
  for (let i = begin; i < samples.length; i++) {
    // Hann: neighbours far away do not leak in.
    const window = 1 - Math.cos((2 * Math.PI * (i - begin)) / begin);
    re += window * samples[i]! * Math.cos((2 * Math.PI * hz * i) / RATE);
    im += window * samples[i]! * Math.sin((2 * Math.PI * hz * i) / RATE);
  }
  return (2 * Math.hypot(re, im)) / begin;
}

const tone = (hz: number) => (i: number) => Math.sin((2 * Math.PI * hz * i) / RATE);
const dB = (amplitude: number) => 20 * Math.log10(amplitude);

/** The mean of two neighbours, which is what the antiderivative of a straight curve gives. */
function meanOfTwo() {
  let before = 0;
  return (x: number): number => {
    const mean = (x + before) / 2;
    before = x;
    return mean;
  };
}

describe("the way up and down", () => {
  for (const rate of [44_100, 48_000, 88_200, 96_000, 192_000])
    for (const doublings of [2, 3, 4] as const)
      it(`and the curve between are, up to 20 kHz, a delay: ${2 ** doublings} times ${rate} Hz`, () => {
        const out = through((i) => (i === 0 ? 1 : 0), 512, meanOfTwo(), { rate, doublings });
        const delay = oversamplingDelay(rate);
        for (const hz of [100, 1000, 5000, 12_000, 18_000, 20_000]) {
          const w = (2 * Math.PI * hz) / rate;
          let [re, im] = [0, 0];
          // Against a click at the stated delay: what is left is 1 where it is one.
          out.forEach((y, i) => {
            re += y * Math.cos(w * (i - delay));
            im -= y * Math.sin(w * (i - delay));
          });
          const half = dB(Math.hypot(1 + re, im) / 2);
          expect(Math.abs(half), `half of it dry, ${hz} Hz`).toBeLessThan(0.1);
          expect(Math.abs(dB(Math.hypot(re, im))), `${hz} Hz`).toBeLessThan(0.1);
        }
      });

  it("keeps the aliases of a cubed tone below −70 dB", () => {
    // 3 × 13 kHz = 39 kHz lies above half of 48: without oversampling it folds to 9 kHz at −12 dB.
    const out = through(tone(13_000), 9600, (x) => x ** 3);
    expect(dB(amplitudeAt(out, 9000))).toBeLessThan(-70);
    // What lifts the top for a curve that takes means lifts this one, which takes none.
    expect(amplitudeAt(out, 13_000)).toBeCloseTo(0.75, 1);
  });
});
