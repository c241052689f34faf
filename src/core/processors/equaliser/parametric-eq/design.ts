import * as biquad from "../../../dsp/biquad";
import type { Biquad } from "../../../dsp/biquad";
import { decibels, hertz } from "../../../units/quantities";
import type { HeardValues } from "../../model";
import type { EqDesign } from "../eq-design";
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

/** A cut, a notch and a band pass stand on the middle line: they have no gain. */
export const hasGain = ({ type }: Band): boolean => type in WITH_GAIN;

export const PARAMETRIC_EQ_DESIGN: EqDesign = {
  bands: (values, sampleRate) =>
    bandsOf(values)
      .filter((band) => band.used)
      .map((band) => ({
        key: `band${band.number}`,
        name: `Band ${band.number}`,
        mark: String(band.number),
        on: band.on,
        freq: band.freq,
        gain: hasGain(band) ? band.gain : 0,
        params: {
          freq: bandParam(band.number, "freq"),
          q: bandParam(band.number, "q"),
          ...(hasGain(band) ? { gain: bandParam(band.number, "gain") } : {}),
        },
        sections: bandSections(band, sampleRate),
      })),
};
