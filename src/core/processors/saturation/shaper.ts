import { Antiderivative, type Drive, type Trace, standsStill } from "../../dsp/antiderivative";
import type { HeardValues, ParamId } from "../../units/param-spec";

/** A curve from sample to sample: what goes in on the left, −1 to 1, comes out above it. */
export interface ShaperDesign<Id extends ParamId = ParamId> {
  shape(values: HeardValues<Id>): (x: number) => number;
}

/**
 * tanh by its Padé approximant of order 3/2, x·(27 + x²) / (27 + 9x²): within 2.4 % of it, and at ±3, where it reaches ±1,
 * as flat as the straight line that goes on from there. Only ratios, so every machine agrees on the last bit.
 */
export function softClip(x: number): number {
  if (x >= 3) return 1;
  if (x <= -3) return -1;
  const square = x * x;
  return (x * (27 + square)) / (27 + 9 * square);
}

/** Without the aliases of it: see `Antiderivative`. */
export const SOFT = new Antiderivative(softClip, 3);

/**
 * The soft curve where it is bent so little that aliases are no matter: of the mean of two samples, in place of the mean of
 * the curve between them. It is as late, falls off as much, and takes a third of the time.
 */
export function softenGently(samples: Float64Array, count: number, trace: Trace, drive: Drive): void {
  const { before, offset, after, rest, beforeStep, offsetStep, afterStep, restStep, passed } = drive;
  let { input } = trace;
  if (standsStill(drive))
    for (let i = 0; i < count; i++) {
      const x = before * samples[i]! + offset;
      samples[i] = after * (softClip((x + input) / 2) - rest);
      input = x;
    }
  else
    for (let i = 0; i < count; i++) {
      const n = passed + i;
      const x = (before + beforeStep * n) * samples[i]! + (offset + offsetStep * n);
      samples[i] = (after + afterStep * n) * (softClip((x + input) / 2) - (rest + restStep * n));
      input = x;
    }
  trace.input = input;
}

/**
 * Of what `softenGently` makes, the even half: the mean of a sound and of its mirror, put through one by one. A trace for
 * each of both.
 */
export function evenGently(samples: Float64Array, count: number, traces: readonly [Trace, Trace], drive: Drive): void {
  const { before, offset, after, rest, beforeStep, offsetStep, afterStep, restStep, passed } = drive;
  let up = traces[0].input;
  let down = traces[1].input;
  for (let i = 0; i < count; i++) {
    const n = passed + i;
    const x = (before + beforeStep * n) * samples[i]!;
    const stand = offset + offsetStep * n;
    const mean = (softClip((stand + x + up) / 2) + softClip((stand - x + down) / 2)) / 2;
    samples[i] = (after + afterStep * n) * (mean - (rest + restStep * n));
    up = stand + x;
    down = stand - x;
  }
  traces[0].input = up;
  traces[1].input = down;
}

/** A fifth-order knee: straight in the middle, flat from ±1.25 on; it has more of the higher harmonics. */
export function hardClip(x: number): number {
  const held = Math.min(1.25, Math.max(-1.25, x));
  const square = held * held;
  return held * (1 - square * square * HARD_BEND);
}

/** Makes the slope zero at 1.25: 1 = 5·c·1.25⁴. */
const HARD_BEND = 1 / (5 * 1.25 ** 4);

export const HARD = new Antiderivative(hardClip, 1.25);

/** The level of the harmonics of a sine at `level` (1 is full scale) through a curve, relative to the first, in dB. */
export function harmonicsOf(shape: (x: number) => number, level: number, count: number): readonly number[] {
  const points = 512;
  const sums = Array.from({ length: count }, (_, at) => {
    let [re, im] = [0, 0];
    for (let i = 0; i < points; i++) {
      const phase = (2 * Math.PI * i) / points;
      const y = shape(level * Math.sin(phase));
      re += y * Math.cos((at + 1) * phase);
      im += y * Math.sin((at + 1) * phase);
    }
    return Math.hypot(re, im);
  });
  const first = Math.max(1e-12, sums[0] ?? 0);
  return sums.map((sum) => 20 * Math.log10(Math.max(1e-6, sum / first)));
}
