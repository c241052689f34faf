import { describe, expect, it } from "vitest";
import { heardProcessor } from "../../chains/heard-chain";
import { renderChain } from "../../sound/render";
import { designOf, getSpec } from "../model";
import { findKernel } from "../kernels";
import { getModel } from "../models";
import type { Values } from "../../units/param-spec";
import { PEAK_HOLD } from "../../dsp/peak-hold";
import {
  noise,
  amplitudeOf,
  decibelsOf,
  partialAt,
  responseOf,
  rms,
  savedWith,
  setTo,
  sine,
  stereoOf,
  through,
} from "../../sound/testing";
import { OPTO_ATTACK } from "./opto-compressor";

/** For how many milliseconds a peak is held, before what it asked for is let go. */
const HELD = 1000 * PEAK_HOLD;
const RATE = 48_000;
/** 1 − 1/e: a time is that in which the reduction covers so much of its way. */
const MOST = 1 - 1 / Math.E;

/** What a steady level, as a constant, is turned by in dB once all times have passed. */
const settled = (id: string, values: Values, dB: number, seconds = 3): number =>
  decibelsOf(
    Math.abs(
      through(
        getModel(id),
        values,
        stereoOf(RATE * seconds, RATE, () => amplitudeOf(dB)),
      ).left.at(-1)!,
    ),
  ) - dB;

const drawn = (id: string, values: Values, dB: number): number =>
  designOf(getModel(id), "dynamics")
    .lines(setTo(getModel(id), values))[0]!
    .at(dB) - dB;

/** The reductions of a kernel in dB, a sample apart, while a level in dB is fed to it. */
function following(id: string, values: Values) {
  const kernel = findKernel(id)!(RATE);
  kernel.set(setTo(getModel(id), values), true);
  const pair = [new Float32Array(1), new Float32Array(1)] as const;
  return (seconds: number, sample: (i: number) => number): number[] =>
    Array.from({ length: Math.round(seconds * RATE) }, (_, i) => {
      pair[0][0] = pair[1][0] = sample(i);
      kernel.process(...pair, 0, 1);
      return kernel.reading();
    });
}

/** In ms: until a series has covered 63 % of the way from its beginning to `end`. */
const timeTo = (series: readonly number[], begin: number, end: number): number =>
  (1000 * (series.findIndex((x) => (x - begin) / (end - begin) >= MOST) + 1)) / RATE;

describe("the static curve", () => {
  const CURVES: readonly (readonly [id: string, values: Values, levels: readonly number[]])[] = [
    ["opto-compressor", { threshold: -20, ratio: 4, release: 300 }, [-40, -26, -20, -15, -6, 0]],
    ["fet-compressor", { threshold: -24, ratio: 8, colour: 0 }, [-40, -25, -24, -18, -6, 0]],
  ];
  for (const [id, values, levels] of CURVES)
    it(`of the ${id} is heard as it is drawn, within 0.1 dB`, () => {
      for (const dB of levels) expect(Math.abs(settled(id, values, dB) - drawn(id, values, dB))).toBeLessThan(0.1);
    });

  it("of the expander is heard as it is drawn, on a tone above its detector's cut", () => {
    const values: Values = { threshold: -30, ratio: 3, knee: 6, range: -40, release: 20 };
    const model = getModel("expander");
    for (const dB of [-10, -28, -30, -34, -40, -60]) {
      const { left } = through(model, values, sine(1000, amplitudeOf(dB), 2, RATE));
      const gain = decibelsOf(partialAt(left, 1000, { sampleRate: RATE, from: RATE }).size) - dB;
      expect(Math.abs(gain - drawn("expander", values, dB)), `${dB} dB`).toBeLessThan(0.1);
    }
  });

  it("of the de-esser works on what lies above, and leaves what lies below", () => {
    const model = getModel("de-esser");
    const values: Values = { freq: 5000, threshold: -30, ratio: 4, range: -12 };
    const gainAt = (freq: number, turned: Values = {}) => {
      const { left } = through(model, { ...values, ...turned }, sine(freq, 0.5, 1, RATE));
      return decibelsOf(partialAt(left, freq, { sampleRate: RATE, from: RATE / 2 }).size / 0.5);
    };
    expect(Math.abs(gainAt(300))).toBeLessThan(0.1);
    // Far over the threshold the range is all that is taken.
    expect(gainAt(12_000, { ratio: 20 })).toBeCloseTo(-12, 0);
    expect(gainAt(12_000, { threshold: 0 })).toBeCloseTo(0, 1);
    // At its frequency most of it is done.
    expect(gainAt(5000, { ratio: 20 })).toBeLessThan(-6);
  });
});

