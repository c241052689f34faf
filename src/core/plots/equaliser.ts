import { type EqBand, levelCurve, sectionsLevelAt } from "../processors/equaliser/eq-design";
import { designOf, type Model } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { type Box, HIGHEST_HZ, LOWEST_HZ, type Point, frequencyX, gainY, lineOf, pathOf } from "./axes";
import { type Mark, PLOT_RATE, clampY } from "./mark";

/** dB above and below the middle of an equaliser's plot. */
export const EQ_RANGE = 15;
const WIDE_RANGE = 27;
/** So much of the plot, in dB, is kept free beyond a handle. */
const ROOM = 1;

/** How far a plot reaches so that no handle leaves it: ± dB. */
export const eqRange = (gains: readonly number[]): number =>
  gains.some((gain) => Math.abs(gain) > EQ_RANGE - ROOM) ? WIDE_RANGE : EQ_RANGE;

/** Frequencies in Hz, evenly spread over the octaves, as many as a box can show. */
export function frequenciesOf({ width }: Box): readonly number[] {
  const count = Math.min(321, Math.max(49, Math.round(width / 2)));
  return Array.from({ length: count }, (_, i) => LOWEST_HZ * (HIGHEST_HZ / LOWEST_HZ) ** (i / (count - 1)));
}

const curvePath = (level: (hz: number) => number, box: Box, range: number): string =>
  pathOf(frequenciesOf(box).map((hz): Point => [frequencyX(hz, box), clampY(gainY(level(hz), range, box), box)]));

/** The bands as they are drawn and pulled. */
export const eqBands = (model: Model, values: HeardValues): readonly EqBand[] =>
  designOf(model, "equaliser").bands(values, PLOT_RATE);

/** The path of the whole equaliser's response, with output and mix. */
export const eqPath = (model: Model, values: HeardValues, box: Box, range = EQ_RANGE): string =>
  curvePath(levelCurve(designOf(model, "equaliser"), values, PLOT_RATE), box, range);

export const bandPath = (band: EqBand, box: Box, range = EQ_RANGE): string =>
  curvePath((hz) => sectionsLevelAt(band.sections, hz, PLOT_RATE), box, range);

export function eqMarks(model: Model, values: HeardValues, box: Box, range = EQ_RANGE): readonly Mark[] {
  const path = eqPath(model, values, box, range);
  const middle = box.height / 2;
  return [
    { kind: "axis", path: lineOf([0, middle], [box.width, middle]) },
    { kind: "area", path: `${path}L${box.width} ${middle}L0 ${middle}Z` },
    { kind: "line", path },
  ];
}
