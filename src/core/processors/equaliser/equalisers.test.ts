import { describe, expect, it } from "vitest";
import { designOf } from "../model";
import { getModel } from "../models";
import type { Values } from "../../units/param-spec";
import { seededRandom } from "../../random";
import { responseOf, setTo } from "../../sound/testing";
import { levelCurve } from "./eq-design";
import { GRAPHIC_CENTRES } from "./graphic-eq";

const CONSOLE = getModel("console-eq");
const GRAPHIC = getModel("graphic-eq");
const TILT = getModel("tilt-eq");

const SETTINGS: readonly (readonly [id: string, values: Values])[] = [
  ["console-eq", { lowCut: 70, "low.gain": 5, "lowMid.gain": -7, "highMid.gain": 4, "high.gain": 6, output: -2 }],
  ["console-eq", { "low.shape": 1, "low.gain": -9, "high.shape": 1, "high.gain": -6, highCut: 9000 }],
  ["graphic-eq", { "gain31.5": 4, gain250: -6, gain2000: 9, gain16000: -5 }],
  ["tilt-eq", { tilt: 6, pivot: 900, lowCut: 50, highCut: 12_000, output: 1 }],
];

describe("every equaliser", () => {
  for (const sampleRate of [44_100, 48_000, 96_000])
    it(`is heard as it is drawn within 0.1 dB at ${sampleRate} Hz`, () => {
      for (const [id, values] of SETTINGS) {
        const heard = responseOf(getModel(id), values, sampleRate);
        const drawn = levelCurve(designOf(getModel(id), "equaliser"), setTo(getModel(id), values), sampleRate);
        for (const freq of [45, 90, 250, 700, 2000, 6000, 12_000])
          expect(Math.abs(heard(freq) - drawn(freq)), `${id} at ${freq} Hz`).toBeLessThan(0.1);
      }
    });
  it("is flat as it opens", () => {
    for (const model of [CONSOLE, GRAPHIC, TILT]) {
      const heard = responseOf(model, {}, 48_000);
      for (const freq of [30, 1000, 15_000]) expect(heard(freq)).toBeCloseTo(0, 6);
    }
  });
});

describe("the console EQ", () => {
  it("gives a band its gain in its middle, half of it at a shelf's corner, 3 dB less at a cut's", () => {
    expect(responseOf(CONSOLE, { "highMid.gain": 6, "highMid.freq": 3000 }, 48_000)(3000)).toBeCloseTo(6, 2);
    expect(responseOf(CONSOLE, { "low.gain": -8, "low.freq": 100 }, 48_000)(100)).toBeCloseTo(-4, 2);
    expect(responseOf(CONSOLE, { "low.gain": -8, "low.freq": 100, "low.shape": 1 }, 48_000)(100)).toBeCloseTo(-8, 2);
    expect(responseOf(CONSOLE, { lowCut: 120 }, 48_000)(120)).toBeCloseTo(-3.01, 1);
  });
});

describe("the graphic EQ", () => {
  const sliders = (gain: (at: number) => number): Values =>
    Object.fromEntries(GRAPHIC_CENTRES.map((hz, at) => [`gain${hz}`, gain(at)]));
  const random = seededRandom(5);
  const SETTINGS: readonly (readonly [string, Values])[] = [
    ["one", sliders((at) => (at === 4 ? 8 : 0))],
    ["the last", sliders((at) => (at === 9 ? -12 : 0))],
    ["all up", sliders(() => 12)],
    ["in turn up and down", sliders((at) => (at % 2 === 0 ? 12 : -12))],
    ["any", sliders(() => 24 * random() - 12)],
  ];
  for (const sampleRate of [44_100, 48_000, 96_000])
    it(`gives each centre what its slider says, whatever the others do, at ${sampleRate} Hz`, () => {
      for (const [name, values] of SETTINGS) {
        const heard = responseOf(GRAPHIC, values, sampleRate);
        for (const hz of GRAPHIC_CENTRES)
          expect(Math.abs(heard(hz) - (values[`gain${hz}`] as number)), `${name} at ${hz} Hz`).toBeLessThan(0.5);
      }
    });
});

describe("the tilt EQ", () => {
  it("turns about its pivot: as much up at the top as down at the bottom", () => {
    const heard = responseOf(TILT, { tilt: 5, pivot: 700 }, 96_000);
    expect(heard(700)).toBeCloseTo(0, 3);
    // A decade and a half from the pivot a slope of the first order has all but arrived.
    expect(heard(20)).toBeCloseTo(-5, 1);
    expect(heard(22_000)).toBeCloseTo(5, 1);
    for (const octaves of [0.5, 1, 2]) expect(heard(700 * 2 ** octaves)).toBeCloseTo(-heard(700 / 2 ** octaves), 1);
  });
});
