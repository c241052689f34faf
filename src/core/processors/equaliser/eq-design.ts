import { type Biquad, responseAt } from "../../dsp/biquad";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { HeardValues, ParamId } from "../../units/param-spec";

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

/** Where a fit begins: the values that differ from how the model opens, and those that may move: all, but for choices. */
export interface FitStart<Id extends ParamId = ParamId> {
  readonly values: Partial<HeardValues<Id>>;
  readonly free?: readonly Id[];
}

/** A cut of one end: where it begins, in Hz, and how steep it is, in dB per octave. */
export interface Cut {
  readonly hz: number;
  readonly slope: number;
}

/** The cuts of both ends; null where there is none. */
export interface Cuts {
  readonly low: Cut | null;
  readonly high: Cut | null;
}

export const NO_CUTS: Cuts = { low: null, high: null };

/** What an equaliser does to the spectrum, from the values that are heard. */
export interface EqDesign<Id extends ParamId = ParamId> {
  bands(values: HeardValues<Id>, sampleRate: number): readonly EqBand[];
  /** The cuts that are set; left out where the model has none. */
  cuts?(values: HeardValues<Id>): Cuts;
  /**
   * Where to begin when it takes on the response of another: `wanted` in dB at each of `FIT_FREQUENCIES`. The cuts of the other
   * stay cuts where they are: those are no part of what is fitted.
   */
  starts(wanted: readonly number[], cuts: Cuts): readonly FitStart<Id>[];
}

/** Of models that call them so: at the end of its range a cut is out of the way. Both are of the second order. */
export const plainCuts = {
  read: ({ lowCut, highCut }: { readonly lowCut: number; readonly highCut: number }): Cuts => ({
    low: lowCut > 20 ? { hz: lowCut, slope: 12 } : null,
    high: highCut < 20_000 ? { hz: highCut, slope: 12 } : null,
  }),
  set: ({ low, high }: Cuts) => ({
    lowCut: low ? Math.min(400, Math.max(20, low.hz)) : 20,
    highCut: high ? Math.min(20_000, Math.max(2000, high.hz)) : 20_000,
  }),
};

const levelOf = (re: number, im: number): number => 10 * Math.log10(Math.max(1e-20, re * re + im * im));

/** Level in dB of some sections at a frequency in Hz. */
export function sectionsLevelAt(sections: readonly Biquad[], freq: number, sampleRate: number): number {
  const { re, im } = responseAt(sections, hertz(freq), sampleRate);
  return levelOf(re, im);
}

/** A function of frequency in Hz that gives dB, with output and mix: the sections are designed once. */
export function levelCurve(design: EqDesign, values: HeardValues, sampleRate: number): (freq: number) => number {
  const sections = design.bands(values, sampleRate).flatMap((band) => band.sections);
  // Not every model has both.
  const { mix: percent = 100, output = 0 } = values;
  const mix = percent / 100;
  const wet = mix * gainOf(decibels(output));
  return (freq) => {
    const { re, im } = responseAt(sections, hertz(freq), sampleRate);
    return levelOf(1 - mix + wet * re, wet * im);
  };
}
