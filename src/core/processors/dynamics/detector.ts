import { choiceSpec } from "../specs";

/** What the level that a curve is asked with is taken from. */
const EACH_WAVE = 0;
const HELD_PEAKS = 1;

/**
 * Held peaks meet the curve as it is drawn; a detector that follows each wave falls between crests and turns a tone down by
 * less. Where a document does not say, it was saved when there was only the latter, and its thresholds were set by it.
 */
export const HEARS = choiceSpec("hears", "Detector", ["Each wave", "Held peaks"], {
  start: HELD_PEAKS,
  absent: EACH_WAVE,
});

export const holdsPeaks = ({ hears }: { readonly hears: number }): boolean => hears === HELD_PEAKS;
