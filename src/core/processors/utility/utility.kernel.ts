import { highPass, lowPass } from "../../dsp/biquad";
import { crossoverAllPass, twice } from "../../dsp/crossover";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { kWeighting } from "../../dsp/measure/loudness";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { ValuesOf } from "../model";
import type { GAIN, METER, TUNER, WIDTH } from "./utility";
import { PitchTracker } from "./pitch-tracker";

/** Out of each side, how much of each: four gains that glide. */
abstract class MatrixKernel extends GridKernel {
  protected readonly leftLeft = this.ramp();
  protected readonly leftRight = this.ramp();
  protected readonly rightLeft = this.ramp();
  protected readonly rightRight = this.ramp();

  isAtRest(): boolean {
    return this.isStill;
  }

  reset(): void {}

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { leftLeft, leftRight, rightLeft, rightRight } = this;
    const ll = slopeOf(leftLeft);
    const lr = slopeOf(leftRight);
    const rl = slopeOf(rightLeft);
    const rr = slopeOf(rightRight);
    const ll0 = leftLeft.value;
    const lr0 = leftRight.value;
    const rl0 = rightLeft.value;
    const rr0 = rightRight.value;
    const begin = this.within - from;
    for (let i = from; i < to; i++) {
      const n = begin + i;
      const l = left[i]!;
      const r = right[i]!;
      left[i] = (ll0 + ll * n) * l + (lr0 + lr * n) * r;
      right[i] = (rl0 + rl * n) * l + (rr0 + rr * n) * r;
    }
  }
}

class GainKernel extends MatrixKernel {
  set(values: ValuesOf<typeof GAIN>, jump: boolean): void {
    const { gain, polarity, swap } = values;
    const size: number = gainOf(decibels(gain));
    const left = polarity === 1 || polarity === 3 ? -size : size;
    const right = polarity === 2 || polarity === 3 ? -size : size;
    this.aim(this.leftLeft, left * (1 - swap), jump);
    this.aim(this.leftRight, left * swap, jump);
    this.aim(this.rightLeft, right * swap, jump);
    this.aim(this.rightRight, right * (1 - swap), jump);
  }
}

/**
 * Mid and side: the side is scaled, and below a frequency there is none: it passes the high half of a crossover, and the mid the
 * all-pass that both halves add up to, so that they stay in phase and the image above stands where it stood. Balance turns
 * down the other side.
 */
class WidthKernel extends MatrixKernel {
  private readonly sideCut = new GlidingBiquads(2);
  private readonly midTurn = new GlidingBiquads(1);
  private readonly mid = new Float64Array(GRID);
  private readonly side = new Float64Array(GRID);
  private readonly monoShare = this.ramp();

  set(values: ValuesOf<typeof WIDTH>, jump: boolean): void {
    const { width, monoBelow, balance } = values;
    const share = width / 200;
    const left = Math.min(1, 1 - balance / 100);
    const right = Math.min(1, 1 + balance / 100);
    this.aim(this.leftLeft, left * (0.5 + share), jump);
    this.aim(this.leftRight, left * (0.5 - share), jump);
    this.aim(this.rightLeft, right * (0.5 - share), jump);
    this.aim(this.rightRight, right * (0.5 + share), jump);
    const design = { freq: hertz(monoBelow), q: Math.SQRT1_2, sampleRate: this.sampleRate };
    this.sideCut.aim(twice(highPass(design)), this.glide, jump);
    this.midTurn.aim([crossoverAllPass(lowPass(design))], this.glide, jump);
    this.aim(this.monoShare, monoBelow > 20 ? 1 : 0, jump);
  }

  override isAtRest(): boolean {
    return this.isStill && this.sideCut.isAtRest && this.midTurn.isAtRest;
  }

  override reset(): void {
    this.sideCut.clear();
    this.midTurn.clear();
  }

  protected override tick(): void {
    this.sideCut.tick();
    this.midTurn.tick();
  }

