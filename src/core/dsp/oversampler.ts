import { GRID, flushed } from "./grid";
import { type Doublings, TAPS_AT_ONCE, WAITS, createTaps, liftAt } from "./oversampling";

/**
 * Coefficients of a half-band filter as two branches of first-order all-passes, after R. Valenzuela and A. Constantinides,
 * "Digital signal processing schemes for efficient interpolation and decimation", IEE Proceedings G 130 (1983).
 * `transition` is the width of its slope as a share of the higher sample rate, 0 to 0.5.
 */
export function halfBandCoefficients(count: number, transition: number): readonly number[] {
  const tangent = Math.tan(((1 - transition * 2) * Math.PI) / 4);
  const k = tangent * tangent;
  const root = (1 - k * k) ** 0.25;
  const e = (0.5 * (1 - root)) / (1 + root);
  const e4 = e ** 4;
  const q = e * (1 + e4 * (2 + e4 * (15 + 150 * e4)));
  const order = count * 2 + 1;
  return Array.from({ length: count }, (_, at) => coefficientOf(at + 1, order, k, q));
}

/** Terms of the theta series; those behind are below the last bit. */
const TERMS = 12;

function coefficientOf(index: number, order: number, k: number, q: number): number {
  let above = 0;
  let below = 0.5;
  for (let i = 0; i < TERMS; i++) {
    const sign = i % 2 === 0 ? 1 : -1;
    above += sign * q ** (i * (i + 1)) * Math.sin(((2 * i + 1) * index * Math.PI) / order);
    if (i > 0) below += sign * q ** (i * i) * Math.cos((2 * i * index * Math.PI) / order);
  }
  const w = ((above * q ** 0.25) / below) ** 2;
  const x = Math.sqrt((1 - w * k) * (1 - w / k)) / (1 + w);
  return (1 - x) / (1 + x);
}

/**
 * Between the places of a line, what their neighbours on both sides make with a tap each: the first of the places stands at
 * `taps.length` − 1. Four taps go through the line at a time, their neighbours in locals: in one sweep over all taps each
 * neighbour would be read anew for each of them, which takes three times as long. Four places at a time, for a fifth less.
 */
function between(line: Float64Array, taps: Float64Array, count: number, sums: Float64Array): void {
  const { length } = taps;
  for (let i = 0; i < count; i++) sums[i] = 0;
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
    let i = 0;
    for (; i + 4 <= count; i += 4) {
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
    for (; i < count; i++) {
      const l3 = line[far + 3 + i]!;
      const r3 = line[near + 3 + i]!;
      sums[i]! += c0 * (l3 + r0) + c1 * (l2 + r1) + (c2 * (l1 + r2) + c3 * (l0 + r3));
      l0 = l1;
      l1 = l2;
      l2 = l3;
      r0 = r1;
      r1 = r2;
      r2 = r3;
    }
  }
}

/** Doubles the rate of one channel: every other sample is the sound itself, those between come from their neighbours. */
class Doubler {
  private readonly taps: Float64Array;
  private readonly past: number;
  /** What came before, then the stretch at hand. */
  private readonly line: Float64Array;
  private readonly sums: Float64Array;

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
class Halver {
  private readonly taps: Float64Array;
  private readonly past: number;
  private readonly middles: Float64Array;
  private readonly sides: Float64Array;
  private readonly sums: Float64Array;
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

/** Doubles the rate of a channel, or halves it, by two branches of one all-pass each. */
class GentleHalfBand {
  private readonly states = new Float64Array(4);

  constructor(private readonly coefficients: readonly number[]) {}

  up(input: Float64Array, count: number, out: Float64Array): void {
    const { states } = this;
    const a = this.coefficients[0]!;
    const b = this.coefficients[1]!;
    let before = states[0]!;
    let p = states[2]!;
    let q = states[3]!;
    for (let i = 0; i < count; i++) {
      const x = input[i]!;
      p = a * (x - p) + before;
      q = b * (x - q) + before;
      before = x;
      out[2 * i] = p;
      out[2 * i + 1] = q;
    }
    states[0] = before;
    states[2] = flushed(p);
    states[3] = flushed(q);
  }

