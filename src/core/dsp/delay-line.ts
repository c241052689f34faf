/** Four places behind another and how loud each is heard: read in one loop, where loops of their own would take three times as long. */
export interface Taps {
  /** In samples. */
  readonly delays: Int32Array;
  readonly gains: Float64Array;
}

export const noTaps = (): Taps => ({ delays: new Int32Array(4), gains: new Float64Array(4) });

/** A ring of samples that is written once and read at any distance behind. Its length is a power of two. */
export class DelayLine {
  private readonly samples: Float64Array;
  private readonly mask: number;
  /** Where the next sample stands: within the ring, so that it never matters for how long it has been written. */
  private written = 0;

  /** `longest`: the greatest distance, in samples, at which it is read. */
  constructor(longest: number) {
    // Room for the neighbours that interpolation reads.
    this.mask = 2 ** Math.ceil(Math.log2(longest + 4)) - 1;
    this.samples = new Float64Array(this.mask + 1);
  }

  write(sample: number): void {
    this.samples[this.written] = sample;
    this.written = (this.written + 1) & this.mask;
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
    return this.readBetweenAt(this.written, delay);
  }

  /** What `readBetween` gave when the next sample was to stand at `written`: for a block that is written before it is read. */
  readBetweenAt(written: number, delay: number): number {
    const whole = Math.floor(delay);
    const share = delay - whole;
    const { samples, mask } = this;
    const at = written - whole;
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
    const { mask, written, samples: line } = this;
    for (let i = 0; i < count; i++) line[(written + i) & mask] = samples[i]!;
    this.written = (written + count) & mask;
  }

  /** Writes a stretch of a channel. Returns where its first sample stands. */
  writeFrom(channel: Float32Array, from: number, to: number): number {
    const { mask, written, samples: line } = this;
    const shift = written - from;
    for (let i = from; i < to; i++) line[(shift + i) & mask] = channel[i]!;
    this.written = (shift + to) & mask;
    return written;
  }

  /** The block that ended `delay` samples before the last one written. */
  readBlock(out: Float64Array, count: number, delay: number): void {
    const { samples, mask } = this;
    const start = this.written - count - delay;
    for (let i = 0; i < count; i++) out[i] = samples[(start + i) & mask]!;
  }

  /** Four taps added up, for the block that ended `delay` samples before the last one written. */
  readTaps(out: Float64Array, count: number, delay: number, { delays, gains }: Taps): void {
    const { samples, mask } = this;
    const start = this.written - count - delay;
    const at0 = start - delays[0]!;
    const at1 = start - delays[1]!;
    const at2 = start - delays[2]!;
    const at3 = start - delays[3]!;
    const gain0 = gains[0]!;
    const gain1 = gains[1]!;
    const gain2 = gains[2]!;
    const gain3 = gains[3]!;
    for (let i = 0; i < count; i++)
      out[i] =
        gain0 * samples[(at0 + i) & mask]! +
        gain1 * samples[(at1 + i) & mask]! +
        gain2 * samples[(at2 + i) & mask]! +
        gain3 * samples[(at3 + i) & mask]!;
  }

  clear(): void {
    this.samples.fill(0);
  }
}
