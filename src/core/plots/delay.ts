import type { Return } from "../processors/delay/delay-design";
import { type Model, designOf } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { type Box, lineOf } from "./axes";
import type { Mark } from "./mark";

const SPANS = [250, 500, 1000, 2000, 4000];

/** The time that a delay's plot shows, in ms: a round number with room behind the last tap. */
export const delaySpan = (model: Model, values: HeardValues): number => {
  const { reach } = designOf(model, "delay").returns(values);
  return SPANS.find((span) => span >= reach * 1.2) ?? Math.max(4800, reach * 1.2);
};

export const delayX = (ms: number, span: number, { width }: Box): number => 4 + (ms / span) * (width - 8);

/** A tap to the left rises, one to the right hangs, one in the centre does both. */
export function tapEnds(pan: number, gain: number, { height }: Box): readonly [top: number, bottom: number] {
  const reach = Math.min(1, gain) * (height / 2 - 3);
  const up = reach * Math.min(1, 1 - pan / 100);
  const down = reach * Math.min(1, 1 + pan / 100);
  return [height / 2 - up, height / 2 + down];
}

export function delayMarks(model: Model, values: HeardValues, box: Box): readonly Mark[] {
  const span = delaySpan(model, values);
  const stem = ({ ms, gain, pan }: Return): string => {
    if (ms > span) return "";
    const x = delayX(ms, span, box);
    const [top, bottom] = tapEnds(pan, gain, box);
    return lineOf([x, top], [x, bottom]);
  };
  const { taps, repeats } = designOf(model, "delay").returns(values);
  const middle = box.height / 2;
  return [
    { kind: "axis", path: lineOf([0, middle], [box.width, middle]) },
    { kind: "faint", path: repeats.map(stem).join("") },
    { kind: "line", path: taps.map(stem).join("") },
  ];
}
