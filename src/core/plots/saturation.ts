import { designOf, type Model } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { harmonicsOf } from "../processors/saturation/shaper";
import { type Box, type Point, lineOf, pathOf } from "./axes";
import { type Mark, clampY } from "./mark";

/** Harmonics are those of a sine at this level, a loud but ordinary one: −12 dB below full scale. */
const HEARD_LEVEL = 10 ** (-12 / 20);
export const HARMONICS = 8;
/** dB below the first harmonic at the foot of the picture. */
export const HARMONICS_FLOOR = -90;

/** Where a sample goes in, −1 to 1. */
export const shaperX = (x: number, { width }: Box): number => ((x + 1) / 2) * width;
/** Where it comes out. */
export const shaperY = (y: number, box: Box): number => clampY(((1 - y) / 2) * box.height, box);

export const shaperOf = (model: Model, values: HeardValues): ((x: number) => number) =>
  designOf(model, "saturation").shape(values);

export function shaperPath(shape: (x: number) => number, box: Box): string {
  const steps = Math.max(32, Math.round(box.width / 2));
  return pathOf(
    Array.from({ length: steps + 1 }, (_, i): Point => {
      const x = -1 + (2 * i) / steps;
      return [shaperX(x, box), shaperY(shape(x), box)];
    }),
  );
}

/** Levels in dB of the second harmonic and those above it, against the first. */
export const harmonicLevels = (shape: (x: number) => number): readonly number[] =>
  harmonicsOf(shape, HEARD_LEVEL, HARMONICS).slice(1);

export const harmonicY = (dB: number, { height }: Box): number =>
  Math.min(height, Math.max(1, (dB / HARMONICS_FLOOR) * height));

/** The curve on the left, what it adds on the right. */
export function saturationMarks(model: Model, values: HeardValues, box: Box): readonly Mark[] {
  const shape = shaperOf(model, values);
  const left = { width: Math.min(box.width * 0.6, box.height * 1.4), height: box.height };
  const room = box.width - left.width;
  const stems = harmonicLevels(shape).map((dB, at) => {
    const x = left.width + (room * (at + 1)) / HARMONICS;
    return lineOf([x, box.height], [x, harmonicY(dB, box)]);
  });
  const path = shaperPath(shape, left);
  return [
    {
      kind: "axis",
      path:
        lineOf([0, box.height / 2], [left.width, box.height / 2]) +
        lineOf([left.width / 2, 0], [left.width / 2, box.height]),
    },
    { kind: "faint", path: stems.join("") },
    { kind: "line", path },
  ];
}
