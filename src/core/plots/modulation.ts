import { designOf, type Model } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { type Box, type Point, lineOf, pathOf } from "./axes";
import type { Mark } from "./mark";

/** In seconds; each four times the one before, so that two to eight turns are seen. */
const SPANS = [0.1, 0.4, 1.6, 6.4, 25.6, 102.4] as const;
const LEAST_TURNS = 2;

/** The seconds that the picture shows. */
export const motionSpan = (model: Model, values: HeardValues): number =>
  SPANS.find((span) => span * designOf(model, "modulation").rate(values) >= LEAST_TURNS) ?? 102.4;

export const motionRate = (model: Model, values: HeardValues): number => designOf(model, "modulation").rate(values);

/** Full depth leaves a little room above and below. */
const REACH = 0.88;

export const motionY = (swing: number, { height }: Box): number => (height / 2) * (1 - REACH * swing);

function motionPath(motion: (seconds: number) => number, span: number, box: Box): string {
  const steps = Math.max(96, Math.round(box.width / 2));
  return pathOf(
    Array.from({ length: steps + 1 }, (_, i): Point => {
      const share = i / steps;
      return [share * box.width, motionY(motion(share * span), box)];
    }),
  );
}

/** The left channel in ink, the right fainter: over time, as far as the depth goes. */
export function modulationMarks(model: Model, values: HeardValues, box: Box): readonly Mark[] {
  const design = designOf(model, "modulation");
  const span = motionSpan(model, values);
  const middle = box.height / 2;
  const path = motionPath(design.left(values), span, box);
  return [
    { kind: "axis", path: lineOf([0, middle], [box.width, middle]) },
    { kind: "area", path: `${path}L${box.width} ${middle}L0 ${middle}Z` },
    { kind: "faint", path: motionPath(design.right(values), span, box) },
    { kind: "line", path },
  ];
}
