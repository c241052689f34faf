import { describe, expect, it } from "vitest";
import { responseAt } from "../../dsp/biquad";
import { hertz } from "../../units/quantities";
import { designOf } from "../model";
import { getModel } from "../models";
import type { Values } from "../../units/param-spec";
import { decibelsOf, rms, setTo, stereoOf, through } from "../../sound/testing";
import { type SpaceName, absorption } from "./reverb";

const RATE = 48_000;
const SPACES: readonly SpaceName[] = ["room", "plate", "hall"];

/** A band of a sound an octave wide, by a resonator run twice. */
function octave(samples: Float32Array, hz: number): Float32Array {
  const r = Math.exp((-Math.PI * hz * 0.35) / RATE);
  const [a1, a2] = [-2 * r * Math.cos((2 * Math.PI * hz) / RATE), r * r];
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
 * Seconds to −60 dB, from the slope between −5 and −25 dB of the energy that is still to come.
 * M. R. Schroeder, "New method of measuring reverberation time", JASA 37 (1965).
 */
function decayOf(samples: Float32Array): number {
  const left = new Float64Array(samples.length + 1);
  for (let i = samples.length - 1; i >= 0; i--) left[i] = left[i + 1]! + samples[i]! ** 2;
  const when = (dB: number) => left.findIndex((energy) => energy < left[0]! * 10 ** (dB / 10)) / RATE;
  return 3 * (when(-25) - when(-5));
}

const impulse = (seconds: number) => stereoOf(Math.round(seconds * RATE), RATE, (i) => (i === 0 ? 1 : 0));
const wetOnly = (values: Values): Values => ({ dry: -60, wet: 0, early: -24, predelay: 0, lowCut: 20, ...values });

describe.each(SPACES)("%s", (space) => {
  const model = getModel(space);
  it("fades in the time that it says, at low and at high frequencies", () => {
    for (const values of [
      { decay: 0.8, high: 50, damping: 3000 },
      { decay: 2.5, high: 40, damping: 2500 },
      { decay: 1.5, high: 100 },
    ]) {
      const { left } = through(model, wetOnly(values), impulse(values.decay * 2 + 0.5));
      const drawn = designOf(model, "reverb").decay(setTo(model, values), RATE);
      // Eight lines of unlike lengths share one curve, and a band is an octave wide: a tenth either way.
      for (const hz of [400, 8000]) {
        const ratio = decayOf(octave(left, hz)) / drawn(hz);
        expect(Math.abs(ratio - 1), `${hz} Hz of ${JSON.stringify(values)}: ${ratio}`).toBeLessThan(0.15);
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
  it("is dense: half a second in, hardly a millisecond is without sound", () => {
    const { left } = through(model, wetOnly({ decay: 3, high: 100 }), impulse(1));
    const whole = rms(left.subarray(RATE * 0.5, RATE * 0.6));
    let empty = 0;
    for (let ms = 500; ms < 600; ms++) if (rms(left.subarray(ms * 48, ms * 48 + 48)) < whole / 8) empty += 1;
    expect(empty).toBeLessThan(3);
  });
  it("keeps its dry sound apart: at −∞ wet it is its input", () => {
    const { left } = through(model, { dry: 0, wet: -60 }, impulse(0.5));
    expect(left[0]).toBe(1);
    expect(rms(left.subarray(1))).toBe(0);
  });
});

describe("the absorption of a line", () => {
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
      expect(timeAt(23_990)).toBeCloseTo((values.decay * values.high) / 100, 3);
    }
  });
});
