import { decibels, gainOf } from "../units/quantities";

/**
 * Amplitude factors that bring every loudness down to that of the quietest: matching only lowers, so it never clips.
 * Silence is left as it is and lowers nothing.
 */
export function matchingGains<K extends string>(loudness: Readonly<Record<K, number>>): Record<K, number> {
  const entries = Object.entries<number>(loudness) as [K, number][];
  const audible = entries.map(([, level]) => level).filter(Number.isFinite);
  const quietest = Math.min(...audible);
  return Object.fromEntries(
    entries.map(([key, level]) => [key, Number.isFinite(level) ? gainOf(decibels(quietest - level)) : 1]),
  ) as Record<K, number>;
}
