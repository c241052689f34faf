import { IDENTITY } from "../../dsp/biquad";
import { bell } from "../../dsp/matched";
import { decibels, hertz } from "../../units/quantities";
import { OUTPUT, effect, gainSpec } from "../specs";
import type { EqDesign } from "./eq-design";
import { wantedAt } from "./fit-points";

/** An octave apart; the nominal centres of ISO 266. */
export const GRAPHIC_CENTRES = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 16_000] as const;

/** A bell whose half-gain points lie an octave apart. */
const OCTAVE_Q = Math.SQRT2;

const nameOf = (hz: number): string => (hz >= 1000 ? `${hz / 1000} kHz` : `${hz} Hz`);

type Centre = (typeof GRAPHIC_CENTRES)[number];
type Id = `gain${Centre}` | "output";

const idOf = <C extends Centre>(hz: C) => `gain${hz}` as const;

/** What a bell of a gain in dB does at so many times its frequency, in dB: its analogue prototype. */
function bellAt(gain: number, x: number): number {
  const a = 10 ** (gain / 40);
  const off = (1 - x * x) ** 2;
  return 10 * Math.log10((off + ((a * x) / OCTAVE_Q) ** 2) / (off + (x / (a * OCTAVE_Q)) ** 2));
}

/** In dB, at each centre, of bells with such gains. */
const levelsOf = (gains: readonly number[]): readonly number[] =>
  GRAPHIC_CENTRES.map((hz) => gains.reduce((sum, gain, at) => sum + bellAt(gain, hz / GRAPHIC_CENTRES[at]!), 0));

/** The inverse of what a dB in each band does at each centre, by elimination. */
const APART = inverse(GRAPHIC_CENTRES.map((hz) => GRAPHIC_CENTRES.map((centre) => bellAt(1, hz / centre))));

function inverse(matrix: readonly (readonly number[])[]): readonly (readonly number[])[] {
  const rows = matrix.map((row, at) => [...row, ...row.map((_, other) => (other === at ? 1 : 0))]);
  rows.forEach((pivot, column) => {
    const size = pivot[column]!;
    for (let c = 0; c < pivot.length; c++) pivot[c]! /= size;
    for (const row of rows) {
      const factor = row[column]!;
      if (row !== pivot) for (let c = 0; c < row.length; c++) row[c]! -= factor * pivot[c]!;
    }
  });
  return rows.map((row) => row.slice(matrix.length));
}

const TURNS = 6;
/** In dB: so near is good enough. */
const NEAR = 0.02;

/**
 * The gains of bells that add up to the sliders: bells an octave apart reach into each other, so each is set for what its
 * neighbours leave. After J. Abel and D. Berners, "Filter design using second-order peaking and shelving sections" (2004),
 * by Newton's method.
 */
export function gainsFor(sliders: readonly number[]): readonly number[] {
  let gains = sliders.map(() => 0);
  for (let turn = 0; turn < TURNS; turn++) {
    const levels = levelsOf(gains);
    const missing = sliders.map((slider, at) => slider - levels[at]!);
    if (missing.every((dB) => Math.abs(dB) < NEAR)) break;
    gains = gains.map((gain, at) => gain + APART[at]!.reduce((sum, share, other) => sum + share * missing[other]!, 0));
  }
  return gains;
}

export const GRAPHIC_EQ_DESIGN: EqDesign<Id> = {
  bands(values, sampleRate) {
    const sliders = GRAPHIC_CENTRES.map((freq) => values[idOf(freq)]);
    const gains = gainsFor(sliders);
    return GRAPHIC_CENTRES.map((freq, at) => ({
      key: idOf(freq),
      name: nameOf(freq),
      mark: freq >= 1000 ? `${freq / 1000}k` : String(Math.round(freq)),
      on: true,
      freq,
      gain: sliders[at]!,
      params: { gain: idOf(freq) },
      sections: [
        gains[at] === 0 ? IDENTITY : bell({ freq: hertz(freq), q: OCTAVE_Q, sampleRate }, decibels(gains[at]!)),
      ],
    }));
  },
  starts: (wanted) => [{ values: Object.fromEntries(GRAPHIC_CENTRES.map((hz) => [idOf(hz), wantedAt(wanted, hz)])) }],
};

export const GRAPHIC_EQ = effect("equaliser", "graphic-eq", "Graphic EQ", {
  params: [
    ...GRAPHIC_CENTRES.map((hz) =>
      gainSpec(idOf(hz), nameOf(hz), [-12, 12, 0], { group: hz < 1000 ? "Lower bands" : "Upper bands" }),
    ),
    OUTPUT,
  ],
  lead: "output",
  design: GRAPHIC_EQ_DESIGN,
});
