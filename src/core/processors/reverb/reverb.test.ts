import { describe, expect, it } from "vitest";
import { responseAt } from "../../dsp/biquad";
import { hertz } from "../../units/quantities";
import { designOf } from "../model";
import { getModel } from "../models";
import { decibelsOf, noise, rms, setTo, sine, stereoOf, through } from "../../sound/testing";
import { type SpaceName, absorption } from "./reverb";
import { echoDensity, impulseResponse, peaksOverGaussian, tonesOverGaussian, wetOnly } from "./testing";

const RATE = 48_000;
const SPACES: readonly SpaceName[] = ["room", "plate", "hall"];

const RATES = [44_100, 48_000, 96_000] as const;

/** A band of a sound an octave wide, by a resonator run twice. */
function octave(samples: Float32Array, hz: number, sampleRate: number): Float32Array {
  const r = Math.exp((-Math.PI * hz * 0.35) / sampleRate);
  const [a1, a2] = [-2 * r * Math.cos((2 * Math.PI * hz) / sampleRate), r * r];
  let band = samples;
  for (let pass = 0; pass < 2; pass++) {
    let [x1, x2, y1, y2] = [0, 0, 0, 0];
    band = band.map((x) => {
      const y = x - x2 - a1 * y1 - a2 * y2;
      [x2, x1, y2, y1] = [x1, x, y1, y];
      return y * (1 - r);
    });
  }
  return band;
}

/**
 * Seconds to −60 dB, from the slope of a straight line through the energy that is still to come, between −5 and −35 dB, of several
 * responses together. M. R. Schroeder, "New method of measuring reverberation time", JASA 37 (1965).
 */
