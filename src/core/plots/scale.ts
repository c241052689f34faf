import type { Model } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { type Box, FREQUENCY_LINES, frequencyX, gainY } from "./axes";
import { delaySpan, delayX } from "./delay";
import { dynamicsX, dynamicsY } from "./dynamics";
import { eqBands, eqMarks, eqRange } from "./equaliser";
import { NOTE_SPAN, noteX } from "./instrument";
import type { Mark } from "./mark";
import { motionSpan } from "./modulation";
import { drawShape } from "./plot";
import { DECAY_LINES, decayY } from "./reverb";

/** A line to read a plot by: across it at a height, or down it, in the box of the plot. `label` is "" where it goes without. */
export interface ScaleLine {
  readonly way: "across" | "down";
  readonly at: number;
  readonly label: string;
}

const across = (at: number, label: string): ScaleLine => ({ way: "across", at, label });
const down = (at: number, label: string): ScaleLine => ({ way: "down", at, label });

const LABELLED: Readonly<Record<number, string>> = { 100: "100", 1000: "1k", 10_000: "10k Hz" };

const frequencies = (box: Box): readonly ScaleLine[] =>
  FREQUENCY_LINES.map((hz) => down(frequencyX(hz, box), LABELLED[hz] ?? ""));

const signed = (dB: number): string => (dB === 0 ? "0 dB" : `${dB < 0 ? "\u2212" : "+"}${Math.abs(dB)}`);

/** How far an equaliser is drawn, ± dB: as far as its bands go. */
const eqRangeOf = (model: Model, values: HeardValues): number =>
  eqRange(eqBands(model, values).map(({ gain }) => gain));

function gains(model: Model, values: HeardValues, box: Box): readonly ScaleLine[] {
  const range = eqRangeOf(model, values);
  const step = range > 20 ? 12 : 6;
  return [-2, -1, 0, 1, 2].map((n) => across(gainY(n * step, range, box), signed(n * step)));
}

/** Time from left to right, in four steps. */
const times = (span: number, x: (t: number) => number, label: (t: number) => string): readonly ScaleLine[] =>
  [0.25, 0.5, 0.75].map((share) => down(x(span * share), label(span * share)));

const seconds = (s: number): string => (s < 1 ? `${Math.round(s * 1000)} ms` : `${Number(s.toFixed(2))} s`);

type Scale = (model: Model, values: HeardValues, box: Box) => readonly ScaleLine[];

const SCALES: Record<Model["family"], Scale> = {
  equaliser: (model, values, box) => [...frequencies(box), ...gains(model, values, box)],
  dynamics: (_, __, box) =>
    [-50, -40, -30, -20, -10].flatMap((dB) => {
      const label = dB === -40 || dB === -20 ? `${signed(dB)} dB` : "";
      return [down(dynamicsX(dB, box), label), across(dynamicsY(dB, box), label)];
    }),
  // A sample that goes in against one that comes out, and levels of harmonics: shapes to be compared, not read off.
  saturation: () => [],
  modulation: (model, values, box) => {
    const span = motionSpan(model, values);
    return times(span, (t) => (t / span) * box.width, seconds);
  },
  delay: (model, values, box) => {
    const span = delaySpan(model, values);
    return times(
      span,
      (t) => delayX(t, span, box),
      (t) => seconds(t / 1000),
    );
  },
  reverb: (_, __, box) => [
    ...frequencies(box),
    ...DECAY_LINES.map((s) => across(decayY(s, box), s === 0.5 || s === 2 || s === 10 ? `${s} s` : "")),
  ],
  utility: () => [],
  instrument: (_, __, box) => times(NOTE_SPAN, (t) => noteX(t, box), seconds),
};

/** A plugin's own picture, to be read by figures: an equaliser as far as its bands go. Shapes that have no figures go without a scale. */
export const drawScaled = (
  model: Model,
  values: HeardValues,
  box: Box,
): { readonly marks: readonly Mark[]; readonly scale: readonly ScaleLine[] } => ({
  marks:
    model.family === "equaliser"
      ? eqMarks(model, values, box, eqRangeOf(model, values))
      : drawShape(model, values, box),
  scale: SCALES[model.family](model, values, box),
});
