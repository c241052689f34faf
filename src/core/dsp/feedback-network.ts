import { FLUSH, GRID } from "./grid";

const LINES = 8;

/** How the lines of a network wander: a slow turn each, a little out of step. */
const WANDER_RATE = 0.7;

interface LineFilter {
  readonly b0: number;
  readonly b1: number;
  readonly a1: number;
}

const isPrime = (n: number): boolean => {
  for (let d = 2; d * d <= n; d++) if (n % d === 0) return false;
  return n > 1;
};

/** The first prime from a length up: lines without a common measure do not ring together. */
export function primeFrom(length: number): number {
  let n = Math.max(GRID + 1, Math.round(length));
  while (!isPrime(n)) n += 1;
  return n;
}

/**
 * A feedback delay network of eight lines after Jot and Chaigne, AES 90 (1991): a filter in each line sets how long its
 * sound lasts, a Householder reflection between them, which loses nothing, mixes all into all.
 */
export class FeedbackNetwork {
  readonly lengths: readonly number[];
  private readonly lines: readonly Float64Array[];
  private readonly mask: number;
  private readonly filters = new Float64Array(LINES * 3);
  private readonly targets = new Float64Array(LINES * 3);
  private readonly states = new Float64Array(LINES * 2);
  private readonly offsets = new Float64Array(LINES);
  private readonly nextOffsets = new Float64Array(LINES);
  private readonly heard: readonly Float64Array[];
  private readonly sum = new Float64Array(GRID);
  private written = 0;
  private phase = 0;
  private left = 0;

  /** `lengths` in samples; `wander`, how many samples each line strays. */
  constructor(
    lengths: readonly number[],
    private readonly wander: number,
    private readonly sampleRate: number,
  ) {
    if (lengths.length !== LINES) throw new Error(`A network has ${LINES} lines, not ${lengths.length}`);
    this.lengths = lengths;
    this.mask = 2 ** Math.ceil(Math.log2(Math.max(...lengths) + wander + 4)) - 1;
    this.lines = lengths.map(() => new Float64Array(this.mask + 1));
    this.heard = lengths.map(() => new Float64Array(GRID));
  }

  aim(filters: readonly LineFilter[], steps: number, jump: boolean): void {
    filters.forEach(({ b0, b1, a1 }, at) => this.targets.set([b0, b1, a1], at * 3));
    if (jump) this.filters.set(this.targets);
    this.left = jump ? 0 : steps;
  }

  clear(): void {
    for (const line of this.lines) line.fill(0);
    this.states.fill(0);
  }

  /** On each point of the grid. */
  tick(): void {
    for (let i = 0; i < this.states.length; i++) if (Math.abs(this.states[i]!) < FLUSH) this.states[i] = 0;
    if (this.left > 0) {
      for (let c = 0; c < this.filters.length; c++)
        this.filters[c]! += (this.targets[c]! - this.filters[c]!) / this.left;
      this.left -= 1;
    }
    if (this.wander === 0) return;
    this.phase = (this.phase + (WANDER_RATE * GRID) / this.sampleRate) % 1;
    for (let l = 0; l < LINES; l++) {
      this.offsets[l] = this.nextOffsets[l]!;
      this.nextOffsets[l] = this.wander * Math.sin(2 * Math.PI * (this.phase + l / LINES));
    }
  }

  /**
   * A segment of the grid: what enters stands in `left` and `right`, and is replaced by the sound of the lines. No line is
   * shorter than a segment, so each is read, filtered and written as a block.
   */
  process(left: Float64Array, right: Float64Array, count: number, within: number): void {
    const { sum } = this;
    for (let i = 0; i < count; i++) sum[i] = 0;
    for (let l = 0; l < LINES; l++) this.read(l, count, within);
    for (let i = 0; i < count; i++) sum[i]! *= 2 / LINES;
    for (let l = 0; l < LINES; l++) this.write(l, l % 2 === 0 ? left : right, count);
    this.mixTo(left, 0, count);
    this.mixTo(right, 1, count);
    this.written += count;
  }

  private read(l: number, count: number, within: number): void {
    const { mask, filters, states, sum } = this;
    const line = this.lines[l]!;
    const heard = this.heard[l]!;
    if (this.wander === 0) {
      const start = this.written - this.lengths[l]!;
      for (let i = 0; i < count; i++) heard[i] = line[(start + i) & mask]!;
    } else this.readWandering(l, count, within);
    const [b0, b1, a1] = [filters[l * 3]!, filters[l * 3 + 1]!, filters[l * 3 + 2]!];
    let x1 = states[l * 2]!;
    let y1 = states[l * 2 + 1]!;
    for (let i = 0; i < count; i++) {
      const x = heard[i]!;
      y1 = b0 * x + b1 * x1 - a1 * y1;
      x1 = x;
      heard[i] = y1;
      sum[i]! += y1;
    }
    states[l * 2] = x1;
    states[l * 2 + 1] = y1;
  }

  /** By the cubic of Catmull and Rom: a straight line between samples would damp the highs on each pass. */
  private readWandering(l: number, count: number, within: number): void {
    const { mask } = this;
    const line = this.lines[l]!;
    const heard = this.heard[l]!;
    const step = (this.nextOffsets[l]! - this.offsets[l]!) / GRID;
    // Counted from the last point of the grid, so that the size of the blocks changes no bit.
    const begin = this.written - within - this.lengths[l]! + this.offsets[l]!;
    for (let i = 0; i < count; i++) {
      const at = begin + (1 + step) * (within + i);
      const whole = Math.floor(at);
      const share = at - whole;
      const before = line[(whole - 1) & mask]!;
      const near = line[whole & mask]!;
      const far = line[(whole + 1) & mask]!;
      const beyond = line[(whole + 2) & mask]!;
      const slope = (far - before) / 2;
      const bend = before - 2.5 * near + 2 * far - beyond / 2;
      const twist = (beyond - before) / 2 + 1.5 * (near - far);
      heard[i] = near + share * (slope + share * (bend + share * twist));
    }
  }

  private write(l: number, input: Float64Array, count: number): void {
    const { mask, written, sum } = this;
    const line = this.lines[l]!;
    const heard = this.heard[l]!;
    for (let i = 0; i < count; i++) {
      const put = input[i]! + heard[i]! - sum[i]!;
      line[(written + i) & mask] = put < FLUSH && put > -FLUSH ? 0 : put;
    }
  }

  /** Every other line, with its sign turned each time: neighbours in time do not add up. */
  private mixTo(out: Float64Array, first: 0 | 1, count: number): void {
    const [a, b, c, d] = [this.heard[first]!, this.heard[first + 2]!, this.heard[first + 4]!, this.heard[first + 6]!];
    for (let i = 0; i < count; i++) out[i] = a[i]! - b[i]! + c[i]! - d[i]!;
  }
}
