import { type Decibels, decibels } from "../../units/quantities";
import type { HeardValues } from "../../units/param-spec";

/** What a compressor asks for at a steady level. */
export interface StaticCurve {
  /** In dB below full scale. */
  readonly threshold: number;
  /** How much of each dB above the threshold is taken away: 1 − 1/ratio. */
  readonly slope: number;
  /** In dB, from where it begins to bend to where it is straight again. */
  readonly knee: number;
}

export const staticCurve = (threshold: number, ratio: number, knee: number): StaticCurve => ({
  threshold,
  slope: 1 - 1 / ratio,
  knee,
});

/**
 * The gain that the curve asks for at a level, 0 dB or below: a quadratic within the knee, straight outside.
 * After Giannoulis, Massberg and Reiss, "Digital dynamic range compressor design", JAES 60 (2012), equation 4.
 */
export function gainAt({ threshold, slope, knee }: StaticCurve, level: number): number {
  const over = level - threshold;
  if (2 * over <= -knee) return 0;
  if (2 * over < knee) return (-slope * (over + knee / 2) ** 2) / (2 * knee);
  return -slope * over;
}

/** Automatic make-up gives back half of what the curve takes from full scale. In dB. */
const automaticMakeup = (curve: StaticCurve): number => -gainAt(curve, 0) / 2;

/** The make-up that a compressor adds by itself, in dB; null where it is set by hand. */
export const automaticMakeupOf = (values: HeardValues<"makeupMode">, curve: StaticCurve): number | null =>
  values.makeupMode === 1 ? automaticMakeup(curve) : null;

export const makeupOf = (values: HeardValues<"makeupMode" | "makeup">, curve: StaticCurve): Decibels =>
  decibels(automaticMakeupOf(values, curve) ?? values.makeup);
