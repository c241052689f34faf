import { TAPS_AT_ONCE } from "./oversampling";

/** Lines and sums have room for whole groups of places. */
const PLACES_AT_ONCE = 4;

/**
 * Between the places of a line, what their neighbours on both sides make with a tap each: the first of the places stands at
 * `taps.length` − 1. Four taps go through the line at a time, their neighbours in locals: in one sweep over all taps each
 * neighbour would be read anew for each of them, which takes three times as long. Four places at a time, for a fifth
 * less: where a stretch is no multiple of four, the last of them are not asked for.
 */
function between(line: Float64Array, taps: Float64Array, count: number, sums: Float64Array): void {
  const { length } = taps;
  sums.fill(0);
  for (let k = 0; k < length; k += TAPS_AT_ONCE) {
    const c0 = taps[k]!;
    const c1 = taps[k + 1]!;
    const c2 = taps[k + 2]!;
    const c3 = taps[k + 3]!;
    const far = length - k - TAPS_AT_ONCE;
    const near = length + k;
    let l0 = line[far]!;
    let l1 = line[far + 1]!;
    let l2 = line[far + 2]!;
    let r0 = line[near]!;
    let r1 = line[near + 1]!;
    let r2 = line[near + 2]!;
    for (let i = 0; i < count; i += PLACES_AT_ONCE) {
      const l = far + 3 + i;
      const r = near + 3 + i;
      const l3 = line[l]!;
      const l4 = line[l + 1]!;
      const l5 = line[l + 2]!;
      const l6 = line[l + 3]!;
      const r3 = line[r]!;
      const r4 = line[r + 1]!;
      const r5 = line[r + 2]!;
      const r6 = line[r + 3]!;
      sums[i]! += c0 * (l3 + r0) + c1 * (l2 + r1) + (c2 * (l1 + r2) + c3 * (l0 + r3));
      sums[i + 1]! += c0 * (l4 + r1) + c1 * (l3 + r2) + (c2 * (l2 + r3) + c3 * (l1 + r4));
      sums[i + 2]! += c0 * (l5 + r2) + c1 * (l4 + r3) + (c2 * (l3 + r4) + c3 * (l2 + r5));
      sums[i + 3]! += c0 * (l6 + r3) + c1 * (l5 + r4) + (c2 * (l4 + r5) + c3 * (l3 + r6));
      l0 = l4;
      l1 = l5;
      l2 = l6;
      r0 = r4;
      r1 = r5;
      r2 = r6;
    }
  }
}

/** Doubles the rate of one channel: every other sample is the sound itself, those between come from their neighbours. */
export class Doubler {
  private readonly taps: Float64Array;
  private readonly past: number;
  /** What came before, then the stretch at hand. */
  private readonly line: Float64Array;
  private readonly sums: Float64Array;

  /** `longest`: the longest stretch, a multiple of four. */
  constructor(taps: Float64Array, longest: number) {
    this.taps = Float64Array.from(taps, (tap) => 2 * tap);
    this.past = 2 * taps.length - 1;
    this.line = new Float64Array(this.past + longest);
    this.sums = new Float64Array(longest);
  }

  pass(input: Float64Array, count: number, out: Float64Array): void {
    const { line, past, taps, sums } = this;
    const middle = taps.length - 1;
    for (let i = 0; i < count; i++) line[past + i] = input[i]!;
    between(line, taps, count, sums);
    for (let i = 0; i < count; i++) {
      out[2 * i] = line[middle + i]!;
      out[2 * i + 1] = sums[i]!;
    }
    for (let i = 0; i < past; i++) line[i] = line[count + i]!;
  }

  clear(): void {
    this.line.fill(0);
  }
}

/** Halves the rate of one channel. */
export class Halver {
  private readonly taps: Float64Array;
  private readonly past: number;
  private readonly middles: Float64Array;
  private readonly sides: Float64Array;
  private readonly sums: Float64Array;

  /** `longest`: the longest stretch, a multiple of four. */
  constructor(taps: Float64Array, longest: number) {
    this.taps = taps;
    this.past = 2 * taps.length - 1;
    this.middles = new Float64Array(this.past + longest);
    this.sides = new Float64Array(this.past + longest);
    this.sums = new Float64Array(longest);
  }

  /** `count` samples come out of twice as many. */
  pass(from: Float64Array, count: number, out: Float64Array): void {
    const { middles, sides, sums, past, taps } = this;
    for (let i = 0; i < count; i++) {
      middles[past + i] = from[2 * i]!;
      sides[past + i] = from[2 * i + 1]!;
    }
    between(sides, taps, count, sums);
    const middle = taps.length;
    for (let i = 0; i < count; i++) out[i] = middles[middle + i]! / 2 + sums[i]!;
    for (let i = 0; i < past; i++) {
      middles[i] = middles[count + i]!;
      sides[i] = sides[count + i]!;
    }
  }

  clear(): void {
    this.middles.fill(0);
    this.sides.fill(0);
  }
}
