/** Plots are drawn in a box of `width` × `height`, y downwards, as SVG paths. */
export interface Box {
  readonly width: number;
  readonly height: number;
}

export type Point = readonly [x: number, y: number];

export const LOWEST_HZ = 20;
export const HIGHEST_HZ = 20_000;
const DECADES = Math.log(HIGHEST_HZ / LOWEST_HZ);

export const frequencyX = (hz: number, { width }: Box): number => (Math.log(hz / LOWEST_HZ) / DECADES) * width;
export const xFrequency = (x: number, { width }: Box): number =>
  Math.min(HIGHEST_HZ, Math.max(LOWEST_HZ, LOWEST_HZ * Math.exp((x / width) * DECADES)));

/** ±`range` dB around the middle of the box. */
export const gainY = (dB: number, range: number, { height }: Box): number => (height / 2) * (1 - dB / range);
export const yGain = (y: number, range: number, { height }: Box): number => (1 - (2 * y) / height) * range;

/** The lines at which one would read a frequency. */
export const FREQUENCY_LINES = [50, 100, 200, 500, 1000, 2000, 5000, 10_000] as const;

export const pathOf = (points: readonly Point[]): string =>
  points.map(([x, y], at) => `${at === 0 ? "M" : "L"}${x.toFixed(2)} ${y.toFixed(2)}`).join("");

export const lineOf = (from: Point, to: Point): string => pathOf([from, to]);
