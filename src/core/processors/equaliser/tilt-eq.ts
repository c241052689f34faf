import { type Biquad, IDENTITY, highPass, lowPass } from "../../dsp/biquad";
import { type Decibels, type Hertz, decibels, gainOf, hertz } from "../../units/quantities";
import { OUTPUT, effect, frequencySpec, gainSpec } from "../specs";
import { type EqDesign, plainCuts } from "./eq-design";

/**
 * A see-saw of the first order: H(s) = (g·s + w) / (s + g·w), brought over by the bilinear transform with `pivot` in its
 * place. −tilt dB at the bottom, +tilt dB at the top, 0 dB at the pivot.
 */
export function tiltSection(tilt: Decibels, pivot: Hertz, sampleRate: number): Biquad {
  const g = gainOf(tilt);
  const w = Math.tan((Math.PI * pivot) / sampleRate);
  const a0 = 1 + g * w;
  return { b0: (g + w) / a0, b1: (w - g) / a0, b2: 0, a1: (g * w - 1) / a0, a2: 0 };
}

export const TILT_EQ_DESIGN: EqDesign<"tilt" | "pivot" | "lowCut" | "highCut"> = {
  bands(values, sampleRate) {
    const { tilt, pivot, lowCut, highCut } = values;
    const cut = { q: Math.SQRT1_2, sampleRate };
    return [
      {
        key: "lowCut",
        name: "Low cut",
        mark: "LC",
        on: lowCut > 20,
        freq: lowCut,
        gain: 0,
        params: { freq: "lowCut" },
        sections: [lowCut > 20 ? highPass({ ...cut, freq: hertz(lowCut) }) : IDENTITY],
      },
      {
        key: "tilt",
        name: "Tilt",
        mark: "T",
        on: true,
        freq: pivot,
        gain: tilt,
        params: { freq: "pivot", gain: "tilt" },
        sections: [tilt === 0 ? IDENTITY : tiltSection(decibels(tilt), hertz(pivot), sampleRate)],
      },
      {
        key: "highCut",
        name: "High cut",
        mark: "HC",
        on: highCut < 20_000,
        freq: highCut,
        gain: 0,
        params: { freq: "highCut" },
        sections: [highCut < 20_000 ? lowPass({ ...cut, freq: hertz(highCut) }) : IDENTITY],
      },
    ];
  },
  cuts: plainCuts.read,
  starts: (wanted, cuts) =>
    [400, 1200].map((pivot) => ({
      values: { ...plainCuts.set(cuts), tilt: (wanted.at(-6)! - wanted[6]!) / 2, pivot },
      free: ["tilt", "pivot"],
    })),
};

export const TILT_EQ = effect("equaliser", "tilt-eq", "Tilt EQ", {
  params: [
    gainSpec("tilt", "Tilt", [-12, 12, 0], { group: "Tilt" }),
    frequencySpec("pivot", "Pivot", [150, 5000, 700], { group: "Tilt" }),
    frequencySpec("lowCut", "Low cut", [20, 400, 20], { group: "Cuts", meaning: "lowcut.hz" }),
    frequencySpec("highCut", "High cut", [2000, 20_000, 20_000], { group: "Cuts", meaning: "highcut.hz" }),
    OUTPUT,
  ],
  lead: "tilt",
  design: TILT_EQ_DESIGN,
});
