import type { Model, HeardValues } from "../processors/model";
import { type Band, bandLevelAt, levelCurve } from "../processors/equaliser/parametric-eq/design";
import { tapsOf, loopTime, levelGain } from "../processors/delay/multitap-delay/design";
import { gainAt, makeupOf, staticCurve } from "../processors/dynamics/vca-compressor/design";
import { type Box, HIGHEST_HZ, LOWEST_HZ, type Point, frequencyX, gainY, lineOf, pathOf } from "./axes";

/** `line` is the thing itself, `area` its tinted side, `axis` a hairline to read it by, `faint` what follows from it. */
export interface Mark {
  readonly kind: "line" | "area" | "axis" | "faint";
  readonly path: string;
}

/** Curves are those of a project at 48 kHz; at other rates only the last octave differs. */
export const PLOT_RATE = 48_000;

/** dB above and below the middle of an equaliser's plot. */
export const EQ_RANGE = 15;
/** dB below full scale at the left and lower edge of a compressor's plot. */
export const DYNAMICS_RANGE = 60;

const clampY = (y: number, { height }: Box): number => Math.min(height - 1, Math.max(1, y));

function curvePoints(level: (hz: number) => number, box: Box): Point[] {
  const count = Math.min(321, Math.max(49, Math.round(box.width / 2)));
  return Array.from({ length: count }, (_, i) => {
    const hz = LOWEST_HZ * (HIGHEST_HZ / LOWEST_HZ) ** (i / (count - 1));
    return [frequencyX(hz, box), clampY(gainY(level(hz), EQ_RANGE, box), box)];
  });
}

/** The path of the whole equaliser's response, with output and mix. */
export const eqPath = (values: HeardValues, box: Box): string =>
  pathOf(curvePoints(levelCurve(values, PLOT_RATE), box));

export const bandPath = (band: Band, box: Box): string =>
  pathOf(curvePoints((hz) => bandLevelAt(band, hz, PLOT_RATE), box));

export function eqMarks(values: HeardValues, box: Box): readonly Mark[] {
  const path = eqPath(values, box);
  const middle = box.height / 2;
  return [
    { kind: "axis", path: lineOf([0, middle], [box.width, middle]) },
    { kind: "area", path: `${path}L${box.width} ${middle}L0 ${middle}Z` },
    { kind: "line", path },
  ];
}

export const dynamicsX = (dB: number, { width }: Box): number => (1 + dB / DYNAMICS_RANGE) * width;
export const dynamicsY = (dB: number, { height }: Box): number => (-dB / DYNAMICS_RANGE) * height;

/** Output level in dB at an input level in dB: the static curve, without make-up. */
export const transferAt = (values: HeardValues, dB: number): number => dB + gainAt(staticCurve(values), dB);

export function dynamicsMarks(values: HeardValues, box: Box): readonly Mark[] {
  const steps = 60;
  const path = pathOf(
    Array.from({ length: steps + 1 }, (_, i): Point => {
      const dB = -DYNAMICS_RANGE + (i / steps) * DYNAMICS_RANGE;
      return [dynamicsX(dB, box), dynamicsY(transferAt(values, dB), box)];
    }),
  );
  return [
    { kind: "axis", path: lineOf([0, box.height], [box.width, 0]) },
    { kind: "area", path: `${path}L${box.width} ${box.height}L0 ${box.height}Z` },
    { kind: "line", path },
  ];
}

export const makeupDb = (values: HeardValues): number => makeupOf(values);

const SPANS = [250, 500, 1000, 2000, 4000];

/** The time that a delay's plot shows, in ms: a round number with room behind the last tap. */
export function delaySpan(values: HeardValues): number {
  const longest = loopTime(tapsOf(values));
  return SPANS.find((span) => span >= longest * 1.2) ?? 4800;
}

export const delayX = (ms: number, span: number, { width }: Box): number => 4 + (ms / span) * (width - 8);

/** A tap to the left rises, one to the right hangs, one in the centre does both. */
export function tapEnds(pan: number, gain: number, { height }: Box): readonly [top: number, bottom: number] {
  const reach = Math.min(1, gain) * (height / 2 - 3);
  const up = reach * Math.min(1, 1 - pan / 100);
  const down = reach * Math.min(1, 1 + pan / 100);
  return [height / 2 - up, height / 2 + down];
}

function stem(x: number, [top, bottom]: readonly [number, number]): string {
  return lineOf([x, top], [x, bottom]);
}

export function delayMarks(values: HeardValues, box: Box): readonly Mark[] {
  const span = delaySpan(values);
  const taps = tapsOf(values).filter((t) => t.on && t.level > Number.NEGATIVE_INFINITY);
  const loop = loopTime(taps);
  const feedback = (values.feedback ?? 0) / 100;
  const repeats = taps.flatMap((tap) =>
    [1, 2, 3, 4, 5, 6].flatMap((n) => {
      const ms = tap.time + n * loop;
      const gain = levelGain(tap.level) * feedback ** n;
      return ms > span || gain < 0.04 ? [] : [stem(delayX(ms, span, box), tapEnds(tap.pan, gain, box))];
    }),
  );
  const middle = box.height / 2;
  return [
    { kind: "axis", path: lineOf([0, middle], [box.width, middle]) },
    { kind: "faint", path: repeats.join("") },
    {
      kind: "line",
      path: taps.map((t) => stem(delayX(t.time, span, box), tapEnds(t.pan, levelGain(t.level), box))).join(""),
    },
  ];
}

const DRAWINGS: Record<Model["family"], (values: HeardValues, box: Box) => readonly Mark[]> = {
  equaliser: eqMarks,
  dynamics: dynamicsMarks,
  delay: delayMarks,
};

/** A processor's own picture, from the same design functions that make its sound. */
export const drawShape = (model: Model, values: HeardValues, box: Box): readonly Mark[] =>
  DRAWINGS[model.family](values, box);
