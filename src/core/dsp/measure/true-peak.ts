import { decibelsOf } from "../../units/quantities";
import { BETWEEN_TAPS, BetweenReader, MOST_BETWEEN } from "../between";
import type { StereoSound } from "../stereo-sound";

/* True peak after ITU-R BS.1770-4, Annex 2: the highest absolute value of the signal at four times its rate, by `between.ts`. */

/** Stretches that cannot hold the peak are passed over. */
const STRETCH = 64;

function highest(samples: Float64Array, from: number, to: number): number {
  let peak = 0;
  for (let i = Math.max(0, from); i < Math.min(samples.length, to); i++) peak = Math.max(peak, Math.abs(samples[i]!));
  return peak;
}

function peakOf(samples: Float32Array): number {
  const padded = new Float64Array(samples.length + 2 * BETWEEN_TAPS);
  padded.set(samples, BETWEEN_TAPS);
  const reader = new BetweenReader();
  let peak = highest(padded, 0, padded.length);
  for (let from = BETWEEN_TAPS; from < padded.length; from += STRETCH) {
    const to = Math.min(padded.length, from + STRETCH);
    if (highest(padded, from - BETWEEN_TAPS, to) * MOST_BETWEEN <= peak) {
      reader.skip(padded, to - 1);
      continue;
    }
    for (let i = from; i < to; i++) peak = Math.max(peak, reader.peak(padded, i));
  }
  return peak;
}

/** The true peak of the louder channel in dBTP; −∞ for silence. */
export const truePeak = ({ left, right }: StereoSound): number => decibelsOf(Math.max(peakOf(left), peakOf(right)));
