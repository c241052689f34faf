/*
 * How many times a sound is resampled where a curve is applied, by how much that delays it, and by which filters: the first
 * doubling, whose slope ends just above what is heard, by a half-band of linear phase; those above by all-passes, whose phase
 * is all but linear so far below. So the sum with the dry sound, or with a lane beside, is flat.
 */

import { kaiser, kaiserBeta, sinc } from "./kaiser";

/** What is heard ends here, in Hz: it passes flat. */
const AUDIBLE = 20_000;
/** What would fold down at the first doubling is turned down by about as much, in dB. */
const REJECTION = 66;
/** Filters are as long as whole groups of taps. */
export const TAPS_AT_ONCE = 4;

/** How often the rate is doubled: gentle curves need the fewer. */
export type Doublings = 2 | 3 | 4;

/** By J. Kaiser's formula for the length of a windowed filter; half of it, and of that every other. */
function lengthAt(sampleRate: number): number {
  const width = (Math.PI * (sampleRate - 2 * AUDIBLE)) / sampleRate;
  const length = ((REJECTION - 8) / (2.285 * width) + 2) / 4;
  return Math.max(1, Math.round(length / TAPS_AT_ONCE)) * TAPS_AT_ONCE;
}

/** Of the first half-band, the taps at odd distances from the middle, from the nearest on; the middle is 1/2, the even ones are 0. */
export function createTaps(sampleRate: number): Float64Array {
  const length = lengthAt(sampleRate);
  const taps = Float64Array.from({ length }, (_, k) => {
    const place = 2 * k + 1;
    return (sinc(place / 2) / 2) * kaiser(place / (2 * length), kaiserBeta(REJECTION));
  });
  const sum = taps.reduce((a, b) => a + b, 0);
  return taps.map((tap) => tap / (4 * sum));
}

/** Samples of the lowest rate that the upper doublings and the mean of a curve take, made whole by `WAITS`. */
const ABOVE = 2;

/** By how many samples of the highest rate the sound waits there. */
export const WAITS: Readonly<Record<Doublings, number>> = { 2: 3, 3: 5, 4: 7 };

/** What going up and coming down delays by, in samples, however often the rate is doubled. */
export const oversamplingDelay = (sampleRate: number): number => 2 * lengthAt(sampleRate) - 1 + ABOVE;

/**
 * By how much the neighbours of a sample are taken off it, at twice the rate, so that the top is not lost: a curve without
 * its aliases gives the mean of two samples of the highest rate, which falls by 0.5 dB to 20 kHz at four times 48.
 */
export function liftAt(sampleRate: number, doublings: Doublings): number {
  const kept = Math.cos((Math.PI * AUDIBLE) / (sampleRate * 2 ** doublings));
  return (1 / kept - 1) / (2 * (1 - Math.cos((Math.PI * AUDIBLE) / sampleRate)));
}
