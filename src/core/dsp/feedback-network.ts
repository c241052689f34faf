import { FLUSH, GRID, flushed } from "./grid";

const LINES = 8;

/** Samples between one line and the next: at powers of two apart they would drive each other out of the processor's cache. */
const APART = 72;

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
  /** All lines behind each other, each `pitch` samples long. */
  private readonly lines: Float64Array;
  private readonly pitch: number;
  private readonly mask: number;
  private readonly filters = new Float64Array(LINES * 3);
  private readonly targets = new Float64Array(LINES * 3);
  private readonly states = new Float64Array(LINES * 2);
  private readonly offsets = new Float64Array(LINES);
  private readonly nextOffsets = new Float64Array(LINES);
  /** What the lines give in a segment, behind each other. */
  private readonly heard = new Float64Array(LINES * GRID);
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
    this.pitch = this.mask + 1 + APART;
    this.lines = new Float64Array(LINES * this.pitch);
  }

  aim(filters: readonly LineFilter[], steps: number, jump: boolean): void {
    filters.forEach(({ b0, b1, a1 }, at) => this.targets.set([b0, b1, a1], at * 3));
    if (jump) this.filters.set(this.targets);
    this.left = jump ? 0 : steps;
  }

  clear(): void {
    this.lines.fill(0);
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
   * shorter than a segment, so all that is read has been written. Two lines run in one loop, since the recursions of
   * neighbours overlap in the machine, which loops of their own would not.
   */
  process(left: Float64Array, right: Float64Array, count: number, within: number): void {
    if (this.wander !== 0) for (let l = 0; l < LINES; l++) this.readWandering(l, count, within);
    for (let l = 0; l < LINES; l += 2) this.filterTwo(l, count);
    this.reflect(left, right, count);
    // Within the ring, and back to its beginning on a point of the grid.
    this.written = (this.written + count) & this.mask;
  }

  /** By the cubic of Catmull and Rom: a straight line between samples would damp the highs on each pass. */
  private readWandering(l: number, count: number, within: number): void {
    const { lines, heard, mask } = this;
    const line = l * this.pitch;
    const step = (this.nextOffsets[l]! - this.offsets[l]!) / GRID;
    // Counted from the last point of the grid, so that the size of the blocks changes no bit.
    const begin = this.written - within - this.lengths[l]! + this.offsets[l]!;
    for (let i = 0; i < count; i++) {
      const at = begin + (1 + step) * (within + i);
      const whole = Math.floor(at);
      const share = at - whole;
      const before = lines[line + ((whole - 1) & mask)]!;
      const near = lines[line + (whole & mask)]!;
      const far = lines[line + ((whole + 1) & mask)]!;
      const beyond = lines[line + ((whole + 2) & mask)]!;
      const slope = (far - before) / 2;
      const bend = before - 2.5 * near + 2 * far - beyond / 2;
      const twist = (beyond - before) / 2 + 1.5 * (near - far);
      heard[l * GRID + i] = near + share * (slope + share * (bend + share * twist));
    }
  }

  /** Lines that stand still are read on the way; those that wander have been read. */
  private filterTwo(l: number, count: number): void {
    const { heard, lengths, filters: f, states: s } = this;
    const still = this.wander === 0;
    const source = still ? this.lines : heard;
    const mask = still ? this.mask : GRID - 1;
    const from0 = l * (still ? this.pitch : GRID);
    const from1 = (l + 1) * (still ? this.pitch : GRID);
    const at0 = still ? this.written - lengths[l]! : 0;
    const at1 = still ? this.written - lengths[l + 1]! : 0;
    const to = l * GRID;
    const c = l * 3;
    const z = l * 2;
    const a0 = f[c]!;
    const a1 = f[c + 1]!;
    const a2 = f[c + 2]!;
    const b0 = f[c + 3]!;
    const b1 = f[c + 4]!;
    const b2 = f[c + 5]!;
    let x0 = s[z]!;
    let y0 = s[z + 1]!;
    let x1 = s[z + 2]!;
    let y1 = s[z + 3]!;
    for (let i = 0; i < count; i++) {
      const p = source[from0 + ((at0 + i) & mask)]!;
      y0 = a0 * p + a1 * x0 - a2 * y0;
      x0 = p;
      heard[to + i] = y0;
      const q = source[from1 + ((at1 + i) & mask)]!;
      y1 = b0 * q + b1 * x1 - b2 * y1;
      x1 = q;
      heard[to + i + GRID] = y1;
    }
    s[z] = x0;
    s[z + 1] = y0;
    s[z + 2] = x1;
    s[z + 3] = y1;
  }

  /**
   * All lines go back into all, the left into the even, the right into the odd. What comes out takes every other line, with
   * its sign turned each time: neighbours in time do not add up.
   */
  private reflect(left: Float64Array, right: Float64Array, count: number): void {
    const { heard, lines, mask, pitch, written } = this;
    for (let i = 0; i < count; i++) {
      const at = (written + i) & mask;
      const y0 = heard[i]!;
      const y1 = heard[i + GRID]!;
      const y2 = heard[i + 2 * GRID]!;
      const y3 = heard[i + 3 * GRID]!;
      const y4 = heard[i + 4 * GRID]!;
      const y5 = heard[i + 5 * GRID]!;
      const y6 = heard[i + 6 * GRID]!;
      const y7 = heard[i + 7 * GRID]!;
      const sum = (2 / LINES) * (y0 + y1 + (y2 + y3) + (y4 + y5 + (y6 + y7)));
      const l = left[i]! - sum;
      const r = right[i]! - sum;
      lines[at] = flushed(l + y0);
      lines[at + pitch] = flushed(r + y1);
      lines[at + 2 * pitch] = flushed(l + y2);
      lines[at + 3 * pitch] = flushed(r + y3);
      lines[at + 4 * pitch] = flushed(l + y4);
      lines[at + 5 * pitch] = flushed(r + y5);
      lines[at + 6 * pitch] = flushed(l + y6);
      lines[at + 7 * pitch] = flushed(r + y7);
      left[i] = y0 - y2 + (y4 - y6);
      right[i] = y1 - y3 + (y5 - y7);
    }
  }
}
