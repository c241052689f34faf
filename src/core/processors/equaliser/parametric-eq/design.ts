import * as biquad from "../../../dsp/biquad";
import type { Biquad } from "../../../dsp/biquad";
import { decibels, gainOf, hertz } from "../../../units/quantities";
import type { HeardValues } from "../../model";
import { BANDS, BAND_TYPES, type BandNumber, type BandType, bandParam } from "./model";

/** A cut of 48 dB per octave needs four; every band has as many, so that nothing is allocated on a change. */
export const SECTIONS_PER_BAND = 4;

export interface Band {
  readonly number: BandNumber;
  readonly used: boolean;
  readonly on: boolean;
  readonly type: BandType;
  readonly freq: number;
  readonly gain: number;
  readonly q: number;
  readonly slope: number;
}

export function bandOf(values: HeardValues, number: BandNumber): Band {
  const read = (what: Parameters<typeof bandParam>[1]) => values[bandParam(number, what)] ?? 0;
  return {
    number,
    used: read("used") === 1,
    on: read("on") === 1,
    type: BAND_TYPES[read("type")] ?? "bell",
    freq: read("freq"),
    gain: read("gain"),
    q: read("q"),
    slope: read("slope"),
  };
}

export const bandsOf = (values: HeardValues): readonly Band[] => BANDS.map((n) => bandOf(values, n));

/** The Q at which a section of the second order is maximally flat. */
const FLAT_Q = Math.SQRT1_2;

/**
 * A cut is a Butterworth filter of slope ÷ 6 orders. Its Q, where it is not flat, makes the last section more or less
 * resonant and leaves the slope as it is.
 */
function cut(band: Band, sampleRate: number): Biquad[] {
  const order = Math.round(band.slope / 6);
  const [two, one] =
    band.type === "low cut" ? [biquad.highPass, biquad.highPassOne] : [biquad.lowPass, biquad.lowPassOne];
  const freq = hertz(band.freq);
  const qs = biquad.butterworthQs(order);
  const sections = qs.map((q, at) => two({ freq, q: at === qs.length - 1 ? (q * band.q) / FLAT_Q : q, sampleRate }));
  return order % 2 ? [...sections, one({ freq, q: FLAT_Q, sampleRate })] : sections;
}

const WITH_GAIN = { bell: biquad.bell, "low shelf": biquad.lowShelf, "high shelf": biquad.highShelf } as const;

/** The sections of one band in series, none where it does nothing. */
export function bandSections(band: Band, sampleRate: number): Biquad[] {
  if (!band.used || !band.on) return [];
  const design = { freq: hertz(band.freq), q: band.q, sampleRate };
  const gain = decibels(band.gain);
  switch (band.type) {
    case "bell":
    case "low shelf":
    case "high shelf":
      return gain === 0 ? [] : [WITH_GAIN[band.type](design, gain)];
    case "low cut":
    case "high cut":
      return cut(band, sampleRate);
    case "notch":
      return [biquad.notch(design)];
    case "band pass":
      return [biquad.bandPass(design)];
  }
}

/** Level in dB at a frequency in Hz: of one band, or of the whole plugin with output and mix. */
export function bandLevelAt(band: Band, freq: number, sampleRate: number): number {
  const { re, im } = biquad.responseAt(bandSections(band, sampleRate), hertz(freq), sampleRate);
  return 10 * Math.log10(Math.max(1e-20, re * re + im * im));
}

/** A function of frequency in Hz that gives dB: the sections are designed once. */
export function levelCurve(values: HeardValues, sampleRate: number): (freq: number) => number {
  const sections = bandsOf(values).flatMap((band) => bandSections(band, sampleRate));
  const wet = ((values.mix ?? 100) / 100) * gainOf(decibels(values.output ?? 0));
  const dry = 1 - (values.mix ?? 100) / 100;
  return (freq) => {
    const { re, im } = biquad.responseAt(sections, hertz(freq), sampleRate);
    const [r, i] = [dry + wet * re, wet * im];
    return 10 * Math.log10(Math.max(1e-20, r * r + i * i));
  };
}
