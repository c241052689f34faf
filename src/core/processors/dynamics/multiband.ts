import { choiceSpec, effect, frequencySpec, gainSpec, ratioSpec, timeSpec } from "../specs";
import type { HeardValues } from "../../units/param-spec";
import { HEARS } from "./detector";
import { type StaticCurve, gainAt, staticCurve } from "./static-curve";

export const MULTIBAND_BANDS = ["low", "mid", "high"] as const;
export type MultibandBand = (typeof MULTIBAND_BANDS)[number];

const NAMES: Record<MultibandBand, string> = { low: "Low", mid: "Mid", high: "High" };
/** In dB. */
export const MULTIBAND_KNEE = 6;

const bandSpecs = <B extends MultibandBand>(
  band: B,
  threshold: number,
  [attack, release]: readonly [number, number],
) => {
  const group = NAMES[band];
  return [
    gainSpec(`${band}.threshold`, `${group} threshold`, [-60, 0, threshold], { group }),
    ratioSpec(`${band}.ratio`, `${group} ratio`, [1, 20, 2], { group, meaning: `${band}.ratio` }),
    timeSpec(`${band}.attack`, `${group} attack`, [0.1, 200, attack], { group }),
    timeSpec(`${band}.release`, `${group} release`, [5, 2000, release], { group }),
    gainSpec(`${band}.gain`, `${group} gain`, [-12, 12, 0], { group }),
  ] as const;
};

type CurveValues = HeardValues<`${MultibandBand}.${"threshold" | "ratio"}`>;

export const multibandCurve = (values: CurveValues, band: MultibandBand): StaticCurve =>
  staticCurve(values[`${band}.threshold`], values[`${band}.ratio`], MULTIBAND_KNEE);

/**
 * How the bands come together again. Crossovers part the sound and add it up, which turns its phase; shelves turn the whole
 * sound up and down where the bands lie, so that at rest it is the sound itself and may stand beside a dry lane.
 */
const CROSSOVERS = 0;
export const SHELVES = 1;

export const MULTIBAND = effect("dynamics", "multiband-compressor", "Multiband compressor", {
  holdsLevels: true,
  structural: ["form"],
  params: [
    choiceSpec("form", "Bands", ["Crossovers", "Shelves"], { start: SHELVES, absent: CROSSOVERS }),
    HEARS,
    frequencySpec("lower", "Low to mid", [40, 1000, 180]),
    frequencySpec("upper", "Mid to high", [1000, 12_000, 3000]),
    ...bandSpecs("low", -20, [20, 200]),
    ...bandSpecs("mid", -24, [10, 120]),
    ...bandSpecs("high", -28, [3, 80]),
  ],
  reads: "reduction",
  lead: "mid.threshold",
  design: {
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
  },
});
