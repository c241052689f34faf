import { MIX, effect, gainSpec, numbersSpec, percentSpec, timeSpec } from "../specs";
import type { HeardValues } from "../../units/param-spec";
import { MAKEUP } from "./compressor-specs";
import { HEARS } from "./detector";
import { compressorDesign } from "./dynamics-design";
import { type StaticCurve, staticCurve } from "./static-curve";

/** Its knee tightens as the ratio rises. */
export const fetCurve = ({ threshold, ratio }: HeardValues<"threshold" | "ratio">): StaticCurve => ({
  ...staticCurve(threshold, ratio, 16 / ratio),
  catches: 0.6,
});

export const FET_COMPRESSOR = effect("dynamics", "fet-compressor", "FET compressor", {
  isKeyed: true,
  holdsLevels: true,
  reads: "reduction",
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
    HEARS,
    ...MAKEUP,
    MIX,
  ],
  lead: "threshold",
  design: compressorDesign(fetCurve),
});
