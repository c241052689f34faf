import type { TransferLine } from "../processors/dynamics/dynamics-design";
import { designOf, type Model } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { type Box, type Point, lineOf, pathOf } from "./axes";
import type { Mark } from "./mark";

/** dB below full scale at the left and lower edge of the plot. */
export const DYNAMICS_RANGE = 60;

export const dynamicsX = (dB: number, { width }: Box): number => (1 + dB / DYNAMICS_RANGE) * width;
export const dynamicsY = (dB: number, { height }: Box): number => Math.min(height, (-dB / DYNAMICS_RANGE) * height);

/** The transfer lines, make-up left out: one, or one for each band. */
export const transferLines = (model: Model, values: HeardValues): readonly TransferLine[] =>
  designOf(model, "dynamics").lines(values);

/** In dB; null where make-up is set by hand. */
export const automaticMakeup = (model: Model, values: HeardValues): number | null =>
  designOf(model, "dynamics").automaticMakeup?.(values) ?? null;

const STEPS = 60;

export const transferPath = (line: TransferLine, box: Box): string =>
  pathOf(
    Array.from({ length: STEPS + 1 }, (_, i): Point => {
      const dB = -DYNAMICS_RANGE + (i / STEPS) * DYNAMICS_RANGE;
      return [dynamicsX(dB, box), dynamicsY(line.at(dB), box)];
    }),
  );

export function dynamicsMarks(model: Model, values: HeardValues, box: Box): readonly Mark[] {
  const paths = transferLines(model, values).map((line) => transferPath(line, box));
  return [
    { kind: "axis", path: lineOf([0, box.height], [box.width, 0]) },
    { kind: "area", path: `${paths[0]}L${box.width} ${box.height}L0 ${box.height}Z` },
    { kind: "faint", path: paths.slice(1).join("") },
    { kind: "line", path: paths[0] ?? "" },
  ];
}
