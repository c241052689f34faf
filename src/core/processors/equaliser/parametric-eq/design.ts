import * as matched from "../../../dsp/matched";
import { type Biquad, butterworthQs } from "../../../dsp/biquad";
import { decibels, hertz } from "../../../units/quantities";
import type { HeardValues } from "../../../units/param-spec";
import type { Cut, EqDesign } from "../eq-design";
import { peaksOf } from "../fit-points";
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
    band.type === "low cut" ? [matched.highPass, matched.highPassOne] : [matched.lowPass, matched.lowPassOne];
  const freq = hertz(band.freq);
  const qs = butterworthQs(order);
  const sections = qs.map((q, at) => two({ freq, q: at === qs.length - 1 ? (q * band.q) / FLAT_Q : q, sampleRate }));
  return order % 2 ? [...sections, one({ freq, q: FLAT_Q, sampleRate })] : sections;
}

const WITH_GAIN = { bell: matched.bell, "low shelf": matched.lowShelf, "high shelf": matched.highShelf } as const;

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
      return [matched.notch(design)];
    case "band pass":
      return [matched.bandPass(design)];
  }
}

/** A cut, a notch and a band pass stand on the middle line: they have no gain. */
export const hasGain = ({ type }: Band): boolean => type in WITH_GAIN;

type Put = Partial<HeardValues<BandParam>>;

const put = (
  n: BandNumber,
  type: BandType,
  { hz, gain = 0, slope = 12 }: { hz: number; gain?: number; slope?: number },
): Put => ({
  [bandParam(n, "used")]: 1,
  [bandParam(n, "on")]: 1,
  [bandParam(n, "type")]: BAND_TYPES.indexOf(type),
  [bandParam(n, "freq")]: hz,
  [bandParam(n, "gain")]: gain,
  [bandParam(n, "q")]: type === "bell" ? 1 : FLAT_Q,
  [bandParam(n, "slope")]: slope,
});

/** The cuts as they are, a shelf at each end, bells where the curve stands out most: a shelf beside a cut takes the place of a bell. */
const fitStarts: EqDesign<BandParam | "output">["starts"] = (wanted, { low, high }) => {
  const lowShelf = { hz: 120, gain: wanted[2]! };
  const highShelf = { hz: 6000, gain: wanted.at(-6)! };
  const first = low ? put(1, "low cut", low) : put(1, "low shelf", lowShelf);
  const last = high ? put(6, "high cut", high) : put(6, "high shelf", highShelf);
  const free = BANDS.flatMap((n) =>
    (n === 1 && low) || (n === 6 && high) ? [] : (["freq", "gain", "q"] as const).map((what) => bandParam(n, what)),
  );
  const bells = peaksOf(wanted, 4).map(({ hz, gain }, at) => put(BANDS[at + 1]!, "bell", { hz, gain }));
  const shelves = [low ? put(2, "low shelf", lowShelf) : null, high ? put(5, "high shelf", highShelf) : null];
  const starts = [[...bells], [...bells, ...shelves.filter((band) => band !== null)]];
  return (low || high ? starts : starts.slice(0, 1)).map((bands) => ({
    values: Object.assign({}, first, ...bands, last) as Put,
    free: [...free, "output" as const],
  }));
};

/** The steepest of those that are on. */
function cutOf(values: HeardValues<BandParam>, type: "low cut" | "high cut"): Cut | null {
  const cuts = bandsOf(values).filter((band) => band.used && band.on && band.type === type);
  const [steepest] = cuts.toSorted((a, b) => b.slope - a.slope);
  return steepest ? { hz: steepest.freq, slope: steepest.slope } : null;
}

export const PARAMETRIC_EQ_DESIGN: EqDesign<BandParam | "output"> = {
  starts: fitStarts,
  cuts: (values) => ({ low: cutOf(values, "low cut"), high: cutOf(values, "high cut") }),
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
