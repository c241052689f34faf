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
  /** By how many dB more than others it catches of peaks, being quick: what automatic make-up reckons with. */
  readonly catches?: number;
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

/** How make-up is set: by hand, as half of what the curve takes from full scale, or so that it is as loud as before. */
export const MAKEUP_MODES = { byHand: 0, half: 1, automatic: 2 } as const;

/** Peaks of speech, drums, bowed strings and mixes that are leveled for work, in dB below full scale, and how far they spread. */
const PROGRAMME = -10.6;
const SPREAD = 5;

/** What the curve takes from such peaks, by the quadrature of Gauss and Hermite over three points. In dB, 0 or above. */
function takenFrom(curve: StaticCurve): number {
  const peaks = PROGRAMME + (curve.catches ?? 0);
  return -(gainAt(curve, peaks - SPREAD) / 6 + (2 * gainAt(curve, peaks)) / 3 + gainAt(curve, peaks + SPREAD) / 6);
}

/** The make-up that a compressor adds by itself, in dB; null where it is set by hand. */
export function automaticMakeupOf(values: HeardValues<"makeupMode">, curve: StaticCurve): number | null {
  if (values.makeupMode === MAKEUP_MODES.byHand) return null;
  return values.makeupMode === MAKEUP_MODES.half ? -gainAt(curve, 0) / 2 : takenFrom(curve);
}

export const makeupOf = (values: HeardValues<"makeupMode" | "makeup">, curve: StaticCurve): Decibels =>
  decibels(automaticMakeupOf(values, curve) ?? values.makeup);
