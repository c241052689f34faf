import * as matched from "../../dsp/matched";
import { IDENTITY, type Biquad } from "../../dsp/biquad";
import { decibels, hertz } from "../../units/quantities";
import type { HeardValues } from "../../units/param-spec";
import { OUTPUT, choiceSpec, effect, frequencySpec, gainSpec, qSpec } from "../specs";
import { type EqBand, type EqDesign, plainCuts } from "./eq-design";
import { peaksOf } from "./fit-points";

const GAIN = [-15, 15, 0] as const;

const band = <B extends string>(
  id: B,
  name: string,
  group: string,
  [min, max, start]: readonly [number, number, number],
) =>
  [
    frequencySpec(`${id}.freq`, `${name} frequency`, [min, max, start], { group, meaning: `${id}.hz` }),
    gainSpec(`${id}.gain`, `${name} gain`, GAIN, { group, meaning: `${id}.dB` }),
  ] as const;

const PARAMS = [
  frequencySpec("lowCut", "Low cut", [20, 400, 20], { group: "Cuts", meaning: "lowcut.hz" }),
  frequencySpec("highCut", "High cut", [2000, 20_000, 20_000], { group: "Cuts", meaning: "highcut.hz" }),
  ...band("low", "Low", "Low", [30, 450, 90]),
  choiceSpec("low.shape", "Low shape", ["Shelf", "Bell"], { group: "Low" }),
  ...band("lowMid", "Low mid", "Low mid", [120, 2500, 400]),
  qSpec("lowMid.q", "Low mid Q", [0.4, 4, 0.9], { group: "Low mid" }),
  ...band("highMid", "High mid", "High mid", [600, 9000, 2500]),
  qSpec("highMid.q", "High mid Q", [0.4, 4, 0.9], { group: "High mid" }),
  ...band("high", "High", "High", [1500, 18_000, 9000]),
  choiceSpec("high.shape", "High shape", ["Shelf", "Bell"], { group: "High" }),
  OUTPUT,
];

type Id = (typeof PARAMS)[number]["id"];
type ConsoleValues = HeardValues<Id>;

/** Shelves as broad as a console's; a bell in their place is a little narrower. */
const SHELF_Q = Math.SQRT1_2;
const BELL_Q = 0.9;

/** At the end of its range a cut is out of the way. */
function cuts(values: ConsoleValues, sampleRate: number): readonly [low: Biquad, high: Biquad] {
  const { lowCut, highCut } = values;
  return [
    lowCut > 20 ? matched.highPass({ freq: hertz(lowCut), q: Math.SQRT1_2, sampleRate }) : IDENTITY,
    highCut < 20_000 ? matched.lowPass({ freq: hertz(highCut), q: Math.SQRT1_2, sampleRate }) : IDENTITY,
  ];
}

const ENDS = { low: matched.lowShelf, high: matched.highShelf } as const;

function sectionOf(values: ConsoleValues, id: "low" | "lowMid" | "highMid" | "high", sampleRate: number): Biquad {
  const gain = decibels(values[`${id}.gain`]);
  if (gain === 0) return IDENTITY;
  const freq = hertz(values[`${id}.freq`]);
  if (id === "low" || id === "high")
    return values[`${id}.shape`] === 1
      ? matched.bell({ freq, q: BELL_Q, sampleRate }, gain)
      : ENDS[id]({ freq, q: SHELF_Q, sampleRate }, gain);
  return matched.bell({ freq, q: values[`${id}.q`], sampleRate }, gain);
}

const BANDS = [
  ["low", "Low", "L"],
  ["lowMid", "Low mid", "LM"],
  ["highMid", "High mid", "HM"],
  ["high", "High", "H"],
] as const;

const cutBand = (key: "lowCut" | "highCut", name: string, freq: number, section: Biquad): EqBand => ({
  key,
  name,
  mark: key === "lowCut" ? "LC" : "HC",
  on: section !== IDENTITY,
  freq,
  gain: 0,
  params: { freq: key },
  sections: [section],
});

const FITTED = PARAMS.filter((spec) => !spec.choices && spec.id !== "lowCut" && spec.id !== "highCut").map((s) => s.id);

export const CONSOLE_EQ_DESIGN: EqDesign<Id> = {
  bands(values, sampleRate) {
    const [lowCut, highCut] = cuts(values, sampleRate);
    return [
      cutBand("lowCut", "Low cut", values.lowCut, lowCut),
      ...BANDS.map(([key, name, mark]) => ({
        key,
        name,
        mark,
        on: true,
        freq: values[`${key}.freq`],
        gain: values[`${key}.gain`],
        params: {
          freq: `${key}.freq`,
          gain: `${key}.gain`,
          ...(key === "lowMid" || key === "highMid" ? { q: `${key}.q` } : {}),
        },
        sections: [sectionOf(values, key, sampleRate)],
      })),
      cutBand("highCut", "High cut", values.highCut, highCut),
    ];
  },
  cuts: plainCuts.read,
  starts(wanted, cuts) {
    const [low, high] = peaksOf(wanted, 2);
    return [0, 1].flatMap((lowShape) =>
      [0, 1].map((highShape) => ({
        values: {
          ...plainCuts.set(cuts),
          "low.shape": lowShape,
          "high.shape": highShape,
          "low.gain": wanted[2]!,
          "high.gain": wanted.at(-6)!,
          "lowMid.freq": low!.hz,
          "lowMid.gain": low!.gain,
          "highMid.freq": high!.hz,
          "highMid.gain": high!.gain,
        },
        free: FITTED,
      })),
    );
  },
};

export const CONSOLE_EQ = effect("equaliser", "console-eq", "Console EQ", {
  params: PARAMS,
  lead: "output",
  design: CONSOLE_EQ_DESIGN,
});
