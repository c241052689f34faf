import { effect, frequencySpec, gainSpec, ratioSpec, timeSpec } from "../specs";
import type { HeardValues, ParamId, ParamSpec } from "../../units/param-spec";
import { HEARS } from "./detector";
import type { DynamicsDesign } from "./dynamics-design";

const times = (attack: number, release: number) => [
  timeSpec("attack", "Attack", [0.05, 100, attack], { meaning: "attack.ms" }),
  timeSpec("release", "Release", [5, 2000, release], { meaning: "release.ms" }),
];

/** Rumble opens no gate: what the detector hears begins here. */
const DETECTOR = frequencySpec("detector", "Detector from", [20, 2000, 20], { meaning: "keylowcut.hz" });

/** In ms: how far the most that is chosen looks ahead. */
export const MOST_AHEAD = 10;

/** It opens before what opens it, and all is later by as much. */
const AHEAD: ParamSpec<"ahead"> = {
  ...timeSpec("ahead", "Look-ahead", [0, MOST_AHEAD, 0], { meaning: "lookahead.ms" }),
  taper: "power",
};

/** Gain in dB at a level: none from the threshold up, the whole range below. */
export const gateGainAt = ({ threshold, range }: HeardValues<"threshold" | "range">, level: number): number =>
  level >= threshold ? 0 : range;

export type ExpanderCurve = HeardValues<"threshold" | "ratio" | "knee" | "range">;

/**
 * The mirror image of a compressor's curve: (ratio − 1) dB for each dB below the threshold, a quadratic within the knee,
 * no deeper than the range. After Giannoulis, Massberg and Reiss, JAES 60 (2012), turned upside down.
 */
export function expanderGainAt({ threshold, ratio, knee, range }: ExpanderCurve, level: number): number {
  const under = threshold - level;
  const slope = ratio - 1;
  if (2 * under <= -knee) return 0;
  const gain = 2 * under < knee ? (-slope * (under + knee / 2) ** 2) / (2 * knee) : -slope * under;
  return Math.max(range, gain);
}

const lineDesign = <Id extends ParamId>(
  gainAt: (values: HeardValues<Id | "threshold">, level: number) => number,
  ratio?: "ratio",
): DynamicsDesign<Id | "threshold"> => ({
  lines: (values) => [
    {
      at: (level) => level + gainAt(values, level),
      threshold: values.threshold,
      params: { threshold: "threshold", ...(ratio ? { ratio } : {}) },
    },
  ],
});

export const GATE = effect("dynamics", "gate", "Gate", {
  isKeyed: true,
  reads: "reduction",
  params: [
    gainSpec("threshold", "Threshold", [-80, 0, -40], { meaning: "threshold.dB" }),
    gainSpec("range", "Range", [-80, 0, -40], { meaning: "range.dB" }),
    gainSpec("hysteresis", "Hysteresis", [0, 12, 3]),
    ...times(0.5, 120),
    timeSpec("hold", "Hold", [1, 1000, 40]),
    HEARS,
    DETECTOR,
    AHEAD,
  ],
  aheadBy: "ahead",
  lead: "threshold",
  design: lineDesign(gateGainAt),
});

export const EXPANDER = effect("dynamics", "expander", "Expander", {
  isKeyed: true,
  reads: "reduction",
  params: [
    gainSpec("threshold", "Threshold", [-80, 0, -35], { meaning: "threshold.dB" }),
    ratioSpec("ratio", "Ratio", [1, 8, 2]),
    gainSpec("knee", "Knee", [0, 24, 6], { meaning: "knee.dB" }),
    gainSpec("range", "Range", [-60, 0, -20], { meaning: "range.dB" }),
    ...times(2, 200),
    HEARS,
    DETECTOR,
    AHEAD,
  ],
  aheadBy: "ahead",
  lead: "threshold",
  design: lineDesign(expanderGainAt, "ratio"),
});
