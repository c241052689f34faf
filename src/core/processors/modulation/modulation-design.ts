import type { HeardValues, ParamId } from "../../units/param-spec";

/** How a modulation moves, as it is drawn: over time in seconds, −1 to 1 for each channel. */
export interface ModulationDesign<Id extends ParamId = ParamId> {
  /** In Hz. */
  rate(values: HeardValues<Id>): number;
  left(values: HeardValues<Id>): (seconds: number) => number;
  right(values: HeardValues<Id>): (seconds: number) => number;
}

export const TURN = 2 * Math.PI;

/** A sine whose swing is the depth; the right channel runs ahead by the spread, half a turn at 100 %. */
export const sineDesign: ModulationDesign<"rate" | "depth" | "spread"> = {
  rate: ({ rate }) => rate,
  left:
    ({ rate, depth }) =>
    (t) =>
      (depth / 100) * Math.sin(TURN * rate * t),
  right:
    ({ rate, depth, spread }) =>
    (t) =>
      (depth / 100) * Math.sin(TURN * (rate * t + spread / 200)),
};
