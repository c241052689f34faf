import { flushed } from "./grid";

const DAMPING = Math.SQRT2;

/**
 * A high shelf of the second order whose gain may be another with each sample: a state variable filter by the trapezoidal
 * rule, after A. Simper, "Solving the continuous SVF equations using trapezoidal integration" (2013), which stays stable
 * while it is turned. With a gain of 1 it gives back what it takes, bit for bit.
 */
export class GlidingShelf {
  private one = 0;
  private two = 0;

  /** `corner`: tan(π·f ÷ rate), at which half of the gain in dB is done; `root`: the fourth root of the gain. */
  next(x: number, corner: number, root: number): number {
    const a = root * root;
    const g = corner * root;
    const share = 1 / (1 + g * (g + DAMPING));
    const into = x - this.two;
    const band = share * (this.one + g * into);
    const low = this.two + g * band;
    this.one = 2 * band - this.one;
    this.two = 2 * low - this.two;
    if (root === 1) return x;
    return a * a * x + DAMPING * (1 - a) * a * band + (1 - a * a) * low;
  }

  flush(): void {
    this.one = flushed(this.one);
    this.two = flushed(this.two);
  }

  clear(): void {
    this.one = this.two = 0;
  }
}
