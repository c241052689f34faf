/*
 * What the kernels of the dynamics have in common: how a reduction, in dB and 0 or below, follows what is asked for.
 */

export const DECIBELS_PER_NEPER = 20 / Math.LN10;
const NEPERS_PER_DECIBEL = Math.LN10 / 20;

/** A reduction smaller than this, in dB, is none; it also keeps a long release from running into denormals. */
const NO_REDUCTION = 1e-6;

/** A time in ms is that in which the reduction covers 1 − 1/e, 63 %, of the way to where it is going. */
export const smoothing = (time: number, sampleRate: number): number => Math.exp(-1000 / (time * sampleRate));

/** None where it is too small to be one. */
export const held = (reduction: number): number => (reduction > -NO_REDUCTION ? 0 : reduction);

/**
 * The reduction a sample later, in dB: one branch for attack, one for release, both as `smoothing` gives them. After
 * Giannoulis, Massberg and Reiss, "Digital dynamic range compressor design", JAES 60 (2012): the smooth branching
 * detector in the log domain.
 */
export const followed = (now: number, asked: number, attack: number, release: number): number =>
  held(asked + (asked < now ? attack : release) * (now - asked));

/** The factor that a reduction is. */
export const factorOf = (reduction: number): number => (reduction === 0 ? 1 : Math.exp(reduction * NEPERS_PER_DECIBEL));
