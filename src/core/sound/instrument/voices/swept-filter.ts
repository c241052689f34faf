/**
 * A low pass of the second order that stays itself while it is swept: the trapezoidal state-variable filter after
 * V. Zavalishin, "The art of VA filter design" (2012).
 */
export class SweptFilter {
  private one = 0;
  private two = 0;
  private g = 0;
  private k = 1;
  private a = 1;

  constructor(private readonly sampleRate: number) {}

  aim(cutoff: number, resonance: number): void {
    this.g = Math.tan((Math.PI * Math.min(cutoff, this.sampleRate * 0.45)) / this.sampleRate);
    this.k = 2 - 1.95 * resonance;
    this.a = 1 / (1 + this.g * (this.g + this.k));
  }

  next(x: number): number {
    const band = this.a * (this.g * (x - this.two) + this.one);
    const low = this.two + this.g * band;
    this.one = 2 * band - this.one;
    this.two = 2 * low - this.two;
    return low;
  }

  clear(): void {
    this.one = this.two = 0;
  }
}