  down(from: Float64Array, count: number, out: Float64Array): void {
    const { states } = this;
    const a = this.coefficients[0]!;
    const b = this.coefficients[1]!;
    let x0 = states[0]!;
    let y0 = states[1]!;
    let p = states[2]!;
    let q = states[3]!;
    for (let i = 0; i < count; i++) {
      const x = from[2 * i + 1]!;
      const y = from[2 * i]!;
      p = a * (x - p) + x0;
      q = b * (y - q) + y0;
      x0 = x;
      y0 = y;
      out[i] = (p + q) / 2;
    }
    states[0] = x0;
    states[1] = y0;
    states[2] = flushed(p);
    states[3] = flushed(q);
  }

  clear(): void {
    this.states.fill(0);
  }
}

/** Between twice and four times the rate the slope has an octave to itself, and above that two, and three. */
const UPPER = [halfBandCoefficients(2, 0.35), halfBandCoefficients(2, 0.4), halfBandCoefficients(2, 0.44)];

/** Waits a few samples. */
class Wait {
  private line: Float64Array;
  private next: Float64Array;

  constructor(private readonly samples: number) {
    this.line = new Float64Array(samples);
    this.next = new Float64Array(samples);
  }

  /** No fewer at a time than it waits. */
  pass(samples: Float64Array, count: number): void {
    const { line, next, samples: wait } = this;
    for (let i = 0; i < wait; i++) next[i] = samples[count - wait + i]!;
    samples.copyWithin(wait, 0, count - wait);
    samples.set(line);
    this.line = next;
    this.next = line;
  }

  clear(): void {
    this.line.fill(0);
  }
}

/** Lifts the top by taking off each sample a share of its neighbours; late by one. */
class Lift {
  private before = 0;
  private now = 0;

  constructor(private readonly share: number) {}

  pass(samples: Float64Array, count: number): void {
    const { share } = this;
    let { before, now } = this;
    for (let i = 0; i < count; i++) {
      const next = samples[i]!;
      samples[i] = now + share * (2 * now - before - next);
      before = now;
      now = next;
    }
    this.before = before;
    this.now = now;
  }

  clear(): void {
    this.before = this.now = 0;
  }
}

/** One channel at four or eight times its rate and back, a segment of the grid at a time. */
export class Oversampler {
  /** How many samples come for each one. */
  readonly factor: number;
  /** The samples at the highest rate, to be shaped in place between `up` and `down`. */
  readonly high: Float64Array;
  private readonly doubler: Doubler;
  private readonly halver: Halver;
  private readonly wait: Wait;
  private readonly lift: Lift;
  private readonly ups: readonly GentleHalfBand[];
  private readonly downs: readonly GentleHalfBand[];
  /** At twice, four times, eight times the rate. */
  private readonly levels: readonly Float64Array[];

  constructor(sampleRate: number, doublings: Doublings) {
    const taps = createTaps(sampleRate);
    const upper = UPPER.slice(0, doublings - 1);
    this.factor = 2 ** doublings;
    this.doubler = new Doubler(taps, GRID);
    this.halver = new Halver(taps, GRID);
    this.ups = upper.map((coefficients) => new GentleHalfBand(coefficients));
    this.downs = upper.map((coefficients) => new GentleHalfBand(coefficients));
    this.wait = new Wait(WAITS[doublings]);
    this.lift = new Lift(liftAt(sampleRate, doublings));
    this.levels = Array.from({ length: doublings }, (_, at) => new Float64Array(GRID * 2 ** (at + 1)));
    this.high = this.levels[doublings - 1]!;
  }

  up(samples: Float64Array, count: number): void {
    const { levels, ups } = this;
    this.doubler.pass(samples, count, levels[0]!);
    for (let s = 0; s < ups.length; s++) ups[s]!.up(levels[s]!, count << (s + 1), levels[s + 1]!);
    this.wait.pass(this.high, count * this.factor);
  }

  down(samples: Float64Array, count: number): void {
    const { levels, downs } = this;
    for (let s = downs.length - 1; s >= 0; s--) downs[s]!.down(levels[s + 1]!, count << (s + 1), levels[s]!);
    this.lift.pass(levels[0]!, 2 * count);
    this.halver.pass(levels[0]!, count, samples);
  }

  clear(): void {
    this.doubler.clear();
    this.halver.clear();
    this.wait.clear();
    this.lift.clear();
    for (const stage of [...this.ups, ...this.downs]) stage.clear();
  }
}
