import { FLUSH, GRID } from "./grid";
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

/** The four blocks that run through a filter together: both branches of both channels. */
type Blocks = readonly [leftOne: Float64Array, leftTwo: Float64Array, rightOne: Float64Array, rightTwo: Float64Array];

const blocksOf = (longest: number): Blocks => [
  new Float64Array(longest),
  new Float64Array(longest),
  new Float64Array(longest),
  new Float64Array(longest),
];

/**
 * Doubles the rate of two channels, or halves it. Each all-pass waits for its own last result, so four that do not
 * depend on each other run side by side: both branches, left and right.
 */
class HalfBand {
  private readonly states: readonly Float64Array[];
  private readonly blocks: Blocks;

  /** An even number of coefficients, in turn for one branch and the other. */
  constructor(
    private readonly coefficients: readonly number[],
    longest: number,
  ) {
    this.states = coefficients.map(() => new Float64Array(4));
    this.blocks = blocksOf(longest);
  }

  up(left: Float64Array, right: Float64Array, count: number, out: Channels): void {
    const [leftOne, leftTwo, rightOne, rightTwo] = this.blocks;
    for (let i = 0; i < count; i++) {
      leftOne[i] = leftTwo[i] = left[i]!;
      rightOne[i] = rightTwo[i] = right[i]!;
    }
    this.run(count);
    const [outLeft, outRight] = out;
    for (let i = 0; i < count; i++) {
      outLeft[2 * i] = leftOne[i]!;
      outLeft[2 * i + 1] = leftTwo[i]!;
      outRight[2 * i] = rightOne[i]!;
      outRight[2 * i + 1] = rightTwo[i]!;
    }
  }

  /** `count` samples come out of twice as many. */
  down(from: Channels, count: number, left: Float64Array, right: Float64Array): void {
    const [leftOne, leftTwo, rightOne, rightTwo] = this.blocks;
    const [fromLeft, fromRight] = from;
    for (let i = 0; i < count; i++) {
      leftOne[i] = fromLeft[2 * i + 1]!;
      leftTwo[i] = fromLeft[2 * i]!;
      rightOne[i] = fromRight[2 * i + 1]!;
      rightTwo[i] = fromRight[2 * i]!;
    }
    this.run(count);
    for (let i = 0; i < count; i++) {
      left[i] = (leftOne[i]! + leftTwo[i]!) / 2;
      right[i] = (rightOne[i]! + rightTwo[i]!) / 2;
    }
  }

  clear(): void {
    for (const state of this.states) state.fill(0);
  }

  private run(count: number): void {
    for (let c = 0; c < this.coefficients.length; c += 2) this.pass(c, count);
  }

  private pass(c: number, count: number): void {
    const [leftOne, leftTwo, rightOne, rightTwo] = this.blocks;
    const [one, two] = [this.coefficients[c]!, this.coefficients[c + 1]!];
    const before = this.states[c]!;
    const after = this.states[c + 1]!;
    let [x0, x1, x2, x3] = [before[0]!, before[1]!, before[2]!, before[3]!];
    let [y0, y1, y2, y3] = [after[0]!, after[1]!, after[2]!, after[3]!];
    for (let i = 0; i < count; i++) {
      const a = leftOne[i]!;
      const b = leftTwo[i]!;
      const d = rightOne[i]!;
      const e = rightTwo[i]!;
      y0 = one * (a - y0) + x0;
      y1 = two * (b - y1) + x1;
      y2 = one * (d - y2) + x2;
      y3 = two * (e - y3) + x3;
      x0 = a;
      x1 = b;
      x2 = d;
      x3 = e;
      leftOne[i] = y0;
      leftTwo[i] = y1;
      rightOne[i] = y2;
      rightTwo[i] = y3;
    }
    before[0] = x0;
    before[1] = x1;
    before[2] = x2;
    before[3] = x3;
    after[0] = flushed(y0);
    after[1] = flushed(y1);
    after[2] = flushed(y2);
    after[3] = flushed(y3);
  }
}

const flushed = (x: number): number => (Math.abs(x) < FLUSH ? 0 : x);

type Channels = readonly [left: Float64Array, right: Float64Array];
const channelsOf = (longest: number): Channels => [new Float64Array(longest), new Float64Array(longest)];

/** The audible band ends at 20.4 kHz of 48; what lies above folds back at −90 dB and less. */
const NEAR = halfBandCoefficients(6, 0.075);
/** Between 96 and 192 kHz the slope has an octave to itself, and what folds there is weak: −62 dB of it is enough. */
const FAR = halfBandCoefficients(2, 0.25);

/** Two channels at four times their rate and back, a segment of the grid at a time. */
export class Oversampler {
  /** The samples at the higher rate, to be shaped in place between `up` and `down`. */
  readonly left = new Float64Array(OVERSAMPLING * GRID);
  readonly right = new Float64Array(OVERSAMPLING * GRID);
  private readonly high: Channels = [this.left, this.right];
  private readonly middle = channelsOf(2 * GRID);
  private readonly upNear = new HalfBand(NEAR, GRID);
  private readonly upFar = new HalfBand(FAR, 2 * GRID);
  private readonly downFar = new HalfBand(FAR, 2 * GRID);
  private readonly downNear = new HalfBand(NEAR, GRID);

  up(left: Float64Array, right: Float64Array, count: number): void {
    this.upNear.up(left, right, count, this.middle);
    this.upFar.up(this.middle[0], this.middle[1], 2 * count, this.high);
  }

  down(left: Float64Array, right: Float64Array, count: number): void {
    this.downFar.down(this.high, 2 * count, this.middle[0], this.middle[1]);
    this.downNear.down(this.middle, count, left, right);
  }

  clear(): void {
    for (const stage of [this.upNear, this.upFar, this.downFar, this.downNear]) stage.clear();
  }
}
