import { designOf, type Model } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { type Box, type Point, lineOf, pathOf } from "./axes";
import type { Mark } from "./mark";

/** In seconds: how long the drawn note is held, and how long the picture is. */
export const NOTE_HELD = 1.2;
export const NOTE_SPAN = 2;

/** dB at the foot of the partials. */
const FLOOR = -60;
/** The partials end here, as multiples of the pitch. */
const HIGHEST = 64;

export const noteX = (seconds: number, { width }: Box): number => (seconds / NOTE_SPAN) * width;
export const noteY = (level: number, { height }: Box): number => height - 1 - level * (height - 4);

export function envelopePath(model: Model, values: HeardValues, box: Box): string {
  const level = designOf(model, "instrument").envelope(values, NOTE_HELD);
  const steps = Math.max(48, Math.round(box.width / 2));
  return pathOf(
    Array.from({ length: steps + 1 }, (_, i): Point => {
      const t = (i / steps) * NOTE_SPAN;
      return [noteX(t, box), noteY(level(t), box)];
    }),
  );
}

/** Stems of the partials, higher to the right by octaves. */
export const partialStems = (
  model: Model,
  values: HeardValues,
  box: Box,
): readonly { x: number; y: number; ratio: number }[] =>
  designOf(model, "instrument")
    .partials(values)
    .filter(({ level }) => level > FLOOR)
    .map(({ ratio, level }) => ({
      ratio,
      x: 3 + (Math.log2(Math.max(1, ratio)) / Math.log2(HIGHEST)) * (box.width - 6),
      y: box.height * (level / FLOOR),
    }));

/** The course of a note, and its partials behind it. */
export function instrumentMarks(model: Model, values: HeardValues, box: Box): readonly Mark[] {
  const path = envelopePath(model, values, box);
  const stems = partialStems(model, values, box).map(({ x, y }) => lineOf([x, box.height], [x, y]));
  return [
    { kind: "area", path: `${path}L${box.width} ${box.height}L0 ${box.height}Z` },
    { kind: "faint", path: stems.join("") },
    { kind: "line", path },
  ];
}
