import { MIX, choiceSpec, effect, gainSpec, numbersSpec, percentSpec, timeSpec } from "../specs";
import type { HeardValues } from "../model";
import { compressorDesign } from "./opto-compressor";
import type { StaticCurve } from "./vca-compressor/design";

export const FET_COMPRESSOR = effect("dynamics", "fet-compressor", "FET compressor", {
  isKeyed: true,
  holdsLevels: true,
  params: [
    gainSpec("threshold", "Threshold", [-60, 0, -24], { meaning: "threshold.dB" }),
    numbersSpec(
      "ratio",
      "Ratio",
      [4, 8, 12, 20].map((value) => ({ value, label: `${value}:1` })),
      { start: 4, meaning: "ratio" },
    ),
    timeSpec("attack", "Attack", [0.02, 2, 0.3], { meaning: "attack.ms" }),
    timeSpec("release", "Release", [40, 1100, 150], { meaning: "release.ms" }),
    percentSpec("colour", "Colour", [0, 100, 30], { meaning: "colour.pct" }),
    choiceSpec("makeupMode", "Make-up", ["By hand", "Automatic"]),
    gainSpec("makeup", "Make-up gain", [0, 24, 0], { meaning: "makeup.dB" }),
    MIX,
  ],
  lead: "threshold",
});

/** Its knee tightens as the ratio rises. */
export const fetCurve = (values: HeardValues): StaticCurve => ({
  threshold: values.threshold ?? 0,
  slope: 1 - 1 / (values.ratio ?? 4),
  knee: 16 / (values.ratio ?? 4),
});

export const FET_COMPRESSOR_DESIGN = compressorDesign(fetCurve);
