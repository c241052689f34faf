import { describe, expect, it } from "vitest";
import { designOf } from "../model";
import { getModel } from "../models";
import type { Values } from "../../units/param-spec";
import { amplitudeOf, decibelsOf, partialAt, responseOf, setTo, sine, through } from "../../sound/testing";
import { CABINETS } from "./amplifier";
import { evenGently, harmonicsOf, hardClip, softClip, softenGently } from "./shaper";
import { noDrive, noTrace } from "../../dsp/antiderivative";

const RATE = 48_000;

/** Levels of the harmonics against the first, in dB, of a sine through the whole model. */
function heard(id: string, values: Values, { level, freq, count }: { level: number; freq: number; count: number }) {
  const { left } = through(getModel(id), values, sine(freq, level, 1, RATE));
  const sizes = Array.from(
    { length: count },
    (_, at) => partialAt(left, freq * (at + 1), { sampleRate: RATE, from: RATE / 2 }).size,
  );
  return sizes.map((size) => decibelsOf(Math.max(1e-7, size / sizes[0]!)));
}

describe("the curves", () => {
  it("are odd, rise all the way and end flat at 1", () => {
    for (const clip of [softClip, hardClip]) {
      for (let x = -4; x < 4; x += 0.01) {
        expect(clip(-x)).toBeCloseTo(-clip(x), 12);
        expect(clip(x + 0.01)).toBeGreaterThanOrEqual(clip(x) - 1e-12);
      }
      expect(clip(1e-4) / 1e-4).toBeCloseTo(1, 6);
      expect(clip(10)).toBeLessThanOrEqual(1);
    }
  });
  it("soft clipping stays within 2.4 % of tanh", () => {
    for (let x = -3; x <= 3; x += 0.01) expect(Math.abs(softClip(x) - Math.tanh(x))).toBeLessThan(0.024);
  });
  it("have the harmonics that theory gives: x³ of a sine is a quarter of the third", () => {
    const levels = harmonicsOf((x) => x - 0.4 * x ** 3, 1, 5);
    expect(levels[2]).toBeCloseTo(decibelsOf(0.1 / (1 - 0.3)), 6);
    expect(levels[1]).toBeLessThan(-100);
  });
});

describe("a curve that is bent gently", () => {
  const sound = Float64Array.from(sine(700, 0.9, 0.02, RATE).left);
  const still = { ...noDrive(), before: 2, offset: 0.3, after: 0.7, rest: softClip(0.3) };

  it.each([
    ["stands still", still],
    ["walks", { ...still, passed: 12, beforeStep: 1e-4, offsetStep: -1e-5, afterStep: 2e-5, restStep: 1e-6 }],
  ])("has the even half that the sound and its mirror have in common, where it %s", (_, drive) => {
    const [up, down, even] = [sound.slice(), sound.map((x) => -x), sound.slice()];
    softenGently(up, up.length, noTrace(), drive);
    softenGently(down, down.length, noTrace(), drive);
    evenGently(even, even.length, [noTrace(), noTrace()], drive);
    even.forEach((value, i) => expect(value).toBeCloseTo((up[i]! + down[i]!) / 2, 12));
    expect(Math.max(...even.map(Math.abs))).toBeGreaterThan(0.05);
  });
});

describe("the harmonics of a sine", () => {
  // Filters around the curve turn the partials a little: at 300 Hz those of tape and tube are all but flat.
  const CASES: readonly (readonly [id: string, values: Values, room: number])[] = [
    ["tape", { drive: 12, bias: 60, bump: 0, speed: 2 }, 0.6],
    ["tape", { drive: 18, bias: 10, bump: 0, speed: 2 }, 0.6],
    ["tube", { drive: 12, bias: 50 }, 0.6],
    ["tube", { drive: 24, bias: 0 }, 0.6],
    ["overdrive", { drive: 18, tight: 20, tone: 12_000 }, 0.8],
  ];
  for (const [id, values, room] of CASES)
    it(`through ${id} at ${JSON.stringify(values)} are those that are drawn`, () => {
      const drawn = harmonicsOf(designOf(getModel(id), "saturation").shape(setTo(getModel(id), values)), 0.5, 7);
      const sounded = heard(id, values, { level: 0.5, freq: 300, count: 7 });
      for (const [at, dB] of drawn.entries())
        if (dB > -60) expect(Math.abs(sounded[at]! - dB), `harmonic ${at + 1}`).toBeLessThan(room);
        else expect(sounded[at]!).toBeLessThan(-55);
    });
});

/** The loudest of what folds back below 20 kHz, against the tone, in dB: all that is no multiple of it. */
function foldedBack(id: string, values: Values, wanted: number, sampleRate: number): number {
  const length = Math.round(sampleRate / 10) | 1;
  const bin = Math.round((wanted * length) / sampleRate);
  const freq = (bin * sampleRate) / length;
  const { left } = through(getModel(id), values, sine(freq, amplitudeOf(-1), 0.4, sampleRate));
  const heard = left.subarray(left.length - length);
  const size = (at: number) => partialAt(heard, (at * sampleRate) / length, { sampleRate }).size;
  const tops = Math.floor((20_000 * length) / sampleRate);
  const folded = new Set<number>();
  for (let n = 2; n < 400; n++) {
    const round = (n * bin) % length;
    const at = Math.min(round, length - round);
    if (at <= tops && at % bin !== 0) folded.add(at);
  }
  return decibelsOf(Math.max(1e-9, ...Array.from(folded, size)) / size(bin));
}

