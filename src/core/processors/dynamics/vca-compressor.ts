import { MIX, effect, gainSpec, ratioSpec, timeSpec } from "../specs";
import type { HeardValues } from "../../units/param-spec";
import { MAKEUP } from "./compressor-specs";
import { HEARS } from "./detector";
import { compressorDesign } from "./dynamics-design";
import { type StaticCurve, staticCurve } from "./static-curve";

export const vcaCurve = ({ threshold, ratio, knee }: HeardValues<"threshold" | "ratio" | "knee">): StaticCurve =>
  staticCurve(threshold, ratio, knee);

export const VCA_COMPRESSOR = effect("dynamics", "vca-compressor", "VCA compressor", {
  params: [
    gainSpec("threshold", "Threshold", [-60, 0, -18], { meaning: "threshold.dB" }),
    ratioSpec("ratio", "Ratio", [1, 20, 2]),
    gainSpec("knee", "Knee", [0, 24, 6], { meaning: "knee.dB" }),
    timeSpec("attack", "Attack", [0.1, 200, 10], { meaning: "attack.ms" }),
    timeSpec("release", "Release", [5, 2000, 120], { meaning: "release.ms" }),
    HEARS,
    ...MAKEUP,
    MIX,
  ],
  isKeyed: true,
  holdsLevels: true,
  reads: "reduction",
  lead: "threshold",
  design: compressorDesign(vcaCurve),
});
