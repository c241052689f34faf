import * as biquad from "../../../dsp/biquad";
import type { Biquad } from "../../../dsp/biquad";
import { decibels, hertz } from "../../../units/quantities";
import type { HeardValues } from "../../../units/param-spec";
import type { EqDesign } from "../eq-design";
import { fallsAt, peaksOf } from "../fit-points";
import { BANDS, BAND_TYPES, type BandNumber, type BandParam, type BandType, type BandWhat, bandParam } from "./bands";

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

export function bandOf(values: HeardValues<BandParam>, number: BandNumber): Band {
  const read = (what: BandWhat) => values[bandParam(number, what)];
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

export const bandsOf = (values: HeardValues<BandParam>): readonly Band[] => BANDS.map((n) => bandOf(values, n));

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

/** Cuts or shelves at the ends, bells where the curve stands out most. */
const fitStarts: EqDesign<BandParam | "output">["starts"] = (wanted) => {
  const ends = (["low", "high"] as const).map((end) =>
    fallsAt(wanted, end) ? ([`${end} cut`, `${end} shelf`] as const) : ([`${end} shelf`] as const),
  );
  return ends[0]!.flatMap((low) =>
    ends[1]!.map((high) => {
      const put = (n: BandNumber, type: BandType, hz: number, gain: number): Partial<HeardValues<BandParam>> => ({
        [bandParam(n, "used")]: 1,
        [bandParam(n, "on")]: 1,
        [bandParam(n, "type")]: BAND_TYPES.indexOf(type),
        [bandParam(n, "freq")]: hz,
        [bandParam(n, "gain")]: gain,
        [bandParam(n, "q")]: type === "bell" ? 1 : FLAT_Q,
        [bandParam(n, "slope")]: 12,
      });
      const bells = peaksOf(wanted, 4);
      const isCut = (n: BandNumber) => (n === 1 && low === "low cut") || (n === 6 && high === "high cut");
      const free = BANDS.flatMap((n) =>
        (isCut(n) ? (["freq", "q"] as const) : (["freq", "gain", "q"] as const)).map((what) => bandParam(n, what)),
      );
      return {
        values: {
          ...put(1, low, low === "low cut" ? 50 : 120, wanted[0]!),
          ...bells.reduce<Partial<HeardValues<BandParam>>>(
            (all, { hz, gain }, at) => ({ ...all, ...put(BANDS[at + 1]!, "bell", hz, gain) }),
            {},
          ),
          ...put(6, high, high === "high cut" ? 12_000 : 6000, wanted.at(-1)!),
        },
        free: [...free, "output" as const],
      };
    }),
  );
};

export const PARAMETRIC_EQ_DESIGN: EqDesign<BandParam | "output"> = {
  starts: fitStarts,
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
