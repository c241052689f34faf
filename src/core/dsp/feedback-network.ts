import { FLUSH, GRID, flushed, isSilent } from "./grid";
import { CHANNELS as LINES, HADAMARD_LEVEL, hadamard } from "./hadamard";
import { Rings } from "./rings";

/** Where the lines stand in a segment of them all. */
const IN_SEGMENT = Int32Array.from({ length: LINES }, (_, l) => l * GRID);

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
 * sound lasts, a Hadamard matrix between them, which loses nothing, mixes all into all. Nothing in it moves: a steady tone
 * stays steady.
 */
export class FeedbackNetwork {
  readonly lengths: readonly number[];
  private readonly lines: Rings;
  private readonly filters = new Float64Array(LINES * 3);
  private readonly targets = new Float64Array(LINES * 3);
  private readonly states = new Float64Array(LINES * 2);
  /** What the lines give in a segment, behind each other. */
  private readonly heard = new Float64Array(LINES * GRID);
  private left = 0;

  /** `lengths` in samples. */
  constructor(lengths: readonly number[]) {
    if (lengths.length !== LINES) throw new Error(`A network has ${LINES} lines, not ${lengths.length}`);
    this.lengths = lengths;
    this.lines = new Rings(LINES, Math.max(...lengths));
  }

  aim(filters: readonly LineFilter[], steps: number, jump: boolean): void {
    filters.forEach(({ b0, b1, a1 }, at) => this.targets.set([b0, b1, a1], at * 3));
    if (jump) this.filters.set(this.targets);
    this.left = jump ? 0 : steps;
  }

  /** Nothing sounds in it, and no filter is on its way. */
  get isAtRest(): boolean {
    return this.left === 0 && isSilent(this.states) && this.lines.isSilent;
  }

  /** At rest: so many samples of silence pass. */
  idle(count: number): void {
    this.lines.go(count);
  }

  clear(): void {
    this.lines.clear();
    this.states.fill(0);
  }

  /** On each point of the grid. */
  tick(): void {
    for (let i = 0; i < this.states.length; i++) if (Math.abs(this.states[i]!) < FLUSH) this.states[i] = 0;
    if (this.left === 0) return;
    for (let c = 0; c < this.filters.length; c++) this.filters[c]! += (this.targets[c]! - this.filters[c]!) / this.left;
    this.left -= 1;
  }

  /**
   * A segment of the grid: what enters the lines stands in `entries`, behind each other and `GRID` samples apart; what they
   * give comes into `left` and `right`. No line is shorter than a segment, so all that is read has been written. Two lines
   * run in one loop, since the recursions of neighbours overlap in the machine, which loops of their own would not.
   */

  process(entries: Float64Array, left: Float64Array, right: Float64Array, count: number): void {
    for (let l = 0; l < LINES; l += 2) this.filterTwo(l, count);
    this.take(left, right, count);
    hadamard(this.heard, IN_SEGMENT, this.heard, 0, GRID, count);
    for (let l = 0; l < LINES; l++) this.giveBack(l, entries, count);
    this.lines.close(0, LINES, count);
    this.lines.go(count);
  }

  private filterTwo(l: number, count: number): void {
    const { heard, lengths, filters: f, states: s, lines } = this;
    const { samples } = lines;
    const at0 = lines.behind(l, lengths[l]!);
    const at1 = lines.behind(l + 1, lengths[l + 1]!);
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
      const p = samples[at0 + i]!;
      y0 = a0 * p + a1 * x0 - a2 * y0;
      x0 = p;
      heard[to + i] = y0;
      const q = samples[at1 + i]!;
      y1 = b0 * q + b1 * x1 - b2 * y1;
      x1 = q;
      heard[to + i + GRID] = y1;
    }
    s[z] = x0;
    s[z + 1] = y0;
    s[z + 2] = x1;
    s[z + 3] = y1;
  }

  /** The left takes the even lines, the right the odd; one of four is turned, so that they never all add up. */
  private take(left: Float64Array, right: Float64Array, count: number): void {
    const { heard } = this;
    for (let i = 0; i < count; i++) {
      left[i] = heard[i]! + heard[i + 2 * GRID]! - (heard[i + 4 * GRID]! - heard[i + 6 * GRID]!);
      right[i] = heard[i + GRID]! + heard[i + 3 * GRID]! - (heard[i + 5 * GRID]! - heard[i + 7 * GRID]!);
    }
  }

  /** What goes round a line once more, with what enters it. */
  private giveBack(l: number, entries: Float64Array, count: number): void {
    const { heard } = this;
    const { samples } = this.lines;
    const at = this.lines.at(l);
    for (let i = 0, from = l * GRID; i < count; i++, from++)
      samples[at + i] = flushed(HADAMARD_LEVEL * heard[from]! + entries[from]!);
  }
}
