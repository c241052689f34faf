import type { StereoSound } from "../dsp/stereo-sound";

/** A part of a loop that goes round by itself: where it begins and ends, 0 to 1, `from` before `to`. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** In seconds: below this a stretch is a tone of its own. */
const SHORTEST = 0.05;

/** The samples of a stretch, [begin, end), at least the shortest that is a loop and within the sound. */
export function samplesOf({ from, to }: Stretch, length: number, sampleRate: number): readonly [number, number] {
  const least = Math.min(length, Math.ceil(SHORTEST * sampleRate));
  const begin = Math.min(length - least, Math.max(0, Math.round(from * length)));
  return [begin, Math.max(begin + least, Math.min(length, Math.round(to * length)))];
}

/** The stretch by itself. All of it where none is given. */
export function cutStretch(sound: StereoSound, stretch: Stretch | null): StereoSound {
  if (!stretch) return sound;
  const [begin, end] = samplesOf(stretch, sound.left.length, sound.sampleRate);
  return { ...sound, left: sound.left.slice(begin, end), right: sound.right.slice(begin, end) };
}
