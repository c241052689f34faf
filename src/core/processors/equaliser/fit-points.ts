/*
 * Where the responses of two equalisers are compared, and what stands out in a curve there: what a design needs to say
 * where a fit begins.
 */

/** Compared from 30 Hz to 18 kHz, every sixth of an octave: what lies outside is hardly heard and would bend the rest. */
const POINTS = 57;
export const FIT_FREQUENCIES: readonly number[] = Array.from(
  { length: POINTS },
  (_, i) => 30 * (18_000 / 30) ** (i / (POINTS - 1)),
);

/** The curve's own bends: where it stands out most, one after the other, what each explains taken away. */
export function peaksOf(wanted: readonly number[], count: number): readonly { hz: number; gain: number }[] {
  const rest = [...wanted];
  return Array.from({ length: count }, () => {
    const at = rest.reduce((best, dB, i) => (Math.abs(dB) > Math.abs(rest[best]!) ? i : best), 0);
    const gain = rest[at]!;
    // A bell about an octave and a half wide goes with it.
    for (let i = 0; i < rest.length; i++) rest[i]! -= gain * Math.exp(-(((i - at) / 5) ** 2));
    return { hz: FIT_FREQUENCIES[at]!, gain };
  }).toSorted((a, b) => a.hz - b.hz);
}

const octavesApart = (a: number, b: number): number => Math.abs(Math.log2(a / b));

/** The curve at a frequency in Hz: of the point that is nearest. */
export const wantedAt = (wanted: readonly number[], hz: number): number =>
  wanted[
    FIT_FREQUENCIES.reduce(
      (best, f, i) => (octavesApart(f, hz) < octavesApart(FIT_FREQUENCIES[best]!, hz) ? i : best),
      0,
    )
  ]!;
