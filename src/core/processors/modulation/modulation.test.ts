import { describe, expect, it } from "vitest";
import { getModel } from "../models";
import type { Values } from "../../units/param-spec";
import { decibelsOf, partialAt, sine, stereoOf, through } from "../../sound/testing";
import { CHORUS_SWING } from "./chorus";
import { PHASER_SWING } from "./phaser";

const RATE = 48_000;

describe("the tremolo", () => {
  /** Loudest of each millisecond of a steady tone. */
  function gains(values: Values): { left: number[]; right: number[] } {
    const { left, right } = through(
      getModel("tremolo"),
      values,
      stereoOf(RATE * 4, RATE, () => 0.5),
    );
    const each = (samples: Float32Array) => Array.from({ length: 4000 }, (_, ms) => samples[ms * 48]! / 0.5);
    return { left: each(left), right: each(right) };
  }
  it("turns as often as it says", () => {
    for (const rate of [0.5, 5, 13]) {
      const { left } = gains({ rate, depth: 100 });
      const mean = left.reduce((a, b) => a + b, 0) / left.length;
      const rises = left.filter((x, i) => i > 0 && x >= mean && left[i - 1]! < mean).length;
      expect(Math.abs(rises - rate * 4)).toBeLessThanOrEqual(1);
    }
  });
  it("swings between 1 and 1 − depth", () => {
    for (const wave of [0, 1, 2]) {
      const { left } = gains({ rate: 4, depth: 60, wave });
      expect(Math.max(...left)).toBeCloseTo(1, 1);
      expect(Math.min(...left)).toBeCloseTo(0.4, 1);
    }
  });
  it("runs against itself at full spread", () => {
    const { left, right } = gains({ rate: 4, depth: 100, spread: 100 });
    for (let ms = 0; ms < 4000; ms += 7) expect(left[ms]! + right[ms]!).toBeCloseTo(1, 1);
  });
  it("follows the tempo: a half note at 120 bpm is one turn a second", () => {
    const { left } = gains({ rate: { note: "1/2", feel: "straight" }, depth: 100 });
    const peaks = left.filter((x, i) => i > 1 && x < left[i - 1]! && left[i - 1]! >= left[i - 2]! && x > 0.9).length;
    expect(Math.abs(peaks - 4)).toBeLessThanOrEqual(1);
  });
});

/** How much later than it went in each click comes back, in ms: two voices, the earlier first. */
function voices(values: Values, every: number): readonly (readonly [at: number, one: number, two: number])[] {
  const { left } = through(
    getModel("chorus"),
    { dry: -60, wet: 0, ...values },
    stereoOf(RATE * 3, RATE, (i) => (i % every === 0 ? 1 : 0)),
  );
  return Array.from({ length: Math.floor(left.length / every) - 1 }, (_, click) => {
    const window = left.subarray(click * every, (click + 1) * every);
    // Each click comes back as a few samples: their middle, weighed by size, on either side of the widest gap.
    const sizes = [...window.entries()].filter(([, x]) => Math.abs(x) > 0.02);
    const gaps = sizes.slice(1).map(([i], n) => i - sizes[n]![0]);
    const cut = Math.max(...gaps) > 3 ? gaps.indexOf(Math.max(...gaps)) + 1 : sizes.length;
    const middle = (part: typeof sizes) =>
      part.reduce((sum, [i, x]) => sum + i * x, 0) / part.reduce((sum, [, x]) => sum + x, 0) / 48;
    const [one, two] = [sizes.slice(0, cut), sizes.slice(cut)];
    return [(click * every) / RATE, middle(one), middle(two.length > 0 ? two : one)] as const;
  });
}

describe("the chorus", () => {
  it("has two voices that swing as far and as fast as theory says", () => {
    const [rate, depth, delay] = [1.5, 70, 16];
    const swing = CHORUS_SWING * (depth / 100);
    for (const [at, one, two] of voices({ rate, depth, delay }, 2400)) {
      // A click is heard when it comes back, which is when the swing counts.
      const place = (heard: number, ahead: number) =>
        delay + swing * Math.sin(2 * Math.PI * (rate * (at + heard / 1000) + ahead));
      const theory = (heard: number) => Math.min(...[0, 0.25].map((ahead) => Math.abs(place(heard, ahead) - heard)));
      expect(theory(one)).toBeLessThan(0.1);
      expect(theory(two)).toBeLessThan(0.1);
    }
  });
  it("keeps still at no depth, and is the dry sound without wet", () => {
    const tone = sine(700, 0.5, 1, RATE);
    for (const [, one, two] of voices({ depth: 0, delay: 20 }, 2400)) {
      expect(one).toBeCloseTo(20, 1);
      expect(two).toBeCloseTo(20, 1);
    }
    expect(through(getModel("chorus"), { wet: -60, dry: 0 }, tone).left).toEqual(tone.left);
  });
});

describe("the flanger", () => {
  it("is a comb of its delay: notches at odd multiples of 1 / 2τ", () => {
    const values: Values = { depth: 0, delay: 1, feedback: 0, mix: 50 };
    const level = (hz: number) => {
      const { left } = through(getModel("flanger"), values, sine(hz, 0.5, 1, RATE));
      return decibelsOf(partialAt(left, hz, { sampleRate: RATE, from: RATE / 2 }).size / 0.5);
    };
    for (const hz of [500, 1500, 2500]) expect(level(hz)).toBeLessThan(-20);
    for (const hz of [1000, 2000, 3000]) expect(level(hz)).toBeGreaterThan(-1);
  });
});

describe("the phaser", () => {
  it("has half as many notches as stages, at −180° of each pair of its all-passes", () => {
    const level = (hz: number, stages: number) => {
      const values: Values = { depth: 0, centre: 1000, feedback: 0, mix: 50, stages };
      const { left } = through(getModel("phaser"), values, sine(hz, 0.5, 1, RATE));
      return decibelsOf(partialAt(left, hz, { sampleRate: RATE, from: RATE / 2 }).size / 0.5);
    };
    for (const stages of [4, 6, 8]) {
      const grid = Array.from({ length: 120 }, (_, i) => 60 * 2 ** (i / 14));
      const levels = grid.map((hz) => level(hz, stages));
      const notches = levels.filter(
        (dB, i) => i > 0 && i < levels.length - 1 && dB < -6 && dB < levels[i - 1]! && dB < levels[i + 1]!,
      );
      expect(notches).toHaveLength(stages / 2);
    }
    expect(PHASER_SWING).toBe(2);
  });
});
