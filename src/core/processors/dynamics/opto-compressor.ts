import { MIX, choiceSpec, effect, gainSpec, ratioSpec, timeSpec } from "../specs";
import type { HeardValues } from "../model";
import type { DynamicsDesign } from "./dynamics-design";
import { type StaticCurve, gainAt } from "./vca-compressor/design";

/** A light cell turns gradually: its knee is wide and always there. In dB. */
const KNEE = 12;

/** In ms: how fast the cell lights up, and how fast the first half of it fades. */
export const OPTO_ATTACK = 10;
export const OPTO_FAST_RELEASE = 60;
/** In ms: how long it must have been lit for the slow half of its fading to be all there. */
export const OPTO_MEMORY = 1000;

export const OPTO_COMPRESSOR = effect("dynamics", "opto-compressor", "Opto compressor", {
  isKeyed: true,
  holdsLevels: true,
  params: [
    gainSpec("threshold", "Threshold", [-60, 0, -20], { meaning: "threshold.dB" }),
    ratioSpec("ratio", "Ratio", [1.5, 10, 3]),
    timeSpec("release", "Slow release", [300, 5000, 1200], { meaning: "release.ms" }),
    choiceSpec("makeupMode", "Make-up", ["By hand", "Automatic"]),
    gainSpec("makeup", "Make-up gain", [0, 24, 0], { meaning: "makeup.dB" }),
    MIX,
  ],
  lead: "threshold",
});

export const optoCurve = (values: HeardValues): StaticCurve => ({
  threshold: values.threshold ?? 0,
  slope: 1 - 1 / (values.ratio ?? 1),
  knee: KNEE,
});

/** Half of what full scale loses, as with every compressor here. */
export const automaticMakeup = (curve: StaticCurve): number => -gainAt(curve, 0) / 2;

export const compressorDesign = (curveOf: (values: HeardValues) => StaticCurve, hasRatio = true): DynamicsDesign => ({
  lines(values) {
    const curve = curveOf(values);
    return [
      {
        at: (level) => level + gainAt(curve, level),
        threshold: curve.threshold,
        params: { threshold: "threshold", ...(hasRatio ? { ratio: "ratio" } : {}) },
      },
    ];
  },
  automaticMakeup: (values) => (values.makeupMode === 1 ? automaticMakeup(curveOf(values)) : null),
});

export const OPTO_COMPRESSOR_DESIGN = compressorDesign(optoCurve);
