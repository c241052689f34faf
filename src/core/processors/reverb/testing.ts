import { getModel } from "../models";
import type { Values } from "../../units/param-spec";
import { stereoOf, through } from "../../sound/testing";
import type { SpaceName } from "./reverb";

/** Laws of a space, read off its impulse response alone. */

/** Only the tail and its first reflections, at once. */
export const wetOnly = (values: Values): Values => ({ dry: -60, wet: 0, predelay: 0, lowCut: 20, ...values });

export function impulseResponse(space: SpaceName, values: Values, seconds: number, sampleRate: number) {
  const impulse = stereoOf(Math.round(seconds * sampleRate), sampleRate, (i) => (i === 0 ? 1 : 0));
  const silence = new Float32Array(impulse.left.length);
  return through(getModel(space), wetOnly(values), { ...impulse, right: silence });
}

/** A share of a Gaussian noise beyond its standard deviation. */
const BEYOND = 0.3173;

/**
 * How dense the echoes are around a moment, 1 where they are as those of Gaussian noise: the share of samples beyond the standard
 * deviation, in a Hann window of 20 ms. J. S. Abel and P. Huang, "A simple, robust measure of reverberation echo density", AES 121 (2006).
 */
export function echoDensity(samples: Float32Array, seconds: number, sampleRate: number): number {
  const half = Math.round(0.01 * sampleRate);
  const middle = Math.round(seconds * sampleRate);
  const weights: number[] = [];
  const values: number[] = [];
  for (let i = Math.max(0, middle - half); i < middle + half; i++) {
    weights.push(0.5 + 0.5 * Math.cos((Math.PI * (i - middle)) / half));
    values.push(samples[i] ?? 0);
  }
  const weight = weights.reduce((a, b) => a + b, 0);
  const deviation = Math.sqrt(values.reduce((sum, x, i) => sum + weights[i]! * x * x, 0) / weight);
  const beyond = values.reduce((sum, x, i) => sum + (Math.abs(x) > deviation ? weights[i]! : 0), 0);
  return beyond / weight / BEYOND;
}

/** By how many dB the highest sample of 50 ms stands over the one that so many of Gaussian noise would have. `fall`: dB a second. */
export function peaksOverGaussian(samples: Float32Array, seconds: number, sampleRate: number, fall: number): number {
  const from = Math.round(seconds * sampleRate);
  const count = Math.round(0.05 * sampleRate);
  let [most, sum] = [0, 0];
  for (let i = 0; i < count; i++) {
    const x = (samples[from + i] ?? 0) * 10 ** ((fall * i) / sampleRate / 20);
    most = Math.max(most, Math.abs(x));
    sum += x * x;
  }
  return 20 * Math.log10(most / Math.sqrt(sum / count) / Math.sqrt(2 * Math.log(count)));
}

/** The power of each frequency of a stretch whose length is a power of two: the transform of J. W. Cooley and J. W. Tukey (1965). */
function powers(samples: Float64Array): Float64Array {
  const transform = (re: Float64Array, im: Float64Array): void => {
    const half = re.length / 2;
    if (half < 1) return;
    const [evenRe, oddRe] = [0, 1].map((o) => Float64Array.from({ length: half }, (_, i) => re[2 * i + o]!));
    const [evenIm, oddIm] = [0, 1].map((o) => Float64Array.from({ length: half }, (_, i) => im[2 * i + o]!));
    transform(evenRe!, evenIm!);
    transform(oddRe!, oddIm!);
    for (let k = 0; k < half; k++) {
      const [cos, sin] = [Math.cos((Math.PI * k) / half), -Math.sin((Math.PI * k) / half)];
      const turnedRe = oddRe![k]! * cos - oddIm![k]! * sin;
      const turnedIm = oddRe![k]! * sin + oddIm![k]! * cos;
      re[k] = evenRe![k]! + turnedRe;
      im[k] = evenIm![k]! + turnedIm;
      re[k + half] = evenRe![k]! - turnedRe;
      im[k + half] = evenIm![k]! - turnedIm;
    }
  };
  const re = Float64Array.from(samples);
  const im = new Float64Array(samples.length);
  transform(re, im);
  return re.map((x, i) => x * x + im[i]! ** 2);
}

/**
 * By how many dB the loudest tone of a third of a second stands over the one that Gaussian noise would have, from 125 Hz to
 * 8 kHz: a tail that rings has tones of its own. `fall`: dB a second.
 */
export function tonesOverGaussian(samples: Float32Array, seconds: number, sampleRate: number, fall: number): number {
  const count = 2 ** Math.round(Math.log2(0.34 * sampleRate));
  const from = Math.round(seconds * sampleRate);
  const stretch = Float64Array.from(
    { length: count },
    (_, i) =>
      samples[from + i]! * 10 ** ((fall * i) / sampleRate / 20) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / count)),
  );
  const bin = (hz: number) => Math.round((hz * count) / sampleRate);
  const heard = powers(stretch).subarray(bin(125), bin(8000));
  const mean = heard.reduce((a, b) => a + b, 0) / heard.length;
  return 10 * Math.log10(heard.reduce((a, b) => Math.max(a, b), 0) / mean / Math.log(heard.length));
}
