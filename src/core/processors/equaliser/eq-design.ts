import { type Biquad, responseAt } from "../../dsp/biquad";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { HeardValues } from "../model";
import type { ParamId } from "../../units/param-spec";

/** A band as it is drawn and pulled: where it stands, and which values move it. */
export interface EqBand {
  readonly key: string;
  readonly name: string;
  /** One or two letters for its handle. */
  readonly mark: string;
  readonly on: boolean;
  /** In Hz and dB: where its handle stands. */
  readonly freq: number;
  readonly gain: number;
  readonly params: { readonly freq?: ParamId; readonly gain?: ParamId; readonly q?: ParamId };
  readonly sections: readonly Biquad[];
}

/** What an equaliser does to the spectrum, from the values that are heard. */
export interface EqDesign {
  readonly bands: (values: HeardValues, sampleRate: number) => readonly EqBand[];
}

const levelOf = (re: number, im: number): number => 10 * Math.log10(Math.max(1e-20, re * re + im * im));

/** Level in dB of some sections at a frequency in Hz. */
export function sectionsLevelAt(sections: readonly Biquad[], freq: number, sampleRate: number): number {
  const { re, im } = responseAt(sections, hertz(freq), sampleRate);
  return levelOf(re, im);
}

/** A function of frequency in Hz that gives dB, with output and mix: the sections are designed once. */
export function levelCurve(design: EqDesign, values: HeardValues, sampleRate: number): (freq: number) => number {
  const sections = design.bands(values, sampleRate).flatMap((band) => band.sections);
  const mix = (values.mix ?? 100) / 100;
  const wet = mix * gainOf(decibels(values.output ?? 0));
  return (freq) => {
    const { re, im } = responseAt(sections, hertz(freq), sampleRate);
    return levelOf(1 - mix + wet * re, wet * im);
  };
}