describe("what folds back", () => {
  const FULL: Readonly<Record<string, Values>> = {
    tape: { drive: 24, bias: 50, speed: 2 },
    tube: { drive: 30, bias: 100 },
    overdrive: { drive: 48, tone: 12_000, tight: 20 },
    amplifier: { drive: 48, master: 24, cabinet: 0 },
    "fet-compressor": { colour: 100, threshold: 0, ratio: 20 },
  };
  for (const sampleRate of [44_100, 48_000, 96_000])
    for (const [id, values] of Object.entries(FULL))
      it(`of ${id} at full drive stays below −60 dB at 5 kHz and −50 at 10 kHz, at ${sampleRate} Hz`, () => {
        // An amplifier at its end turns up by 72 dB, and two curves follow each other.
        expect(foldedBack(id, values, 5000, sampleRate)).toBeLessThan(id === "amplifier" ? -57 : -60);
        expect(foldedBack(id, values, 10_000, sampleRate)).toBeLessThan(-50);
      });
  it("of an amplifier stays below −60 dB at 5 kHz up to 60 dB of drive", () => {
    for (const makeupMode of [0, 1])
      for (const drive of [18, 24, 30, 44])
        for (const master of [0, 6, 12, 16]) {
          const folded = foldedBack("amplifier", { drive, master, makeupMode, cabinet: 0 }, 5000, RATE);
          expect.soft(folded, `${drive} and ${master} dB, ${makeupMode}`).toBeLessThan(-60);
        }
  });
  // As far as a soft curve is bent gently, and just beyond.
  const GENTLE: readonly (readonly [id: string, values: Values])[] = [10, 10.5].flatMap((drive) => [
    ["tube", { drive, bias: 100 }] as const,
    ["tape", { drive, bias: 100, speed: 2 }] as const,
  ]);
  it("of a tape with little bias stays below −60 dB at 5 kHz, whatever the drive", () => {
    for (const drive of [3, 6, 9, 12])
      expect(foldedBack("tape", { drive, bias: 0, speed: 2 }, 5000, RATE), `${drive} dB`).toBeLessThan(-60);
  });
  for (const [id, values] of GENTLE)
    it(`of ${id} at ${JSON.stringify(values)} stays below −80 dB at 5 kHz and −60 at 10 kHz`, () => {
      for (const sampleRate of [44_100, 48_000, 96_000]) {
        expect(foldedBack(id, values, 5000, sampleRate)).toBeLessThan(-80);
        expect(foldedBack(id, values, 10_000, sampleRate)).toBeLessThan(-60);
      }
    });
  for (const id of Object.keys(FULL))
    it(`of ${id} as it opens stays below −90 dB at 1 kHz`, () => {
      // A compressor's reduction moves with the tone, whatever its colour: as little as may be, and what is left is told.
      const [values, bound] = id === "fet-compressor" ? [{ threshold: 0 }, -85] : [{}, -90];
      expect(foldedBack(id, values, 1000, RATE)).toBeLessThan(bound);
    });
});

describe("levels", () => {
  it("at no mix leave the sound as it is", () => {
    for (const id of ["tape", "tube", "overdrive", "amplifier"]) {
      const response = responseOf(getModel(id), { mix: 0 }, RATE);
      for (const freq of [100, 1000, 10_000]) expect(response(freq), id).toBeCloseTo(0, 1);
    }
  });
  it("follow the output in dB", () => {
    const size = (output: number) => {
      const { left } = through(getModel("tube"), { output }, sine(300, 0.2, 0.5, RATE));
      return partialAt(left, 300, { sampleRate: RATE, from: RATE / 4 }).size;
    };
    expect(decibelsOf(size(6) / size(0))).toBeCloseTo(6, 1);
  });
});

describe("a lopsided curve", () => {
  it.each([44_100, 48_000, 96_000])("leaves nothing behind 50 ms after a burst, at %d Hz", (sampleRate) => {
    const end = sampleRate / 2;
    const burst = sine(1000, 1, 1, sampleRate);
    for (const side of [burst.left, burst.right]) side.fill(0, end);
    const { left } = through(getModel("tube"), { drive: 24, bias: 100, makeupMode: 0 }, burst);
    const peakFrom = (from: number, to: number) =>
      left.subarray(from, to).reduce((peak, sample) => Math.max(peak, Math.abs(sample)), 0);
    const loud = peakFrom(end / 2, end);
    // The high-pass at 5 Hz alone leaves as much of a burst of 1 kHz, through a curve or not.
    expect(decibelsOf(peakFrom(end + Math.round(0.05 * sampleRate), sampleRate) / loud)).toBeLessThan(-57);
  });
  it("keeps the second harmonic of the lowest note of a bass within half a decibel", () => {
    const drawn = harmonicsOf(
      designOf(getModel("tube"), "saturation").shape(setTo(getModel("tube"), { bias: 80 })),
      0.5,
      2,
    );
    const sounded = heard("tube", { bias: 80 }, { level: 0.5, freq: 41.2, count: 2 });
    expect(Math.abs(sounded[1]! - drawn[1]!)).toBeLessThan(0.5);
  });
});

describe("the cabinet", () => {
  it("ends where its cone gives up: 3 dB down at its top, 18 dB or more an octave above", () => {
    for (const [cabinet, { top }] of CABINETS.entries()) {
      if (top === 0) continue;
      const at = (freq: number) => {
        const { left } = through(
          getModel("amplifier"),
          { drive: 0, master: 0, cabinet },
          sine(freq, amplitudeOf(-50), 0.5, RATE),
        );
        return decibelsOf(partialAt(left, freq, { sampleRate: RATE, from: RATE / 4 }).size);
      };
      expect(at(top) - at(top * 2)).toBeGreaterThan(18);
    }
  });
});
