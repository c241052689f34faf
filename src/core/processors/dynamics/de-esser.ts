import { choiceSpec, effect, frequencySpec, gainSpec, ratioSpec, timeSpec } from "../specs";
import type { HeardValues } from "../model";
import { compressorDesign } from "./opto-compressor";
import type { StaticCurve } from "./vca-compressor/design";

export const DE_ESSER_MODES = ["Above only", "Whole sound"] as const;

export const DE_ESSER = effect("dynamics", "de-esser", "De-esser", {
  params: [
    frequencySpec("freq", "Sibilance from", [2000, 12_000, 6000]),
    gainSpec("threshold", "Threshold", [-60, 0, -30], { meaning: "threshold.dB" }),
    ratioSpec("ratio", "Ratio", [1, 20, 4]),
    gainSpec("range", "Range", [-24, 0, -12], { meaning: "range.dB" }),
    timeSpec("attack", "Attack", [0.1, 20, 0.5], { meaning: "attack.ms" }),
    timeSpec("release", "Release", [5, 500, 50], { meaning: "release.ms" }),
    choiceSpec("mode", "Turns down", DE_ESSER_MODES),
  ],
  lead: "threshold",
});

export const deEsserCurve = (values: HeardValues): StaticCurve => ({
  threshold: values.threshold ?? -30,
  slope: 1 - 1 / (values.ratio ?? 4),
  knee: 4,
});

export const DE_ESSER_DESIGN = compressorDesign(deEsserCurve);
