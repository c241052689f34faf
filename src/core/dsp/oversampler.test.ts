import { describe, expect, it } from "vitest";
import { Oversampler, halfBandCoefficients } from "./oversampler";
import { OVERSAMPLING, OVERSAMPLING_LATENCY } from "./oversampling";

const RATE = 48_000;
const COUNT = 32;

/** Runs a signal up, shapes it, and runs it down. */
function through(signal: (i: number) => number, length: number, shape: (x: number) => number = (x) => x) {
  const oversampler = new Oversampler();
  const out = new Float64Array(length);
  const block = new Float64Array(COUNT);
  const other = new Float64Array(COUNT);
  for (let at = 0; at < length; at += COUNT) {
    for (let i = 0; i < COUNT; i++) block[i] = signal(at + i);
    oversampler.up(block, other, COUNT);
    for (let i = 0; i < OVERSAMPLING * COUNT; i++) oversampler.left[i] = shape(oversampler.left[i]!);
    oversampler.down(block, other, COUNT);
    expect(other.every((x) => x === 0)).toBe(true);
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

describe("the way up and down", () => {
  it("has coefficients between 0 and 1, rising", () => {
    const coefficients = halfBandCoefficients(8, 0.075);
    expect(coefficients.toSorted((a, b) => a - b)).toEqual(coefficients);
    for (const c of coefficients) expect(c).toBeGreaterThan(0);
    for (const c of coefficients) expect(c).toBeLessThan(1);
  });

  it("is flat within 0.01 dB up to 20 kHz", () => {
    for (const hz of [100, 1000, 5000, 12_000, 18_000, 20_000])
      expect(Math.abs(dB(amplitudeAt(through(tone(hz), 9600), hz)))).toBeLessThan(0.01);
  });

  it("delays low frequencies by the stated samples, within half of one", () => {
    const out = through((i) => (i === 0 ? 1 : 0), 4096);
    const weight = out.reduce((sum, y) => sum + y, 0);
    const delay = out.reduce((sum, y, i) => sum + i * y, 0) / weight;
    expect(weight).toBeCloseTo(1, 6);
    expect(Math.abs(delay - OVERSAMPLING_LATENCY)).toBeLessThan(0.5);
  });

  it("keeps the aliases of a cubed tone below −80 dB", () => {
    // 3 × 13 kHz = 39 kHz lies above half of 48: without oversampling it folds to 9 kHz at −12 dB.
    const out = through(tone(13_000), 9600, (x) => x ** 3);
    expect(dB(amplitudeAt(out, 9000))).toBeLessThan(-80);
    expect(amplitudeAt(out, 13_000)).toBeCloseTo(0.75, 2);
  });
});
