import type { StereoSound } from "../dsp/stereo-sound";

/** A loop under construction: what rings past its end comes round to its start. */
export interface LoopBuffer {
  readonly sampleRate: number;
  readonly length: number;
  readonly left: Float64Array;
  readonly right: Float64Array;
}

export function createLoopBuffer(seconds: number, sampleRate: number): LoopBuffer {
  const length = Math.round(seconds * sampleRate);
  return { sampleRate, length, left: new Float64Array(length), right: new Float64Array(length) };
}

export interface Placing {
  /** In seconds from the start of the loop. */
  readonly at: number;
  readonly seconds: number;
  readonly left: number;
  readonly right: number;
}

/** Adds a voice, asked for each sample by its time since the voice began, in seconds. */
export function addVoice(
  buffer: LoopBuffer,
  { at, seconds, left, right }: Placing,
  voice: (t: number) => number,
): void {
  const begin = Math.round(at * buffer.sampleRate);
  const count = Math.round(seconds * buffer.sampleRate);
  for (let n = 0; n < count; n++) {
    const sample = voice(n / buffer.sampleRate);
    const i = (begin + n) % buffer.length;
    buffer.left[i]! += left * sample;
    buffer.right[i]! += right * sample;
  }
}

/** Scaled so that the highest sample stands at `peak`. */
export function finishLoop({ left, right, sampleRate }: LoopBuffer, peak: number): StereoSound {
  let highest = 1e-9;
  for (let i = 0; i < left.length; i++) highest = Math.max(highest, Math.abs(left[i]!), Math.abs(right[i]!));
  const scale = peak / highest;
  return {
    left: Float32Array.from(left, (x) => x * scale),
    right: Float32Array.from(right, (x) => x * scale),
    sampleRate,
  };
}
