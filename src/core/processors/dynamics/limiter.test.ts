import { describe, expect, it } from "vitest";
import { getMaterial } from "../../materials/material";
import {
  amplitudeOf,
  decibelsOf,
  exactPeak,
  noise,
  partialAt,
  peakOf,
  sine,
  stereoOf,
  through,
} from "../../sound/testing";
import type { StereoSound } from "../../dsp/stereo-sound";
import { latencyAt } from "../model";
import { LIMITER } from "./limiter";

const RATES = [44_100, 48_000, 96_000] as const;

const cut = ({ left, right, ...sound }: StereoSound, from: number, length: number): StereoSound => ({
  ...sound,
  left: left.slice(from, from + length),
  right: right.slice(from, from + length),
});

/** Made louder, and cut off at full scale, as a mix is that was made too loud. */
const clipped = ({ left, right, ...sound }: StereoSound, dB: number): StereoSound => {
  const hard = (x: number) => Math.max(-1, Math.min(1, x * amplitudeOf(dB)));
  return { ...sound, left: left.map(hard), right: right.map(hard) };
};

/** What stands between samples: sounds whose samples say little of it. */
async function sounds(rate: number): Promise<readonly (readonly [name: string, sound: StereoSound])[]> {
  const drum = cut(await getMaterial("drum-with-cello").make(rate), 0, rate / 2);
  const mix = cut(await getMaterial("choir").make(rate), rate, rate / 2);
  const quarter = stereoOf(rate / 2, rate, (i) => Math.sin((Math.PI / 2) * i + Math.PI / 4));
  return [
    ["noise", noise(0.4, rate, 3)],
    ["drums", drum],
    ["a mix", mix],
    ["clipped drums", clipped(drum, 18)],
    ["a clipped mix", clipped(mix, 24)],
    ["a quarter of the rate", quarter],
    ...[60, 997, 5000, 0.2 * rate, 0.37 * rate, 0.45 * rate].map((hz): readonly [string, StereoSound] => [
      `${Math.round(hz)} Hz`,
      sine(hz, 0.9, 0.4, rate),
    ]),
  ];
}

describe.each(RATES)("the limiter at %d Hz", (rate) => {
  it("lets nothing above its ceiling, between samples neither, by more than 0.1 dB", async () => {
    for (const [name, sound] of await sounds(rate))
      for (const { gain, ceiling } of [
        { gain: 6, ceiling: -1 },
        { gain: 18, ceiling: -0.3 },
      ]) {
        const limited = through(LIMITER, { gain, ceiling }, sound);
        expect(decibelsOf(peakOf(limited)), name).toBeLessThanOrEqual(ceiling + 1e-4);
        expect(decibelsOf(exactPeak(limited)) - ceiling, name).toBeLessThanOrEqual(0.1);
      }
  });

  it("uses the room there is: a loud sine ends within half a dB of the ceiling", () => {
    const { left } = through(LIMITER, { gain: 12, ceiling: -3 }, sine(440, 0.9, 1, rate));
    const level = decibelsOf(partialAt(left, 440, { sampleRate: rate, from: rate / 2 }).size);
    expect(level).toBeGreaterThan(-3.5);
    expect(level).toBeLessThanOrEqual(-3 + 1e-3);
  });

  it("looks ahead by the same time at every rate", () => {
    expect((1000 * (latencyAt(LIMITER, rate) - LIMITER.latency)) / rate).toBeCloseTo(2, 1);
    const quiet = sine(440, 0.05, 0.5, rate);
    const { left } = through(LIMITER, { gain: 6, ceiling: -1 }, quiet);
    const late = latencyAt(LIMITER, rate);
    for (let i = 500; i < 4000; i += 13) expect(left[i + late]!).toBeCloseTo(quiet.left[i]! * amplitudeOf(6), 6);
  });

  it("is clean on low notes: at 40 Hz and 6 dB of reduction less than 0.3 % is added", () => {
    const seconds = 4;
    const { left } = through(LIMITER, { gain: 6, ceiling: 0 }, sine(40, 1, seconds, rate));
    const from = (seconds - 1) * rate;
    const partials = Array.from(
      { length: 20 },
      (_, n) => partialAt(left, 40 * (n + 1), { sampleRate: rate, from }).size,
    );
    const added = Math.hypot(...partials.slice(1));
    expect(decibelsOf(added / partials[0]!)).toBeLessThanOrEqual(-50);
  });
});

describe("the release of the limiter", () => {
  const RATE = 48_000;
  /** By how much a quiet tone is turned down, in dB, so long after a loud stretch. */
  const turnedAfter = (loud: number, ms: number, release = 80): number => {
    const begins = Math.round((0.2 + loud) * RATE);
    const sound = stereoOf(begins + RATE, RATE, (i) => {
      const level = i > 0.2 * RATE && i < begins ? 1 : 0.01;
      return level * Math.sin((2 * Math.PI * 1000 * i) / RATE);
    });
    const { left } = through(LIMITER, { gain: 12, ceiling: 0, release }, sound);
    const at = begins + latencyAt(LIMITER, RATE) + Math.round((ms * RATE) / 1000);
    const { size } = partialAt(left.subarray(0, at + 480), 1000, { sampleRate: RATE, from: at });
    return decibelsOf(size / (0.01 * amplitudeOf(12)));
  };

  it("lets go soon after a blow, and by the time that is set", () => {
    expect(turnedAfter(0.005, 20)).toBeLessThan(-5);
    expect(turnedAfter(0.005, 300)).toBeGreaterThan(-1);
    expect(turnedAfter(0.005, 300, 1000)).toBeLessThan(-5);
  });

  it("lets go slowly of what was needed for long", () => {
    expect(turnedAfter(0.8, 300)).toBeLessThan(-6);
    expect(turnedAfter(0.8, 300)).toBeLessThan(turnedAfter(0.005, 300) - 4);
  });
});