function decayOf(responses: readonly Float32Array[], sampleRate: number): number {
  const { length } = responses[0]!;
  const left = new Float64Array(length + 1);
  for (let i = length - 1; i >= 0; i--) left[i] = left[i + 1]! + responses.reduce((sum, r) => sum + r[i]! ** 2, 0);
  let [n, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
  for (let i = 0; i < length; i += 48) {
    const dB = 10 * Math.log10(left[i]! / left[0]!);
    if (dB > -5 || dB < -35) continue;
    const t = i / sampleRate;
    [n, sx, sy, sxx, sxy] = [n + 1, sx + t, sy + dB, sxx + t * t, sxy + t * dB];
  }
  return -60 / ((n * sxy - sx * sy) / (n * sxx - sx * sx));
}

const impulse = (seconds: number) => stereoOf(Math.round(seconds * RATE), RATE, (i) => (i === 0 ? 1 : 0));

/** Seconds within which echoes are to be as dense as in noise. */
const DENSE_BY: Readonly<Record<SpaceName, number>> = { room: 0.04, plate: 0.02, hall: 0.04 };

describe.each(SPACES)("%s", (space) => {
  const model = getModel(space);

  it.each(RATES)("is as dense as noise within 40 ms, a plate within 20, and stays so, at %d Hz", (rate) => {
    const { left, right } = impulseResponse(space, {}, 0.5, rate);
    // A window of noise itself tells 1 give or take 0.07: the mean of some is told.
    const around = (side: Float32Array, at: number): number => {
      const some = [-4, -2, 0, 2, 4].map((ms) => echoDensity(side, at + ms / 1000, rate));
      return some.reduce((a, b) => a + b, 0) / some.length;
    };
    for (const side of [left, right]) {
      const by = side.findIndex((x) => Math.abs(x) > 1e-5) / rate + DENSE_BY[space];
      expect(around(side, by)).toBeGreaterThan(0.9);
      for (let at = by; at < 0.4; at += 0.01) expect(around(side, at), `at ${at} s`).toBeGreaterThan(0.85);
    }
  });

  it.each(RATES)("does not ring: no peak and no tone is 3 dB over those of noise, at %d Hz", (rate) => {
    const { left, right } = impulseResponse(space, { decay: 3, high: 100 }, 3.5, rate);
    // The loudest of so many tones of noise itself is told within 1 dB: the mean of some is told.
    const tones: number[] = [];
    for (const side of [left, right])
      for (const at of [0.4, 1, 2, 3]) {
        expect(peaksOverGaussian(side, at, rate, 20), `peaks at ${at} s`).toBeLessThan(3);
        tones.push(tonesOverGaussian(side, at, rate, 20));
      }
    expect(tones.reduce((a, b) => a + b, 0) / tones.length, String(tones)).toBeLessThan(3);
    expect(Math.max(...tones)).toBeLessThan(4);
  });

  it.each(RATES)("fades in the time that is set, and as is drawn, from 125 Hz to 8 kHz, at %d Hz", (rate) => {
    for (const values of [
      { decay: 2.5, high: 100 },
      { decay: 2.5, high: 50, damping: 3000 },
    ]) {
      const { left, right } = impulseResponse(space, values, values.decay * 1.2, rate);
      const drawn = designOf(model, "reverb").decay(setTo(model, values), rate);
      for (const hz of [125, 250, 500, 1000, 2000, 4000, 8000]) {
        const heard = decayOf([octave(left, hz, rate), octave(right, hz, rate)], rate);
        expect(Math.abs(heard / drawn(hz) - 1), `${hz} Hz of ${JSON.stringify(values)}: ${heard}`).toBeLessThan(0.05);
        if (values.high === 100) expect(Math.abs(drawn(hz) / values.decay - 1)).toBeLessThan(0.01);
      }
      expect(drawn(20)).toBeCloseTo(values.decay, 1);
    }
  });

  it("holds a steady tone within a dB", () => {
    for (const hz of [110, 440, 1700, 6100]) {
      const { left, right } = through(model, wetOnly({ decay: 1 }), sine(hz, 0.5, 4, RATE));
      for (const side of [left, right]) {
        const levels: number[] = [];
        for (let at = 2; at < 3.9; at += 0.05)
          levels.push(decibelsOf(rms(side.subarray(at * RATE, (at + 0.05) * RATE))));
        expect(Math.max(...levels) - Math.min(...levels), `${hz} Hz`).toBeLessThan(1);
      }
    }
  });

  it("begins after the pre-delay, and not before", () => {
    const first = (predelay: number) =>
      through(model, wetOnly({ predelay }), impulse(1)).left.findIndex((x) => Math.abs(x) > 1e-6) / RATE;
    expect(1000 * (first(120) - first(0))).toBeCloseTo(120, 0);
  });
  it("is two unlike sides, and one at no width", () => {
    const { left, right } = through(model, wetOnly({ width: 100 }), impulse(1));
    const both = left.reduce((sum, x, i) => sum + x * right[i]!, 0) / (left.length * rms(left) * rms(right));
    expect(Math.abs(both)).toBeLessThan(0.35);
    const mono = through(model, wetOnly({ width: 0 }), impulse(1));
    for (let i = 0; i < RATE; i += 101) expect(mono.left[i]!).toBeCloseTo(mono.right[i]!, 7);
  });
  it("loses nothing of its level where both sides are played as one", () => {
    const { left, right } = through(model, wetOnly({}), noise(3, RATE));
    const one = left.map((x, i) => (x + right[i]!) / 2);
    // Two unlike sides of one level add up to 3 dB less; sides that cancel each other to far less.
    expect(Math.abs(decibelsOf(rms(one) / Math.hypot(rms(left), rms(right))) + 3)).toBeLessThan(4);
  });
  it("keeps its dry sound apart: at −∞ wet it is its input", () => {
    const { left } = through(model, { dry: 0, wet: -60 }, impulse(0.5));
    expect(left[0]).toBe(1);
    expect(rms(left.subarray(1))).toBe(0);
  });
});

describe("the absorption of a line", () => {
  it("never makes louder, nor rings by itself, wherever its values stand", () => {
    for (const rate of [44_100, 48_000, 96_000, 192_000])
      for (const decay of [0.1, 0.4, 3, 20])
        for (const high of [5, 10, 20, 55, 99, 100])
          for (const damping of [500, 1000, 3000, 8000, 16_000])
            for (const samples of [rate / 300, rate / 30, rate / 8]) {
              const told = JSON.stringify({ rate, decay, high, damping, samples });
              const { b0, b1, a1 } = absorption({ decay, high, damping }, samples, rate);
              expect(Math.abs(a1), told).toBeLessThan(1);
              // A filter of the first order has its extremes at both ends.
              expect(Math.abs((b0 + b1) / (1 + a1)), told).toBeLessThan(1);
              expect(Math.abs((b0 - b1) / (1 - a1)), told).toBeLessThan(1);
            }
  });

  it("takes 60 dB in the decay at low, in its share at high frequencies", () => {
    const samples = 1500;
    for (const values of [
      { decay: 2, high: 50, damping: 4000 },
      { decay: 0.5, high: 20, damping: 1000 },
    ]) {
      const filter = absorption(values, samples, RATE);
      const timeAt = (hz: number) => {
        const { re, im } = responseAt([filter], hertz(hz), RATE);
        return (-60 * samples) / (RATE * decibelsOf(Math.hypot(re, im)));
      };
      expect(timeAt(1)).toBeCloseTo(values.decay, 3);
      expect(timeAt(16_000)).toBeCloseTo(
        values.decay / (1 + (100 / values.high - 1) * (16_000 ** 2 / (16_000 ** 2 + values.damping ** 2))),
        3,
      );
      expect(timeAt(values.damping)).toBeCloseTo((values.decay * 2) / (1 + 100 / values.high), 3);
    }
  });
});
