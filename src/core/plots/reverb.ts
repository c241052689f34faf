import { type Model, designOf } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { type Box, type Point, frequencyX, lineOf, pathOf } from "./axes";
import { frequenciesOf } from "./equaliser";
import { type Mark, PLOT_RATE, clampY } from "./mark";

/** Seconds at the foot and at the head of the picture, a decade apart each. */
export const SHORTEST = 0.1;
export const LONGEST = 20;
const DECADES = Math.log(LONGEST / SHORTEST);

/** The lines at which one would read a decay, in seconds. */
export const DECAY_LINES = [0.2, 0.5, 1, 2, 5, 10] as const;

export const decayY = (seconds: number, { height }: Box): number =>
  height * (1 - Math.log(Math.max(SHORTEST, seconds) / SHORTEST) / DECADES);
export const yDecay = (y: number, { height }: Box): number => SHORTEST * Math.exp((1 - y / height) * DECADES);

/** Seconds to −60 dB at a frequency in Hz. */
export const decayOf = (model: Model, values: HeardValues): ((hz: number) => number) =>
  designOf(model, "reverb").decay(values, PLOT_RATE);

export function reverbMarks(model: Model, values: HeardValues, box: Box): readonly Mark[] {
  const decay = decayOf(model, values);
  const path = pathOf(
    frequenciesOf(box).map((hz): Point => [frequencyX(hz, box), clampY(decayY(decay(hz), box), box)]),
  );
  const second = decayY(1, box);
  return [
    { kind: "axis", path: lineOf([0, second], [box.width, second]) },
    { kind: "area", path: `${path}L${box.width} ${box.height}L0 ${box.height}Z` },
    { kind: "line", path },
  ];
}
