import { choiceSpec, effect, frequencySpec, gainSpec, ratioSpec, timeSpec } from "../specs";
import type { HeardValues } from "../../units/param-spec";
import { HEARS } from "./detector";
import { curveDesign } from "./dynamics-design";
import { type StaticCurve, staticCurve } from "./static-curve";

export const DE_ESSER_MODES = ["Above only", "Whole sound"] as const;

/** In dB. */
const KNEE = 4;

export const deEsserCurve = ({ threshold, ratio }: HeardValues<"threshold" | "ratio">): StaticCurve =>
  staticCurve(threshold, ratio, KNEE);

export const DE_ESSER = effect("dynamics", "de-esser", "De-esser", {
  params: [
    frequencySpec("freq", "Sibilance from", [2000, 12_000, 6000]),
    gainSpec("threshold", "Threshold", [-60, 0, -30], { meaning: "threshold.dB" }),
    ratioSpec("ratio", "Ratio", [1, 20, 4]),
    gainSpec("range", "Range", [-24, 0, -12], { meaning: "range.dB" }),
    timeSpec("attack", "Attack", [0.1, 20, 0.5], { meaning: "attack.ms" }),
    timeSpec("release", "Release", [5, 500, 50], { meaning: "release.ms" }),
    HEARS,
    choiceSpec("mode", "Turns down", DE_ESSER_MODES),
  ],
  reads: "reduction",
  lead: "threshold",
  design: curveDesign(deEsserCurve),
});
