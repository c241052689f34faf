import type { StereoSound } from "../dsp/stereo-sound";

/** A sound as it is drawn: for each column the highest and the lowest sample of both channels, −1 to 1. */
export interface Outline {
  readonly high: readonly number[];
  readonly low: readonly number[];
}

/** Drawn on a few hundred pixels: three figures are finer than a hairline. */
const rounded = (sample: number): number => Math.round(sample * 1000) / 1000;

/** Draws around a sound in so many columns of equal length. The silence that a column too short for a sample would be is 0. */
export function outlineOf({ left, right }: Pick<StereoSound, "left" | "right">, columns: number): Outline {
  const [high, low]: [number[], number[]] = [[], []];
  for (let column = 0; column < columns; column++) {
    const [begin, end] = [column, column + 1].map((c) => Math.floor((c * left.length) / columns)) as [number, number];
    let [highest, lowest] = [0, 0];
    for (let i = begin; i < end; i++) {
      highest = Math.max(highest, left[i]!, right[i]!);
      lowest = Math.min(lowest, left[i]!, right[i]!);
    }
    high.push(rounded(highest));
    low.push(rounded(lowest));
  }
  return { high, low };
}

/** How many columns the picture of a loop has: one for each pixel or two of the listening bar. */
export const LOOP_COLUMNS = 240;

/** A loop as it is shown, and how long it is. */
export interface LoopPicture {
  readonly outline: Outline;
  readonly seconds: number;
}

export const pictureOf = (sound: StereoSound): LoopPicture => ({
  outline: outlineOf(sound, LOOP_COLUMNS),
  seconds: sound.left.length / sound.sampleRate,
});