describe("a detector that follows each wave", () => {
  it.each([
    ["vca-compressor", { threshold: -30, ratio: 4, attack: 200, release: 5 }],
    ["fet-compressor", { threshold: -30, ratio: 8, attack: 2, release: 40, colour: 0 }],
    ["opto-compressor", { threshold: -30, ratio: 4, release: 300 }],
    ["expander", { threshold: -12, ratio: 3, attack: 50, release: 5 }],
    ["gate", { threshold: -12, hold: 1, hysteresis: 0, attack: 50, release: 5 }],
    ["de-esser", { threshold: -40, ratio: 4, freq: 2000, attack: 20, release: 5 }],
    ["multiband-compressor", { form: 0, "low.threshold": -40, "low.ratio": 4, "low.attack": 200, "low.release": 5 }],
  ] as const)(
    "is what a %s has whose document does not say, and turns a tone otherwise than held peaks",
    (id, values) => {
      const model = getModel(id);
      const freq = id === "de-esser" ? 4000 : 80;
      const tone = sine(freq, amplitudeOf(-10), 2, RATE);
      const heard = (set: typeof setTo) => {
        const { left } = renderChain([heardProcessor(model, set(model, values))], tone);
        return decibelsOf(partialAt(left, freq, { sampleRate: RATE, from: RATE }).size) + 10;
      };
      const { absent, ...hears } = getSpec(model, "hears");
      expect([absent, hears.default]).toEqual([0, 1]);
      expect(Math.abs(heard(savedWith) - heard(setTo))).toBeGreaterThan(0.5);
      expect(heard(savedWith)).toBeCloseTo(
        heard((of, all) => setTo(of, { ...all, hears: 0 })),
        1,
      );
    },
  );
});

describe("a sine from 50 Hz up is turned down as its curve is drawn, whatever the times", () => {
  const TIMES: readonly Values[] = [
    {},
    { attack: 200, release: 5 },
    { attack: 0.1, release: 5 },
    { attack: 1, release: 1000 },
  ];
  for (const [id, values] of [
    ["vca-compressor", { threshold: -30, ratio: 4, knee: 6 }],
    ["fet-compressor", { threshold: -30, ratio: 8, colour: 0 }],
    ["opto-compressor", { threshold: -30, ratio: 4 }],
  ] as const)
    it.each([44_100, 48_000, 96_000])(`${id} at %d Hz`, (sampleRate) => {
      const model = getModel(id);
      for (const times of TIMES)
        for (const freq of [52, 440, 5000]) {
          const seconds = 4;
          // Within what the model allows: a time that it does not have stays as it is.
          const turned = { ...values, ...times };
          const { left } = through(model, turned, sine(freq, amplitudeOf(-8), seconds, sampleRate));
          const heard = partialAt(left, freq, { sampleRate, from: (seconds - 0.5) * sampleRate }).size;
          const gain = decibelsOf(heard) + 8;
          const told = `${id} at ${freq} Hz, ${JSON.stringify(times)}: ${gain}`;
          expect(Math.abs(gain - drawn(id, turned, -8)), told).toBeLessThan(0.15);
        }
    });
});

describe("attack and release", () => {
  it("of the FET compressor are as set, within 5 %", () => {
    for (const [attack, release] of [
      [0.1, 50],
      [1, 400],
    ] as const) {
      const values: Values = { threshold: -30, ratio: 4, attack, release, colour: 0 };
      const feed = following("fet-compressor", values);
      feed(0.2, () => amplitudeOf(-60));
      const asked = drawn("fet-compressor", values, -10);
      const up = feed(0.5, () => amplitudeOf(-10));
      // One sample is a fifth of the shortest attack: the count of whole samples is off by half of one at most.
      expect(Math.abs(timeTo(up, 0, asked) - attack)).toBeLessThan(attack * 0.05 + 500 / RATE);
      const down = feed(3, () => amplitudeOf(-60));
      expect(Math.abs((timeTo(down, asked, 0) - HELD) / release - 1)).toBeLessThan(0.05);
    }
  });

  it("of the opto compressor: lit in 10 ms; the longer it was lit, the slower it fades", () => {
    const values: Values = { threshold: -30, ratio: 4, release: 2000 };
    const asked = drawn("opto-compressor", values, -6);
    const fadeAfter = (seconds: number) => {
      const feed = following("opto-compressor", values);
      feed(0.2, () => amplitudeOf(-60));
      const up = feed(seconds, () => amplitudeOf(-6));
      if (seconds > 0.1) expect(Math.abs(timeTo(up, 0, asked) / OPTO_ATTACK - 1)).toBeLessThan(0.05);
      return timeTo(
        feed(8, () => amplitudeOf(-60)),
        up.at(-1)!,
        0,
      );
    };
    const [short, long] = [fadeAfter(0.12), fadeAfter(5)];
    expect(short).toBeLessThan(120);
    // After a long time half of the reduction fades in 2 s, and a little later: while the fast half fades, in 60 ms, it
    // still feeds the slow one. 63 % of the way is there when (1 + 0.06 / 2) · e^(−t / 2 s) / 2 = 1/e.
    expect(Math.abs(long / (2000 * (Math.log(0.515) + 1)) - 1)).toBeLessThan(0.05);
  });
});

