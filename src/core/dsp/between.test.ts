import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BETWEEN_TAPS, BetweenReader, MOST_BETWEEN } from "./between";
import { truePeak } from "./measure/true-peak";
import { SlidingLeast, SlidingMean } from "./sliding";

const decibels = (x: number): number => 20 * Math.log10(x);

describe("what stands between samples", () => {
  it("of a sine is read within 0.1 dB, whatever its frequency up to 0.46 of the rate and its phase", () => {
    for (let share = 0.01; share <= 0.46; share += 0.0173)
      for (let phase = 0; phase < 8; phase++) {
        // A little beside any small ratio to the rate, so that a crest meets every place between samples.
        const samples = Float32Array.from({ length: 1500 }, (_, i) =>
          Math.sin(2 * Math.PI * (share + 1e-4) * i + (Math.PI * phase) / 8),
        );
        // Its ends are no sine: they are faded.
        const faded = samples.map((x, i) => x * Math.min(1, i / 300, (1499 - i) / 300));
        const read = decibels(10 ** (truePeak({ left: faded, right: faded, sampleRate: 48_000 }) / 20));
        expect(Math.abs(read), `${share}, ${phase}`).toBeLessThanOrEqual(0.1);
      }
  });

  const signal = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 2 * BETWEEN_TAPS, maxLength: 300 });

  it("is read alike where pairs before it are passed over, and never exceeds what it may", () => {
    fc.assert(
      fc.property(signal, fc.integer({ min: BETWEEN_TAPS, max: 2 * BETWEEN_TAPS - 1 }), (values, from) => {
        const samples = Float64Array.from(values);
        const [whole, skipping] = [new BetweenReader(), new BetweenReader()];
        for (let i = BETWEEN_TAPS - 1; i < from; i++) whole.peak(samples, i);
        skipping.skip(samples, from - 1);
        for (let i = from; i < samples.length; i++) {
          const read = whole.peak(samples, i);
          expect(skipping.peak(samples, i)).toBe(read);
          const under = samples.slice(i - BETWEEN_TAPS + 1, i + 1);
          // The point before the first of a pair hangs on one sample more.
          const highest = Math.max(...[...under, samples[i - BETWEEN_TAPS] ?? 0].map(Math.abs));
          expect(read).toBeLessThanOrEqual(MOST_BETWEEN * highest + 1e-12);
          expect(read).toBeGreaterThanOrEqual(Math.abs(samples[i - BETWEEN_TAPS / 2]!) - 1e-12);
        }
      }),
      { numRuns: 30 },
    );
  });
});

describe("what slides", () => {
  const stream = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 200 });

  it("is the least, and the mean, of the last so many values, with 1 for those before the first", () => {
    fc.assert(
      fc.property(stream, fc.integer({ min: 1, max: 40 }), (values, span) => {
        const [least, mean] = [new SlidingLeast(span), new SlidingMean(span)];
        for (let at = 0; at < values.length; at++) {
          const last = values.slice(Math.max(0, at - span + 1), at + 1);
          expect(least.push(values[at]!)).toBe(Math.min(...last));
          const sum = last.reduce((a, b) => a + b, 0) + Math.max(0, span - at - 1);
          expect(mean.push(values[at]!)).toBeCloseTo(sum / span, 12);
        }
        least.reset();
        mean.reset();
        expect(least.push(0.5)).toBe(0.5);
        expect(mean.push(1)).toBe(1);
      }),
    );
  });
});
