import type { StereoSound } from "../dsp/render";
import { seededRandom } from "../random";
import { beatsPerMinute } from "../units/quantities";
import { type HeardValues, type Model, heardValues } from "./model";
import type { Values } from "./param-spec";

/** Sounds and settings for the tests of models. */

export const setTo = (model: Model, values: Values): HeardValues => heardValues(model, values, beatsPerMinute(120));

export function stereoOf(length: number, sampleRate: number, sample: (i: number) => number): StereoSound {
  const left = Float32Array.from({ length }, (_, i) => sample(i));
  return { left, right: left.slice(), sampleRate };
}

export const sine = (hz: number, level: number, seconds: number, sampleRate: number): StereoSound =>
  stereoOf(Math.round(seconds * sampleRate), sampleRate, (i) => level * Math.sin((2 * Math.PI * hz * i) / sampleRate));

export function noise(seconds: number, sampleRate: number, seed = 1): StereoSound {
  const random = seededRandom(seed);
  const length = Math.round(seconds * sampleRate);
  const channel = () => Float32Array.from({ length }, () => random() - 0.5);
  return { left: channel(), right: channel(), sampleRate };
}

export const rms = (samples: Float32Array): number =>
  Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);