describe("the FET compressor's colour", () => {
  it("is the third harmonic, 30 dB below full scale's first at the most", () => {
    const { left } = through(getModel("fet-compressor"), { threshold: 0, colour: 100 }, sine(500, 1, 1, RATE));
    const at = (freq: number) => partialAt(left, freq, { sampleRate: RATE, from: RATE / 2 }).size;
    // x − c·x³ has c/4 of the third: c is 0.12.
    expect(decibelsOf(at(1500) / at(500))).toBeCloseTo(decibelsOf(0.03 / (1 - 0.09)), 0);
    expect(decibelsOf(at(1000) / at(500))).toBeLessThan(-80);
  });
});

describe("the gate", () => {
  const values: Values = { threshold: -30, range: -40, hysteresis: 6, attack: 0.5, release: 20, hold: 50 };
  const tone = (dB: number) => (i: number) => amplitudeOf(dB) * Math.sin((2 * Math.PI * 1000 * i) / RATE);
  it("stays open above the threshold less the hysteresis, and opens only above the threshold", () => {
    const feed = following("gate", values);
    feed(0.5, tone(-60));
    expect(feed(0.3, tone(-33)).at(-1)).toBeCloseTo(-40, 1);
    expect(feed(0.3, tone(-28)).at(-1)).toBe(0);
    expect(feed(0.3, tone(-34)).at(-1)).toBe(0);
    expect(feed(1, tone(-40)).at(-1)).toBeCloseTo(-40, 1);
  });
  it("keeps the first millisecond where it looks ahead, and is late by as much", () => {
    for (const id of ["gate", "expander"] as const)
      for (const sampleRate of [44_100, 48_000, 96_000]) {
        const [begins, ms] = [Math.round(0.5 * sampleRate), Math.round(sampleRate / 1000)];
        const burst = stereoOf(sampleRate, sampleRate, (i) =>
          i < begins ? 0 : amplitudeOf(-8) * Math.cos((i - begins) / 9),
        );
        const firstOf = (ahead: number) => {
          const { left } = through(getModel(id), { threshold: -30, range: -60, attack: 1, ahead }, burst);
          const late = Math.round((ahead * sampleRate) / 1000);
          const heard = left.subarray(begins + late, begins + late + ms);
          return decibelsOf(rms(heard) / rms(burst.left.subarray(begins, begins + ms)));
        };
        expect(firstOf(0), `${id} at ${sampleRate} Hz`).toBeLessThan(-6);
        expect(firstOf(10), `${id} at ${sampleRate} Hz`).toBeGreaterThan(-0.5);
      }
  });
  it("holds for as long as it says before it closes", () => {
    const feed = following("gate", values);
    feed(0.3, tone(-10));
    const closing = feed(0.3, () => 0);
    const began = (1000 * closing.findIndex((gain) => gain < 0)) / RATE;
    expect(Math.abs(began - 50 - HELD)).toBeLessThan(1);
  });
});

describe.each([
  ["crossovers", 0],
  ["shelves", 1],
])("the multiband compressor by %s", (name, form) => {
  const model = getModel("multiband-compressor");
  const OPEN: Values = { form, "low.ratio": 1, "mid.ratio": 1, "high.ratio": 1 };
  const gainAt = (values: Values, freq: number) => {
    const { left } = through(model, values, sine(freq, 0.5, 2, RATE));
    return decibelsOf(partialAt(left, freq, { sampleRate: RATE, from: RATE }).size / 0.5);
  };
  it("is flat at a ratio of 1: the bands add up to all of the sound", () => {
    const heard = responseOf(model, OPEN, RATE);
    for (const freq of [30, 100, 180, 400, 1000, 3000, 8000, 15_000]) expect(heard(freq)).toBeCloseTo(0, 1);
  });
  it("turns each band by its own curve", () => {
    const values: Values = { ...OPEN, "mid.ratio": 4, "mid.threshold": -30, lower: 100, upper: 6000 };
    const level = decibelsOf(0.5);
    expect(Math.abs(gainAt(values, 800) - -0.75 * (level + 30))).toBeLessThan(0.1);
    expect(Math.abs(gainAt(values, 30))).toBeLessThan(0.3);
    expect(Math.abs(gainAt(values, 15_000))).toBeLessThan(0.3);
  });
  it("gives each band the gain that is set, within half a decibel in its middle", () => {
    const values: Values = { ...OPEN, "low.gain": 6, "mid.gain": -6, "high.gain": 9, lower: 150, upper: 4000 };
    const heard = responseOf(model, values, RATE);
    for (const [freq, gain] of [
      [30, 6],
      [775, -6],
      [16_000, 9],
    ] as const)
      expect(Math.abs(heard(freq) - gain), `${freq} Hz`).toBeLessThan(0.5);
  });
  it(`at rest ${name === "shelves" ? "is the sound itself, bit for bit" : "turns its phase only"}`, () => {
    const sound = noise(0.5, RATE);
    for (const side of [sound.left, sound.right]) for (const at of side.keys()) side[at]! /= 256;
    const { left } = through(model, { form }, sound);
    expect(left.every((sample, at) => sample === sound.left[at])).toBe(name === "shelves");
    expect(decibelsOf(rms(left) / rms(sound.left))).toBeCloseTo(0, 1);
  });
});
