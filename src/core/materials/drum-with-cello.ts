import type { StereoSound } from "../dsp/stereo-sound";
import { seededRandom } from "../random";
import { type LoopBuffer, addVoice, createLoopBuffer, finishLoop } from "./loop-buffer";

const SECONDS = 8;

/** Zeros of the Bessel functions, relative to the first: the modes of a round membrane. */
const MEMBRANE = [1, 1.593, 2.136, 2.295, 2.653, 2.917, 3.598];

/** When, how hard, and whether near the rim, where the low modes stay quiet. */
const HITS: readonly [at: number, force: number, rim: boolean][] = [
  [0, 1, false],
  [0.75, 0.4, true],
  [1, 0.55, true],
  [1.5, 0.8, false],
  [2, 0.35, true],
  [2.5, 0.6, true],
  [2.75, 0.3, true],
  [3, 0.9, false],
  [3.75, 0.45, true],
  [4, 1, false],
  [4.75, 0.4, true],
  [5.25, 0.6, true],
  [5.5, 0.8, false],
  [6, 0.35, true],
  [6.5, 0.65, true],
  [7, 0.95, false],
  [7.25, 0.5, true],
  [7.625, 0.4, true],
];

function addHit(buffer: LoopBuffer, [at, force, rim]: (typeof HITS)[number]): void {
  const random = seededRandom(Math.round(at * 1000) + 7);
  const base = 78;
  const strengths = MEMBRANE.map((_, mode) => force * (rim ? 0.15 + 0.16 * mode : 1 / (1 + mode * 0.9)));
  const fades = MEMBRANE.map((_, mode) => Math.exp((-(rim ? 11 : 4.5) * (1 + mode * 0.85)) / buffer.sampleRate));
  let noise = 0;
  addVoice(buffer, { at, seconds: 1.1, left: 0.62, right: 0.78 }, (t) => {
    const phase = 2 * Math.PI * base * (1 + 0.06 * Math.exp(-t * 28) * force) * t;
    let body = 0;
    for (let mode = 0; mode < MEMBRANE.length; mode++) {
      body += strengths[mode]! * Math.sin(MEMBRANE[mode]! * phase + mode);
      strengths[mode]! *= fades[mode]!;
    }
    noise += 0.35 * (random() * 2 - 1 - noise);
    return (body + force * (rim ? 0.9 : 0.45) * noise * Math.exp(-t * 70)) * Math.min(1, t * 900);
  });
}

/** Midi note, start and length in seconds: a slow line in D. */
const LINE: readonly [note: number, at: number, seconds: number][] = [
  [38, 0, 2.1],
  [45, 2, 1.6],
  [41, 3.5, 0.9],
  [43, 4.25, 1.9],
  [45, 6, 1.1],
  [40, 7, 1.15],
];

/** Peaks of the body, with the nasal one near 1 kHz that an engineer wants out: Hz, height, width in octaves. */
const BODY: readonly [hz: number, height: number, octaves: number][] = [
  [110, 1.2, 0.6],
  [220, 1.4, 0.5],
  [420, 0.9, 0.6],
  [980, 2.4, 0.3],
  [2300, 0.7, 0.7],
];

const bodyAt = (hz: number): number =>
  BODY.reduce(
    (sum, [peak, height, octaves]) => sum + height * Math.exp(-((Math.log2(hz / peak) / octaves) ** 2)),
    0.25,
  );

/** Σ levels[k]·sin((k+1)·phase), by the recurrence sin(n+1)φ = 2·cosφ·sin(nφ) − sin(n−1)φ. */
function harmonicSum(levels: readonly number[], phase: number): number {
  const twice = 2 * Math.cos(phase);
  let before = 0;
  let sine = Math.sin(phase);
  let sum = 0;
  for (const level of levels) {
    sum += level * sine;
    const next = twice * sine - before;
    before = sine;
    sine = next;
  }
  return sum;
}

function addNote(buffer: LoopBuffer, [note, at, seconds]: (typeof LINE)[number]): void {
  const hz = 440 * 2 ** ((note - 69) / 12);
  const random = seededRandom(note * 31);
  const levels = Array.from({ length: 36 }, (_, k) => bodyAt(hz * (k + 1)) / (k + 1) ** 1.05);
  let rosin = 0;
  addVoice(buffer, { at, seconds: seconds + 0.25, left: 0.82, right: 0.55 }, (t) => {
    const vibrato = 0.0045 * Math.min(1, t * 1.6) * Math.sin(2 * Math.PI * 5.1 * t);
    const phase = 2 * Math.PI * hz * (t + vibrato / (2 * Math.PI * 5.1));
    const swell = Math.min(1, t / 0.14) * Math.min(1, Math.max(0, (seconds + 0.25 - t) / 0.3));
    const bow = 0.85 + 0.15 * Math.sin(2 * Math.PI * 0.7 * t);
    const tone = harmonicSum(levels, phase);
    rosin += 0.5 * (random() * 2 - 1 - rosin);
    return 0.42 * swell * bow * (tone + 0.18 * rosin);
  });
}

/** A frame drum, right of the centre, with a bowed cello, left of it. */
export function drumWithCello(sampleRate: number): StereoSound {
  const buffer = createLoopBuffer(SECONDS, sampleRate);
  for (const hit of HITS) addHit(buffer, hit);
  for (const note of LINE) addNote(buffer, note);
  return finishLoop(buffer, 0.5);
}
