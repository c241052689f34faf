import { isSilent } from "./grid";
import { kaiser, kaiserBeta, sinc } from "./kaiser";

/** Samples around a place that are read for what lies between them, as many on either side. */
const TAPS = 10;
const HALF = 5;
/** Places between two samples for which there are weights; between those a straight line is within −90 dB. */
const PLACES = 128;
/** What a band beyond the top leaves of its images, in dB. */
const REJECTION = 52;

/** Weights of the samples around each place, the oldest first, of a sinc under Kaiser's window; each place adds up to 1. */
const BETWEEN = weightsBetween();

function weightsBetween(): Float64Array {
  const all = new Float64Array((PLACES + 1) * TAPS);
  for (let place = 0; place <= PLACES; place++) {
    const row = all.subarray(place * TAPS, (place + 1) * TAPS);
    for (let t = 0; t < TAPS; t++) {
      const x = TAPS / 2 - t - place / PLACES;
      row[t] = sinc(x) * kaiser(x / (TAPS / 2), kaiserBeta(REJECTION));
    }
    const sum = row.reduce((a, b) => a + b, 0);
    for (let t = 0; t < TAPS; t++) row[t]! /= sum;
  }
  return all;
}

/** A delay in samples that walks by a step with each sample, of which so many have passed. */
export interface Walk {
  delay: number;
  step: number;
  passed: number;
}

/**
 * A ring of samples that is written once and read at any distance behind. Its length is a power of two; behind its end stands
 * its beginning once more, so that neighbours lie in one piece wherever they are read.
 */
export class DelayLine {
  private readonly samples: Float64Array;
  private readonly mask: number;
  /** Where the next sample stands: within the ring, so that it never matters for how long it has been written. */
  private written = 0;

  /** `longest`: the greatest distance, in samples, at which it is read. */
  constructor(longest: number) {
    // Room for the neighbours that interpolation reads.
    this.mask = 2 ** Math.ceil(Math.log2(longest + TAPS)) - 1;
    this.samples = new Float64Array(this.mask + 1 + TAPS);
  }

  write(sample: number): void {
    const { samples, written, mask } = this;
    samples[written] = sample;
    if (written < TAPS) samples[mask + 1 + written] = sample;
    this.written = (written + 1) & mask;
  }

  /** The sample written `delay` writes ago; 1 is the last. */
  read(delay: number): number {
    return this.samples[(this.written - delay) & this.mask]!;
  }

  /** Between samples, at least 5 behind. The spectrum is flat within 0.1 dB up to 0.7 of the Nyquist frequency. */
  readBetween(delay: number): number {
    return this.between(this.written, delay);
  }

  /**
   * What `readBetween` gave when each of a stretch was the next to be written, its first at `written`, with delays that walk:
   * `delay` + `step` · (`passed` + i). For a stretch that is written before it is read.
   */
  readWalking(out: Float64Array, count: number, written: number, { delay, step, passed }: Walk): void {
    for (let i = 0; i < count; i++) out[i] = this.between(written + i, delay + step * (passed + i));
  }

  private between(written: number, delay: number): number {
    const { samples, mask } = this;
    const w = BETWEEN;
    // Whole numbers by the operator: they are kept as such, which takes a fifth less.
    const whole = delay | 0;
    const place = (delay - whole) * PLACES;
    const row = place | 0;
    const o = (written - whole - HALF) & mask;
    const r = row * TAPS;
    // Tap by tap: a loop over them would take a third more.
    const x0 = samples[o]!;
    const x1 = samples[o + 1]!;
    const x2 = samples[o + 2]!;
    const x3 = samples[o + 3]!;
    const x4 = samples[o + 4]!;
    const x5 = samples[o + 5]!;
    const x6 = samples[o + 6]!;
    const x7 = samples[o + 7]!;
    const x8 = samples[o + 8]!;
    const x9 = samples[o + 9]!;
    const here0 = w[r]! * x0 + w[r + 1]! * x1 + w[r + 2]! * x2 + w[r + 3]! * x3 + w[r + 4]! * x4;
    const here5 = w[r + 5]! * x5 + w[r + 6]! * x6 + w[r + 7]! * x7 + w[r + 8]! * x8 + w[r + 9]! * x9;
    const n = r + TAPS;
    const next0 = w[n]! * x0 + w[n + 1]! * x1 + w[n + 2]! * x2 + w[n + 3]! * x3 + w[n + 4]! * x4;
    const next5 = w[n + 5]! * x5 + w[n + 6]! * x6 + w[n + 7]! * x7 + w[n + 8]! * x8 + w[n + 9]! * x9;
    const here = here0 + here5;
    return here + (place - row) * (next0 + next5 - here);
  }

  writeBlock(samples: Float64Array, count: number): void {
    const { mask, written, samples: line } = this;
    for (let i = 0; i < count; i++) line[(written + i) & mask] = samples[i]!;
    this.written = (written + count) & mask;
    this.meet(written, count);
  }

  /** Writes a stretch of a channel. Returns where its first sample stands. */
  writeFrom(channel: Float32Array, from: number, to: number): number {
    const { mask, written, samples: line } = this;
    const shift = written - from;
    for (let i = from; i < to; i++) line[(shift + i) & mask] = channel[i]!;
    this.written = (shift + to) & mask;
    this.meet(written, to - from);
    return written;
  }

  /** Puts the beginning of the ring behind its end where a stretch from `begin` went over it. */
  private meet(begin: number, count: number): void {
    const { samples, mask } = this;
    if (begin < TAPS || begin + count > mask) for (let t = 0; t < TAPS; t++) samples[mask + 1 + t] = samples[t]!;
  }

  /** The block that ended `delay` samples before the last one written. */
  readBlock(out: Float64Array, count: number, delay: number): void {
    const { samples, mask } = this;
    const start = this.written - count - delay;
    for (let i = 0; i < count; i++) out[i] = samples[(start + i) & mask]!;
  }

  get isSilent(): boolean {
    return isSilent(this.samples);
  }

  clear(): void {
    this.samples.fill(0);
  }
}
