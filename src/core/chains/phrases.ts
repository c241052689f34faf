import type { BeatsPerMinute } from "../units/quantities";
import type { Phrase, PhraseNote } from "./heard-instrument";

/** Notes as [beat, length in beats, key, velocity]. Two bars of four. */
type Written = readonly (readonly [beat: number, beats: number, key: number, velocity: number])[];

const BEATS = 8;

/** D minor, as most of what is made on the quay. */
const CHORDS: Written = [
  [0, 1.8, 50, 70],
  [0, 1.8, 57, 84],
  [0, 1.8, 62, 92],
  [0, 1.8, 65, 88],
  [2, 0.9, 69, 76],
  [3, 0.9, 67, 68],
  [4, 1.8, 46, 72],
  [4, 1.8, 58, 80],
  [4, 1.8, 62, 90],
  [4, 1.8, 65, 84],
  [6, 0.4, 64, 60],
  [6.5, 0.4, 62, 66],
  [7, 0.9, 60, 74],
];

const BASS: Written = [
  [0, 0.8, 38, 108],
  [1, 0.4, 38, 70],
  [1.5, 0.4, 45, 88],
  [2.5, 0.4, 41, 76],
  [3, 0.8, 43, 92],
  [4, 0.8, 34, 108],
  [5, 0.4, 34, 70],
  [5.5, 0.4, 41, 84],
  [6.5, 0.4, 43, 80],
  [7, 0.8, 45, 96],
];

const LONG: Written = [
  [0, 3.8, 50, 80],
  [0, 3.8, 57, 76],
  [0, 3.8, 65, 82],
  [4, 3.8, 48, 80],
  [4, 3.8, 55, 76],
  [4, 3.8, 64, 82],
];

const MALLETS: Written = [
  [0, 1, 62, 96],
  [0.5, 0.5, 69, 70],
  [1, 0.5, 74, 84],
  [1.5, 1, 72, 92],
  [2.5, 0.5, 69, 66],
  [3, 1, 65, 88],
  [4, 1, 60, 96],
  [4.5, 0.5, 67, 70],
  [5, 0.5, 76, 90],
  [5.5, 1, 74, 84],
  [6.5, 0.5, 72, 62],
  [7, 1, 67, 80],
];

const DRUMS: Written = [
  ...[0, 1, 2, 3, 4, 5, 6, 7].flatMap(
    (beat): Written => [
      [beat, 0.1, 42, 84],
      [beat + 0.5, 0.1, beat % 4 === 3 ? 46 : 42, 58],
    ],
  ),
  [0, 0.2, 36, 116],
  [1.5, 0.2, 36, 84],
  [2, 0.2, 38, 108],
  [4, 0.2, 36, 116],
  [4.75, 0.2, 36, 70],
  [6, 0.2, 38, 112],
  [7, 0.2, 48, 80],
  [7.25, 0.2, 45, 84],
  [7.5, 0.2, 41, 92],
  [0, 0.2, 49, 70],
];

const PHRASES: Readonly<Record<string, Written>> = {
  "electric-piano": CHORDS,
  "bass-synth": BASS,
  "pad-synth": LONG,
  mallets: MALLETS,
  "drum-kit": DRUMS,
  sampler: MALLETS,
};

/** What an instrument plays when nobody does: two bars at a tempo. */
export function phraseFor(model: string, tempo: BeatsPerMinute): Phrase {
  const beat = 60 / tempo;
  const notes = (PHRASES[model] ?? CHORDS).map(
    ([at, beats, note, velocity]): PhraseNote => ({ at: at * beat, seconds: beats * beat, note, velocity }),
  );
  return { seconds: BEATS * beat, notes };
}
