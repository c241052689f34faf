import { type Decibels, decibels } from "../../../units/quantities";
import type { HeardValues } from "../../model";

export interface StaticCurve {
  readonly threshold: number;
  /** How much of each dB above the threshold is taken away: 1 − 1/ratio. */
  readonly slope: number;
  readonly knee: number;
}

export const staticCurve = (values: HeardValues): StaticCurve => ({
  threshold: values.threshold ?? 0,
  slope: 1 - 1 / (values.ratio ?? 1),
  knee: values.knee ?? 0,
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

/** Automatic make-up gives back half of what the curve takes from full scale. */
const AUTOMATIC_SHARE = 0.5;

export const makeupOf = (values: HeardValues): Decibels =>
  decibels(values.makeupMode === 1 ? -gainAt(staticCurve(values), 0) * AUTOMATIC_SHARE : (values.makeup ?? 0));

/** A time is that in which the reduction covers 1 − 1/e, 63 %, of the way to where it is going. */
export const smoothing = (time: number, sampleRate: number): number => Math.exp(-1000 / (time * sampleRate));
