import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { outlineOf, pictureOf } from "./outline";
import { cutStretch, samplesOf } from "./stretch";

const SAMPLES = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 400 });
const sound = (samples: readonly number[], sampleRate = 1000) => ({
  left: Float32Array.from(samples),
  right: Float32Array.from(samples, (x) => -x / 2),
  sampleRate,
});

describe("the outline of a sound", () => {
  it("has every sample of both channels within it, and touches the outermost of each column", () =>
    fc.assert(
      fc.property(SAMPLES, fc.integer({ min: 1, max: 50 }), (samples, columns) => {
        const { left, right } = sound(samples);
        const { high, low } = outlineOf({ left, right }, columns);
        expect([high.length, low.length]).toEqual([columns, columns]);
        for (let c = 0; c < columns; c++) {
          const [from, to] = [c, c + 1].map((n) => Math.floor((n * samples.length) / columns)) as [number, number];
          const within = [...left.slice(from, to), ...right.slice(from, to), 0];
          expect(high[c]).toBeCloseTo(Math.max(...within), 2);
          expect(low[c]).toBeCloseTo(Math.min(...within), 2);
        }
      }),
    ));

  it("says how long the loop is", () => {
    expect(pictureOf(sound([0, 1, 0, -1], 2)).seconds).toBe(2);
  });
});

describe("a stretch of a loop", () => {
  it("lies within it and is long enough to be one", () =>
    fc.assert(
      fc.property(
        fc.double({ min: -0.5, max: 1.5, noNaN: true }),
        fc.double({ min: -0.5, max: 1.5, noNaN: true }),
        fc.integer({ min: 1, max: 5000 }),
        (from, to, length) => {
          const [begin, end] = samplesOf({ from, to }, length, 1000);
          expect(begin).toBeGreaterThanOrEqual(0);
          expect(end).toBeLessThanOrEqual(length);
          expect(end - begin).toBeGreaterThanOrEqual(Math.min(length, 50));
        },
      ),
    ));

  it("is cut out of it, both channels alike", () => {
    const whole = sound(Array.from({ length: 1000 }, (_, i) => i / 1000));
    const cut = cutStretch(whole, { from: 0.2, to: 0.5 });
    expect([cut.left.length, cut.right.length]).toEqual([300, 300]);
    expect(cut.left[0]).toBeCloseTo(0.2, 6);
    expect(cutStretch(whole, null)).toBe(whole);
  });
});
