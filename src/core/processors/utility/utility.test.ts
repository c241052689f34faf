import { describe, expect, it } from "vitest";
import { integratedLoudness } from "../../dsp/measure/loudness";
import { findKernel } from "../kernels";
import { getModel } from "../models";
import type { Values } from "../../units/param-spec";
import { amplitudeOf, noise, partialAt, setTo, sine, stereoOf, through } from "../../sound/testing";

const RATE = 48_000;

function readingOf(id: string, values: Values, sound: { left: Float32Array; right: Float32Array }): number {
  const kernel = findKernel(id)!(RATE);
  kernel.set(setTo(getModel(id), values), true);
  kernel.process(sound.left.slice(), sound.right.slice(), 0, sound.left.length);
  return kernel.reading();
}

describe("gain and polarity", () => {
  const sound = noise(0.1, RATE);
  it("is a factor, turned and swapped as it says", () => {
    const { left, right } = through(getModel("gain"), { gain: 6, polarity: 1, swap: 1 }, sound);
    for (let i = 0; i < 4000; i += 17) {
      expect(left[i]!).toBeCloseTo(-amplitudeOf(6) * sound.right[i]!, 6);
      expect(right[i]!).toBeCloseTo(amplitudeOf(6) * sound.left[i]!, 6);
    }
  });
});

describe("stereo width", () => {
  const sound = noise(0.2, RATE);
  it("at 0 % is mono, at 100 % the sound itself, at 200 % the side alone, doubled", () => {
    const at = (width: number) => through(getModel("stereo-width"), { width }, sound);
    expect(at(100).left).toEqual(sound.left);
    const [none, twice] = [at(0), at(200)];
    for (let i = 0; i < 4000; i += 17) {
      const [l, r] = [sound.left[i]!, sound.right[i]!];
      expect(none.left[i]!).toBeCloseTo((l + r) / 2, 6);
      expect(none.right[i]!).toBe(none.left[i]!);
      expect(twice.left[i]! - twice.right[i]!).toBeCloseTo(2 * (l - r), 5);
    }
  });
  it("has no side below the frequency at which it says so", () => {
    const tone = sine(60, 0.5, 1, RATE);
    const side = { ...tone, right: tone.left.map((x) => -x) };
    const { left, right } = through(getModel("stereo-width"), { monoBelow: 300 }, side);
    const rest = left.map((l, i) => (l - right[i]!) / 2);
    // Two octaves and a third below the corner of a crossover of the fourth order: 56 dB.
    expect(partialAt(rest, 60, { sampleRate: RATE, from: RATE / 2 }).size).toBeLessThan(0.5 * amplitudeOf(-54));
  });
  it("leaves the image above that frequency where it was: what is hard left stays there", () => {
    for (const hz of [600, 1200, 3000]) {
      const tone = sine(hz, 0.5, 1, RATE);
      const { left, right } = through(
        getModel("stereo-width"),
        { monoBelow: 300 },
        { ...tone, right: new Float32Array(RATE) },
      );
      const size = (samples: Float32Array) => partialAt(samples, hz, { sampleRate: RATE, from: RATE / 2 }).size;
      expect(size(right) / size(left), `${hz} Hz`).toBeLessThan(amplitudeOf(-28));
    }
  });
});

describe("the tuner", () => {
  it("reads a pitch within 2 cents, from a low string to a whistle, and higher within 8, on a sine and on a rich tone", () => {
    for (const hz of [41.2, 82.4, 146.8, 261.6, 440, 1174.7, 1318.5, 1975.5]) {
      const rich = stereoOf(RATE, RATE, (i) =>
        [1, 2, 3, 4, 5].reduce((sum, n) => sum + (0.4 / n) * Math.sin((2 * Math.PI * hz * n * i) / RATE + n), 0),
      );
      for (const sound of [sine(hz, 0.4, 1, RATE), rich])
        expect(Math.abs(1200 * Math.log2(readingOf("tuner", {}, sound) / hz)), `${hz} Hz`).toBeLessThan(
          hz > 1400 ? 8 : 2,
        );
    }
  });
  it("reads nothing from noise or silence", () => {
    expect(readingOf("tuner", {}, noise(1, RATE))).toBe(0);
    expect(
      readingOf(
        "tuner",
        {},
        stereoOf(RATE, RATE, () => 0),
      ),
    ).toBe(0);
  });
});

describe("the meter", () => {
  it("reads the loudness of a steady sound as the measurement does", () => {
    const sound = sine(1000, 0.25, 3, RATE);
    expect(Math.abs(readingOf("meter", {}, sound) - integratedLoudness(sound))).toBeLessThan(0.05);
  });
  it("leaves the sound as it is", () => {
    const sound = noise(0.1, RATE);
    expect(through(getModel("meter"), {}, sound).left).toEqual(sound.left);
  });
});
