import { kaiser, kaiserBeta, sinc } from "./kaiser";

/** Samples around a place that are read for what lies between them, as many on either side. */
const TAPS = 10;
/** Places between two samples for which there are weights; between those a straight line is within −90 dB. */
const PLACES = 128;
/** What a band beyond the top leaves of its images, in dB. */
const REJECTION = 52;

/** Weights of the samples around each place, the nearer end first, of a sinc under Kaiser's window; each place adds up to 1. */
const BETWEEN = weights();

function weights(): Float64Array {
  const all = new Float64Array((PLACES + 1) * TAPS);
  for (let place = 0; place <= PLACES; place++) {
    const row = all.subarray(place * TAPS, (place + 1) * TAPS);
    for (let t = 0; t < TAPS; t++) {
      const x = t - (TAPS / 2 - 1) - place / PLACES;
      row[t] = sinc(x) * kaiser(x / (TAPS / 2), kaiserBeta(REJECTION));
    }
    const sum = row.reduce((a, b) => a + b, 0);
    for (let t = 0; t < TAPS; t++) row[t]! /= sum;
  }
  return all;
}

/** A ring of samples that is written once and read at any distance behind. Its length is a power of two. */
export class DelayLine {
  private readonly samples: Float64Array;
  private readonly mask: number;
  /** Where the next sample stands: within the ring, so that it never matters for how long it has been written. */
  private written = 0;

  /** `longest`: the greatest distance, in samples, at which it is read. */
  constructor(longest: number) {
    // Room for the neighbours that interpolation reads.
    this.mask = 2 ** Math.ceil(Math.log2(longest + TAPS)) - 1;
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

  /** Between samples, at least 5 behind. The spectrum is flat within 0.1 dB up to 0.7 of the Nyquist frequency. */
  readBetween(delay: number): number {
    return this.readBetweenAt(this.written, delay);
  }

  /** What `readBetween` gave when the next sample was to stand at `written`: for a block that is written before it is read. */
  readBetweenAt(written: number, delay: number): number {
    const { samples, mask } = this;
    // Whole numbers by the operator: they are kept as such, which takes a fifth less.
    const whole = delay | 0;
    const place = (delay - whole) * PLACES;
    const row = place | 0;
    const share = place - row;
    const first = (written - whole + TAPS / 2 - 1) | 0;
    let sum = 0;
    for (let t = 0, r = row * TAPS; t < TAPS; t++, r++) {
      const weight = BETWEEN[r]!;
      sum += (weight + share * (BETWEEN[r + TAPS]! - weight)) * samples[(first - t) & mask]!;
    }
    return sum;
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

  clear(): void {
    this.samples.fill(0);
  }
}
