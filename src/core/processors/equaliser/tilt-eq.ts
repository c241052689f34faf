import { type Biquad, IDENTITY } from "../../dsp/biquad";
import * as matched from "../../dsp/matched";
import { type Decibels, type Hertz, decibels, gainOf, hertz } from "../../units/quantities";
import { OUTPUT, effect, frequencySpec, gainSpec } from "../specs";
import { type EqDesign, plainCuts } from "./eq-design";

/** A see-saw of the first order: −tilt dB at the bottom, +tilt dB at the top, 0 dB at the pivot. */
export const tiltSection = (tilt: Decibels, pivot: Hertz, sampleRate: number): Biquad =>
  matched.tilt({ freq: pivot, sampleRate }, gainOf(tilt));

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
        sections: [lowCut > 20 ? matched.highPass({ ...cut, freq: hertz(lowCut) }) : IDENTITY],
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
        sections: [highCut < 20_000 ? matched.lowPass({ ...cut, freq: hertz(highCut) }) : IDENTITY],
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
