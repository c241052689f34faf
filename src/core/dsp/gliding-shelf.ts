import { flushed } from "./grid";

/** Of a Butterworth shelf of the second order. */
const DAMPING = Math.SQRT2;

/** Of the two sections of one of the fourth. */
const DAMPINGS_OF_FOUR = [2 * Math.sin(Math.PI / 8), 2 * Math.sin((3 * Math.PI) / 8)] as const;

/**
 * A high shelf of the second order whose gain may be another with each sample: a state variable filter by the trapezoidal
 * rule, after A. Simper, "Solving the continuous SVF equations using trapezoidal integration" (2013), which stays stable
 * while it is turned. With a gain of 1 it gives back what it takes, bit for bit.
 */
export class GlidingShelf {
  private one = 0;
  private two = 0;

  constructor(private readonly damping: number = DAMPING) {}

  /** `corner`: tan(π·f ÷ rate), at which half of the gain in dB is done; `root`: the fourth root of the gain. */
  next(x: number, corner: number, root: number): number {
    const { damping } = this;
    const a = root * root;
    const g = corner * root;
    const share = 1 / (1 + g * (g + damping));
    const into = x - this.two;
    const band = share * (this.one + g * into);
    const low = this.two + g * band;
    this.one = 2 * band - this.one;
    this.two = 2 * low - this.two;
    if (root === 1) return x;
    return a * a * x + damping * (1 - a) * a * band + (1 - a * a) * low;
  }

  flush(): void {
    this.one = flushed(this.one);
    this.two = flushed(this.two);
  }

  clear(): void {
    this.one = this.two = 0;
  }
}

/**
 * The same of the fourth order, twice as steep: half of the gain in each of two sections, with the dampings of a Butterworth
 * filter. After S. J. Orfanidis, "High-order digital parametric equalizer design", JAES 53 (2005).
 */
export class SteepShelf {
  private readonly first = new GlidingShelf(DAMPINGS_OF_FOUR[0]);
  private readonly second = new GlidingShelf(DAMPINGS_OF_FOUR[1]);

  /** `corner` as of a `GlidingShelf`; `root`: the eighth root of the gain. */
  next(x: number, corner: number, root: number): number {
    return this.second.next(this.first.next(x, corner, root), corner, root);
  }

  flush(): void {
    this.first.flush();
    this.second.flush();
  }

  clear(): void {
    this.first.clear();
    this.second.clear();
  }
}
