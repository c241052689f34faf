import { IDENTITY, bandPass } from "../dsp/biquad";
import type { StereoSound } from "../dsp/stereo-sound";
import { seededRandom } from "../random";
import { hertz } from "../units/quantities";
import { type LoopBuffer, createLoopBuffer, finishLoop } from "./loop-buffer";

const SECONDS = 8;

/** The first four resonances of the mouth, in Hz, and how strong each is. */
type Vowel = readonly [number, number, number, number];
const VOWELS: Record<string, Vowel> = {
  a: [730, 1180, 2480, 3400],
  e: [500, 1800, 2520, 3450],
  i: [290, 2200, 2900, 3600],
  o: [480, 880, 2400, 3300],
  u: [320, 760, 2250, 3250],
  m: [250, 1000, 2200, 3000],
};
const STRENGTHS = [1, 0.62, 0.3, 0.16];
const Q = [7, 9, 11, 12];

/** Spoken syllables: start, length, vowel, pitch, breath before it (the hiss of an s or f). */
const SYLLABLES: readonly [at: number, seconds: number, vowel: string, hz: number, hiss: number][] = [
  [0.1, 0.2, "e", 128, 0],
  [0.34, 0.24, "a", 122, 0.6],
  [0.62, 0.18, "i", 118, 0],
  [0.84, 0.3, "o", 112, 0.3],
  [1.2, 0.14, "m", 108, 0],
  [1.36, 0.34, "a", 104, 0],
  [2.1, 0.22, "u", 126, 0.8],
  [2.36, 0.2, "i", 130, 0],
  [2.6, 0.3, "e", 121, 0.4],
  [2.96, 0.16, "a", 114, 0],
  [3.16, 0.4, "o", 98, 0],
  [4.2, 0.18, "a", 132, 0.9],
  [4.42, 0.2, "e", 127, 0],
  [4.66, 0.16, "i", 124, 0.5],
  [4.86, 0.26, "o", 117, 0],
  [5.16, 0.22, "u", 110, 0],
  [5.42, 0.4, "a", 101, 0.3],
  [6.3, 0.2, "i", 122, 0.7],
  [6.54, 0.22, "a", 116, 0],
  [6.8, 0.18, "m", 109, 0],
  [7.0, 0.46, "e", 96, 0],
];

const STEP = 32;

/** One resonance, moved to a new frequency every few samples without losing its ring. */
function createResonance(sampleRate: number, q: number) {
  let section = IDENTITY;
  let [s1, s2] = [0, 0];
  return {
    tune(hz: number) {
      section = bandPass({ freq: hertz(hz), q, sampleRate });
    },
    next(x: number): number {
      const { b0, b1, b2, a1, a2 } = section;
      const y = b0 * x + s1;
      s1 = b1 * x - a1 * y + s2;
      s2 = b2 * x - a2 * y;
      return y;
    },
  };
}

const shape = (t: number, seconds: number): number =>
  t < 0 || t > seconds + 0.08 ? 0 : Math.min(1, t / 0.035) * Math.min(1, (seconds + 0.08 - t) / 0.09);

function speak(buffer: LoopBuffer): void {
  const { sampleRate, length } = buffer;
  const random = seededRandom(20261124);
  const resonances = Q.map((q) => createResonance(sampleRate, q));
  const sibilance = createResonance(sampleRate, 2);
  sibilance.tune(6200);
  const mouth = [...VOWELS.e!];
  let phase = 0;
  let pitch = 120;
  for (let i = 0; i < length; i++) {
    const now = i / sampleRate;
    const spoken = SYLLABLES.find(([at, seconds]) => now >= at - 0.09 && now < at + seconds + 0.08);
    const [at, seconds, vowel, hz, hiss] = spoken ?? [0, 0, "e", 112, 0];
    if (i % STEP === 0) {
      VOWELS[vowel]!.forEach((target, n) => {
        mouth[n]! += (1 - Math.exp(-STEP / (0.03 * sampleRate))) * (target - mouth[n]!);
        resonances[n]!.tune(mouth[n]!);
      });
      pitch += 0.06 * (hz * (1 - 0.05 * Math.max(0, now - at)) - pitch);
    }
    phase = (phase + pitch / sampleRate) % 1;
    const noise = random() * 2 - 1;
    // A glottal pulse: opens over two fifths of the period, closes fast.
    const glottis = phase < 0.4 ? Math.sin((Math.PI * phase) / 0.4) ** 2 : phase < 0.5 ? -4 * (phase - 0.4) : 0;
    const source = spoken ? shape(now - at, seconds) * (glottis - 0.2 + 0.05 * noise) : 0;
    const voice = resonances.reduce((sum, r, n) => sum + STRENGTHS[n]! * r.next(source), 0);
    const breath = hiss * 0.14 * sibilance.next(noise) * shape(now - at + 0.09, 0.05);
    const sample = voice + 0.08 * source + breath + 0.0004 * noise;
    buffer.left[i] = sample;
    buffer.right[i] = sample;
  }
}

/** A voice-like sound that reads aloud, mono, close and dry. No words. */
export function narrator(sampleRate: number): StereoSound {
  const buffer = createLoopBuffer(SECONDS, sampleRate);
  speak(buffer);
  return finishLoop(buffer, 0.5);
}
