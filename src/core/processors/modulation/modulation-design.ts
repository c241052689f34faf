import type { HeardValues } from "../model";

/** How a modulation moves, as it is drawn: over time in seconds, −1 to 1 for each channel. */
export interface ModulationDesign {
  /** In Hz. */
  readonly rate: (values: HeardValues) => number;
  readonly left: (values: HeardValues) => (seconds: number) => number;
  readonly right: (values: HeardValues) => (seconds: number) => number;
}

export const TURN = 2 * Math.PI;

/** A sine whose swing is the depth; the right channel runs ahead by the spread, half a turn at 100 %. */
export const sineDesign: ModulationDesign = {
  rate: ({ rate = 1 }) => rate,
  left:
    ({ rate = 1, depth = 50 }) =>
    (t) =>
      (depth / 100) * Math.sin(TURN * rate * t),
  right:
    ({ rate = 1, depth = 50, spread = 0 }) =>
    (t) =>
      (depth / 100) * Math.sin(TURN * (rate * t + spread / 200)),
};
