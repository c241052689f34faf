import { heardProcessor } from "../chains/heard-chain";
import { renderChain } from "./render";
import type { StereoSound } from "../dsp/stereo-sound";
import { seededRandom } from "../random";
import { beatsPerMinute } from "../units/quantities";
import { type Model, defaultValues, heardValues } from "../processors/model";
import type { HeardValues, ParamId, Values } from "../units/param-spec";

/** Sounds and settings for the tests of models. */

/** A plugin as it opens, but for some values. */
export const setTo = <Id extends ParamId>(model: Model<Id>, values: Values): HeardValues<Id> =>
  savedWith(model, { ...defaultValues(model), ...values });

/** A plugin as a document has it that says nothing else. */
export const savedWith = <Id extends ParamId>(model: Model<Id>, values: Values): HeardValues<Id> =>
  heardValues(model, values, beatsPerMinute(120));

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

/** What one model makes of a sound. */
export const through = (model: Model, values: Values, sound: StereoSound): StereoSound =>
  renderChain([heardProcessor(model, setTo(model, values))], sound);

/**
 * The part of a sound at one frequency in Hz, over whole samples `from` up to its end, by a direct Fourier sum: nothing
 * shared with any design. `size` is the amplitude of a sine there.
 */
export function partialAt(
  samples: Float32Array,
  freq: number,
  { sampleRate, from = 0 }: { sampleRate: number; from?: number },
) {
  let [re, im] = [0, 0];
  for (let i = from; i < samples.length; i++) {
    re += samples[i]! * Math.cos((2 * Math.PI * freq * i) / sampleRate);
    im -= samples[i]! * Math.sin((2 * Math.PI * freq * i) / sampleRate);
  }
  return { re, im, size: (2 * Math.hypot(re, im)) / (samples.length - from) };
}

export const decibelsOf = (amplitude: number): number => 20 * Math.log10(amplitude);
export const amplitudeOf = (dB: number): number => 10 ** (dB / 20);

/** The response of a model at a frequency in dB, by its impulse. */
export function responseOf(model: Model, values: Values, sampleRate: number): (freq: number) => number {
  const { left } = through(
    model,
    values,
    stereoOf(sampleRate, sampleRate, (i) => (i === 0 ? 1 : 0)),
  );
  return (freq) => {
    const { re, im } = partialAt(left, freq, { sampleRate });
    return 10 * Math.log10(re * re + im * im);
  };
}

/** The largest sample of a sound, whichever its sign. */
export const peakOf = ({ left, right }: StereoSound): number => {
  let peak = 0;
  for (let i = 0; i < left.length; i++) peak = Math.max(peak, Math.abs(left[i]!), Math.abs(right[i]!));
  return peak;
};

/*
 * A meter of true peaks by other means than ours: the signal is read at sixteen times its rate, by a sinc of 128 taps under a Blackman
 * window.
 */
const EXACTLY = 16;
const EXACT_TAPS = 128;

const EXACT_FILTERS = Array.from({ length: EXACTLY }, (_, phase) =>
  Float64Array.from({ length: EXACT_TAPS }, (_, tap) => {
    const x = tap - EXACT_TAPS / 2 + phase / EXACTLY;
    const across = (x + EXACT_TAPS / 2) / EXACT_TAPS;
    const window = 0.42 - 0.5 * Math.cos(2 * Math.PI * across) + 0.08 * Math.cos(4 * Math.PI * across);
    return (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x)) * window;
  }),
);

/** The highest absolute value of the louder channel, between samples too. */
export function exactPeak({ left, right }: StereoSound): number {
  let peak = 0;
  for (const samples of [left, right])
    for (let i = EXACT_TAPS; i < samples.length; i++) {
      let around = 0;
      for (let t = EXACT_TAPS / 2 - 8; t < EXACT_TAPS / 2 + 8; t++)
        around = Math.max(around, Math.abs(samples[i - t]!));
      // Nothing much higher than what is around it stands between.
      if (around * 3 < peak) continue;
      for (const filter of EXACT_FILTERS) {
        let sum = 0;
        for (let t = 0; t < EXACT_TAPS; t++) sum += filter[t]! * samples[i - t]!;
        peak = Math.max(peak, Math.abs(sum));
      }
    }
  return peak;
}
