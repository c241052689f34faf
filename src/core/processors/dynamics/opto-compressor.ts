import { MIX, effect, gainSpec, ratioSpec, timeSpec } from "../specs";
import type { HeardValues } from "../../units/param-spec";
import { MAKEUP } from "./compressor-specs";
import { HEARS } from "./detector";
import { compressorDesign } from "./dynamics-design";
import { type StaticCurve, staticCurve } from "./static-curve";

/** A light cell turns gradually: its knee is wide and always there. In dB. */
const KNEE = 12;

/** In ms: how fast the cell lights up, and how fast the first half of it fades. */
export const OPTO_ATTACK = 10;
export const OPTO_FAST_RELEASE = 60;
/** In ms: how long it must have been lit for the slow half of its fading to be all there. */
export const OPTO_MEMORY = 1000;

export const optoCurve = ({ threshold, ratio }: HeardValues<"threshold" | "ratio">): StaticCurve => ({
  ...staticCurve(threshold, ratio, KNEE),
  catches: -0.3,
});

export const OPTO_COMPRESSOR = effect("dynamics", "opto-compressor", "Opto compressor", {
  isKeyed: true,
  holdsLevels: true,
  reads: "reduction",
  params: [
    gainSpec("threshold", "Threshold", [-60, 0, -20], { meaning: "threshold.dB" }),
    ratioSpec("ratio", "Ratio", [1.5, 10, 3]),
    timeSpec("release", "Slow release", [300, 5000, 1200], { meaning: "release.ms" }),
    HEARS,
    ...MAKEUP,
    MIX,
  ],
  lead: "threshold",
  design: compressorDesign(optoCurve),
});
