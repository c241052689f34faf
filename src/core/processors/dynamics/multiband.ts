import { effect, frequencySpec, gainSpec, ratioSpec, timeSpec } from "../specs";
import type { HeardValues } from "../model";
import type { DynamicsDesign } from "./dynamics-design";
import { type StaticCurve, gainAt } from "./vca-compressor/design";

export const MULTIBAND_BANDS = ["low", "mid", "high"] as const;
export type MultibandBand = (typeof MULTIBAND_BANDS)[number];

const NAMES: Record<MultibandBand, string> = { low: "Low", mid: "Mid", high: "High" };
const KNEE = 6;

const bandSpecs = (band: MultibandBand, threshold: number, [attack, release]: readonly [number, number]) => {
  const group = NAMES[band];
  return [
    gainSpec(`${band}.threshold`, `${group} threshold`, [-60, 0, threshold], { group }),
    ratioSpec(`${band}.ratio`, `${group} ratio`, [1, 20, 2], { group, meaning: `${band}.ratio` }),
    timeSpec(`${band}.attack`, `${group} attack`, [0.1, 200, attack], { group }),
    timeSpec(`${band}.release`, `${group} release`, [5, 2000, release], { group }),
    gainSpec(`${band}.gain`, `${group} gain`, [-12, 12, 0], { group }),
  ];
};

export const MULTIBAND = effect("dynamics", "multiband-compressor", "Multiband compressor", {
  holdsLevels: true,
  params: [
    frequencySpec("lower", "Low to mid", [40, 1000, 180]),
    frequencySpec("upper", "Mid to high", [1000, 12_000, 3000]),
    ...bandSpecs("low", -20, [20, 200]),
    ...bandSpecs("mid", -24, [10, 120]),
    ...bandSpecs("high", -28, [3, 80]),
  ],
  lead: "mid.threshold",
});

export const multibandCurve = (values: HeardValues, band: MultibandBand): StaticCurve => ({
  threshold: values[`${band}.threshold`] ?? -24,
  slope: 1 - 1 / (values[`${band}.ratio`] ?? 2),
  knee: KNEE,
});

export const MULTIBAND_DESIGN: DynamicsDesign = {
  lines: (values) =>
    MULTIBAND_BANDS.map((band) => {
      const curve = multibandCurve(values, band);
      return {
        name: NAMES[band],
        at: (level) => level + gainAt(curve, level),
        threshold: curve.threshold,
        params: { threshold: `${band}.threshold`, ratio: `${band}.ratio` },
      };
    }),
};
