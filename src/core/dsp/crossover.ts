import type { Biquad } from "./biquad";

/*
 * Crossovers after S. Linkwitz and R. Riley, "Active crossover networks for noncoincident drivers", JAES 24 (1976): of
 * the fourth order, each half two Butterworth sections in a row.
 */

export const twice = (section: Biquad): readonly Biquad[] => [section, section];

/** What both halves add up to, from the low section of the Butterworth pair: an all-pass of the second order. */
export const crossoverAllPass = ({ a1, a2 }: Biquad): Biquad => ({ b0: a2, b1: a1, b2: 1, a1, a2 });
