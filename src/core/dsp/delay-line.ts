/** A ring of samples that is written once and read at any distance behind. Its length is a power of two. */
export class DelayLine {
  private readonly samples: Float64Array;
  private readonly mask: number;
  private written = 0;

  /** `longest`: the greatest distance, in samples, at which it is read. */
  constructor(longest: number) {
    // Room for the neighbours that interpolation reads.
    this.mask = 2 ** Math.ceil(Math.log2(longest + 4)) - 1;
    this.samples = new Float64Array(this.mask + 1);
  }

  write(sample: number): void {
    this.samples[this.written & this.mask] = sample;
    this.written += 1;
  }

  /** The sample written `delay` writes ago; 1 is the last. */
  read(delay: number): number {
    return this.samples[(this.written - delay) & this.mask]!;
  }

  /**
   * Between samples, by the cubic of Catmull and Rom through the four around it, at least 2 behind. The spectrum is flat
   * within 0.5 dB up to a quarter of the sample rate.
   */
  readBetween(delay: number): number {
    const whole = Math.floor(delay);
    const share = delay - whole;
    const { samples, mask } = this;
    const at = this.written - whole;
    const before = samples[(at + 1) & mask]!;
    const near = samples[at & mask]!;
    const far = samples[(at - 1) & mask]!;
    const beyond = samples[(at - 2) & mask]!;
    const slope = (far - before) / 2;
    const bend = before - 2.5 * near + 2 * far - beyond / 2;
    const twist = (beyond - before) / 2 + 1.5 * (near - far);
    return near + share * (slope + share * (bend + share * twist));
  }

  writeBlock(samples: Float64Array, count: number): void {
    const { mask, written } = this;
    for (let i = 0; i < count; i++) this.samples[(written + i) & mask] = samples[i]!;
    this.written = written + count;
  }

  /** Adds `gain` times the block that ended `delay` samples before the last one written. */
  addBlock(out: Float64Array, count: number, delay: number, gain: number): void {
    const { samples, mask } = this;
    const start = this.written - count - delay;
    for (let i = 0; i < count; i++) out[i]! += gain * samples[(start + i) & mask]!;
  }

  clear(): void {
    this.samples.fill(0);
  }
}
