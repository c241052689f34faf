import type { Box } from "./axes";

/** `line` is the thing itself, `area` its tinted side, `axis` a hairline to read it by, `faint` what follows from it. */
export interface Mark {
  readonly kind: "line" | "area" | "axis" | "faint";
  readonly path: string;
}

/** Curves are those of a project at 48 kHz; at other rates only the last octave differs. */
export const PLOT_RATE = 48_000;

/** Lines at the very edge stay whole. */
export const clampY = (y: number, { height }: Box): number => Math.min(height - 1, Math.max(1, y));
