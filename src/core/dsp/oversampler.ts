import { GRID, flushed } from "./grid";
import { OVERSAMPLING } from "./oversampling";

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

/** What one branch remembers: its last input and the last output of each of its all-passes. */
const BRANCH = 4;
const CHANNEL = 2 * BRANCH;

/**
 * Doubles the rate of a channel, or halves it, by six all-passes: three in each branch. All of it runs in one loop with its
 * state in locals: the stages of neighbouring samples overlap in the machine, which passes of their own would not.
 */
class SteepHalfBand {
  private readonly states = new Float64Array(2 * CHANNEL);

  constructor(private readonly coefficients: readonly number[]) {}

  up(channel: 0 | 1, input: Float64Array, count: number, out: Float64Array): void {
    const [a1, b1, a2, b2, a3, b3] = this.six();
    const { states } = this;
    const at = channel * CHANNEL;
    let p0 = states[at]!;
    let p1 = states[at + 1]!;
    let p2 = states[at + 2]!;
    let p3 = states[at + 3]!;
    let q0 = states[at + 4]!;
    let q1 = states[at + 5]!;
    let q2 = states[at + 6]!;
    let q3 = states[at + 7]!;
    for (let i = 0; i < count; i++) {
      const x = input[i]!;
      const u1 = a1 * (x - p1) + p0;
      const u2 = a2 * (u1 - p2) + p1;
      const u3 = a3 * (u2 - p3) + p2;
      const v1 = b1 * (x - q1) + q0;
      const v2 = b2 * (v1 - q2) + q1;
      const v3 = b3 * (v2 - q3) + q2;
      p0 = q0 = x;
      p1 = u1;
      p2 = u2;
      p3 = u3;
      q1 = v1;
      q2 = v2;
      q3 = v3;
      out[2 * i] = u3;
      out[2 * i + 1] = v3;
    }
    this.keep(at, p0, p1, p2);
    this.keep(at + 3, p3, q0, q1);
    states[at + 6] = flushed(q2);
    states[at + 7] = flushed(q3);
  }

  /** `count` samples come out of twice as many. */
  down(channel: 0 | 1, from: Float64Array, count: number, out: Float64Array): void {
    const [a1, b1, a2, b2, a3, b3] = this.six();
    const { states } = this;
    const at = channel * CHANNEL;
    let p0 = states[at]!;
    let p1 = states[at + 1]!;
    let p2 = states[at + 2]!;
    let p3 = states[at + 3]!;
    let q0 = states[at + 4]!;
    let q1 = states[at + 5]!;
    let q2 = states[at + 6]!;
    let q3 = states[at + 7]!;
    for (let i = 0; i < count; i++) {
      const x = from[2 * i + 1]!;
      const y = from[2 * i]!;
      const u1 = a1 * (x - p1) + p0;
      const u2 = a2 * (u1 - p2) + p1;
      const u3 = a3 * (u2 - p3) + p2;
      const v1 = b1 * (y - q1) + q0;
      const v2 = b2 * (v1 - q2) + q1;
      const v3 = b3 * (v2 - q3) + q2;
      p0 = x;
      p1 = u1;
      p2 = u2;
      p3 = u3;
      q0 = y;
      q1 = v1;
      q2 = v2;
      q3 = v3;
      out[i] = (u3 + v3) / 2;
    }
    this.keep(at, p0, p1, p2);
    this.keep(at + 3, p3, q0, q1);
    states[at + 6] = flushed(q2);
    states[at + 7] = flushed(q3);
  }

  clear(): void {
    this.states.fill(0);
  }

  private six(): readonly [number, number, number, number, number, number] {
    return this.coefficients as unknown as readonly [number, number, number, number, number, number];
  }

  private keep(at: number, one: number, two: number, three: number): void {
    this.states[at] = flushed(one);
    this.states[at + 1] = flushed(two);
    this.states[at + 2] = flushed(three);
  }
}

/** The same with one all-pass in each branch. */
class GentleHalfBand {
  private readonly states = new Float64Array(8);

  constructor(private readonly coefficients: readonly number[]) {}

  up(channel: 0 | 1, input: Float64Array, count: number, out: Float64Array): void {
    const { states } = this;
    const a = this.coefficients[0]!;
    const b = this.coefficients[1]!;
    const at = channel * 4;
    let before = states[at]!;
    let p = states[at + 2]!;
    let q = states[at + 3]!;
    for (let i = 0; i < count; i++) {
      const x = input[i]!;
      p = a * (x - p) + before;
      q = b * (x - q) + before;
      before = x;
      out[2 * i] = p;
      out[2 * i + 1] = q;
    }
    states[at] = before;
    states[at + 2] = flushed(p);
    states[at + 3] = flushed(q);
  }

  down(channel: 0 | 1, from: Float64Array, count: number, out: Float64Array): void {
    const { states } = this;
    const a = this.coefficients[0]!;
    const b = this.coefficients[1]!;
    const at = channel * 4;
    let x0 = states[at]!;
    let y0 = states[at + 1]!;
    let p = states[at + 2]!;
    let q = states[at + 3]!;
    for (let i = 0; i < count; i++) {
      const x = from[2 * i + 1]!;
      const y = from[2 * i]!;
      p = a * (x - p) + x0;
      q = b * (y - q) + y0;
      x0 = x;
      y0 = y;
      out[i] = (p + q) / 2;
    }
    states[at] = x0;
    states[at + 1] = y0;
    states[at + 2] = flushed(p);
    states[at + 3] = flushed(q);
  }

  clear(): void {
    this.states.fill(0);
  }
}

/** The audible band ends at 20.4 kHz of 48; what lies above folds back at −90 dB and less. */
const NEAR = halfBandCoefficients(6, 0.075);
/** Between 96 and 192 kHz the slope has an octave to itself, and what folds there is weak: −62 dB of it is enough. */
const FAR = halfBandCoefficients(2, 0.25);

/** Two channels at four times their rate and back, a segment of the grid at a time. */
export class Oversampler {
  /** The samples at the higher rate, to be shaped in place between `up` and `down`. */
  readonly left = new Float64Array(OVERSAMPLING * GRID);
  readonly right = new Float64Array(OVERSAMPLING * GRID);
  private readonly middle = new Float64Array(2 * GRID);
  private readonly upNear = new SteepHalfBand(NEAR);
  private readonly upFar = new GentleHalfBand(FAR);
  private readonly downFar = new GentleHalfBand(FAR);
  private readonly downNear = new SteepHalfBand(NEAR);

  up(left: Float64Array, right: Float64Array, count: number): void {
    const { middle, upNear, upFar } = this;
    upNear.up(0, left, count, middle);
    upFar.up(0, middle, 2 * count, this.left);
    upNear.up(1, right, count, middle);
    upFar.up(1, middle, 2 * count, this.right);
  }

  down(left: Float64Array, right: Float64Array, count: number): void {
    const { middle, downFar, downNear } = this;
    downFar.down(0, this.left, 2 * count, middle);
    downNear.down(0, middle, count, left);
    downFar.down(1, this.right, 2 * count, middle);
    downNear.down(1, middle, count, right);
  }

  clear(): void {
    for (const stage of [this.upNear, this.upFar, this.downFar, this.downNear]) stage.clear();
  }
}