  protected override segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { side, mid } = this;
    const share = this.monoShare.value;
    const slope = slopeOf(this.monoShare);
    const count = to - from;
    for (let i = 0; i < count; i++) {
      mid[i] = (left[from + i]! + right[from + i]!) / 2;
      side[i] = (left[from + i]! - right[from + i]!) / 2;
    }
    this.sideCut.process(0, side, count, this.within);
    this.midTurn.process(0, mid, count, this.within);
    if (share > 0 || slope !== 0)
      for (let i = 0; i < count; i++) {
        const now = share + slope * (this.within + i);
        const l = left[from + i]!;
        const r = right[from + i]!;
        left[from + i] = l + now * (mid[i]! + side[i]! - l);
        right[from + i] = r + now * (mid[i]! - side[i]! - r);
      }
    super.segment(left, right, from, to);
  }
}

/** Passes the sound on, or not; reads its pitch in Hz. */
class TunerKernel extends MatrixKernel {
  private readonly tracker = new PitchTracker(this.sampleRate);

  set(values: ValuesOf<typeof TUNER>, jump: boolean): void {
    const open = values.mute === 1 ? 0 : 1;
    this.aim(this.leftLeft, open, jump);
    this.aim(this.rightRight, open, jump);
  }

  /** It goes on hearing: silence has no pitch. */
  override isAtRest(): boolean {
    return false;
  }

  override reset(): void {
    this.tracker.clear();
  }

  override reading(): number {
    return this.tracker.pitch;
  }

  protected override tick(): void {
    this.tracker.work();
  }

  protected override segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    for (let i = from; i < to; i++) this.tracker.hear((left[i]! + right[i]!) / 2);
    super.segment(left, right, from, to);
  }
}

/** In seconds: the window of momentary loudness, ITU-R BS.1770. */
const MOMENTARY = 0.4;
/** What silence is shown as. */
const FLOOR = -120;

/** Passes the sound on bit for bit; reads its momentary loudness in LUFS. */
class MeterKernel extends GridKernel {
  private readonly weighting = new GlidingBiquads(2);
  private readonly work = new Float64Array(GRID);
  private readonly powers = new Float64Array(Math.round((MOMENTARY * this.sampleRate) / GRID));
  private at = 0;
  private power = 0;
  private sum = 0;

  constructor(sampleRate: number) {
    super(sampleRate);
    this.weighting.aim(kWeighting(sampleRate), 1, true);
  }

  set(): void {}

  reset(): void {
    this.weighting.clear();
    this.powers.fill(0);
    this.sum = this.power = 0;
  }

  override reading(): number {
    const mean = this.sum / (this.powers.length * GRID);
    return mean > 1e-12 ? Math.max(FLOOR, -0.691 + 10 * Math.log10(mean)) : FLOOR;
  }

  protected override tick(): void {
    this.weighting.tick();
    this.sum += this.power - this.powers[this.at]!;
    this.powers[this.at] = this.power;
    this.power = 0;
    this.at = (this.at + 1) % this.powers.length;
    // A running sum drifts by the last bit: once round, it is counted anew.
    if (this.at === 0) this.sum = this.powers.reduce((a, b) => a + b, 0);
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    this.add(0, left, from, to);
    this.add(1, right, from, to);
  }

  private add(channel: 0 | 1, samples: Float32Array, from: number, to: number): void {
    const { work } = this;
    const count = to - from;
    for (let i = 0; i < count; i++) work[i] = samples[from + i]!;
    this.weighting.process(channel, work, count, this.within);
    for (let i = 0; i < count; i++) this.power += work[i]! * work[i]!;
  }
}

export const createGain = (sampleRate: number): Kernel<ValuesOf<typeof GAIN>> => new GainKernel(sampleRate);
export const createWidth = (sampleRate: number): Kernel<ValuesOf<typeof WIDTH>> => new WidthKernel(sampleRate);
export const createTuner = (sampleRate: number): Kernel<ValuesOf<typeof TUNER>> => new TunerKernel(sampleRate);
export const createMeter = (sampleRate: number): Kernel<ValuesOf<typeof METER>> => new MeterKernel(sampleRate);
