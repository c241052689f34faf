import type { HeardValues, ParamId } from "../../units/param-spec";

/** Something that comes back: when in ms, how loud as a factor, and from where, −100 to 100. */
export interface Return {
  readonly ms: number;
  readonly gain: number;
  readonly pan: number;
}

export interface Returns {
  readonly taps: readonly Return[];
  /** What the feedback makes of them. */
  readonly repeats: readonly Return[];
  /** In ms: as far as the taps reach. */
  readonly reach: number;
}

/** What comes back of a click at 0 ms, as it is drawn. */
export interface DelayDesign<Id extends ParamId = ParamId> {
  returns(values: HeardValues<Id>): Returns;
}

/** A repeat quieter than this is not drawn. */
const FAINTEST = 0.04;
const MOST_REPEATS = 12;

/** The repeats of a return, `every` ms, each `factor` times as loud as the one before. */
export const repeatsOf = (first: Return, every: number, factor: number): readonly Return[] =>
  every <= 0
    ? []
    : Array.from({ length: MOST_REPEATS }, (_, n) => ({
        ...first,
        ms: first.ms + (n + 1) * every,
        gain: first.gain * factor ** (n + 1),
      })).filter((r) => r.gain >= FAINTEST);

/** In seconds: until echoes of a time in ms, fed back by a factor, have come within a tenth of what they will be. */
export function settlingOf(time: number, feedback: number): number {
  const repeats = feedback > 0.01 ? Math.ceil(Math.log(0.1) / Math.log(Math.min(0.98, feedback))) : 0;
  return (time / 1000) * (1 + repeats) + 0.05;
}
