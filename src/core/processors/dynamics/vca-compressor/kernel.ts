import { slopeOf } from "../../grid-kernel";
import { KeyedKernel } from "../../keyed-kernel";
import type { Kernel } from "../../kernel";
import { gainOf } from "../../../units/quantities";
import type { HeardValues } from "../../model";
import { makeupOf, smoothing, staticCurve } from "./design";

const DECIBELS_PER_NEPER = 20 / Math.LN10;
const NEPERS_PER_DECIBEL = Math.LN10 / 20;

/** A reduction smaller than this, in dB, is none; it also keeps a long release from running into denormals. */
const NO_REDUCTION = 1e-7;

/**
 * Feed-forward, linked by the louder channel, the reduction smoothed in dB with one branch for attack and one for
 * release (Giannoulis, Massberg and Reiss 2012, the "smooth branching" detector in the log domain).
 */
class VcaCompressorKernel extends KeyedKernel {
  private readonly threshold = this.ramp();
  private readonly slope = this.ramp();
  private readonly knee = this.ramp();
  private readonly wet = this.ramp(1);
  private readonly dry = this.ramp();
  private attack = 0;
  private release = 0;
  /** In dB, 0 or below. */
  private envelope = 0;

  set(values: HeardValues, jump: boolean): void {
    const curve = staticCurve(values);
    const mix = (values.mix ?? 100) / 100;
    this.attack = smoothing(values.attack ?? 1, this.sampleRate);
    this.release = smoothing(values.release ?? 1, this.sampleRate);
    this.aim(this.threshold, curve.threshold, jump);
    this.aim(this.slope, curve.slope, jump);
    this.aim(this.knee, curve.knee, jump);
    this.aim(this.wet, mix * gainOf(makeupOf(values)), jump);
    this.aim(this.dry, 1 - mix, jump);
  }

  reset(): void {
    this.envelope = 0;
  }

  override reading(): number {
    return this.envelope;
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { attack, release } = this;
    const threshold = this.threshold.value;
    const slope = this.slope.value;
    const knee = this.knee.value;
    const quiet = gainOf((threshold - knee / 2) as Parameters<typeof gainOf>[0]);
    const begin = this.within;
    const wetSlope = slopeOf(this.wet);
    const drySlope = slopeOf(this.dry);
    const keyLeft = this.heardLeft(left);
    const keyRight = this.heardRight(right);
    const { shift } = this;
    const wetNow = this.wet.value;
    const dryNow = this.dry.value;
    let envelope = this.envelope;
    for (let i = from; i < to; i++) {
      const l = Math.abs(keyLeft[i + shift]!);
      const r = Math.abs(keyRight[i + shift]!);
      const level = l > r ? l : r;
      let asked = 0;
      if (level > quiet) {
        const over = DECIBELS_PER_NEPER * Math.log(level) - threshold;
        asked = 2 * over < knee ? (-slope * (over + knee / 2) ** 2) / (2 * knee) : -slope * over;
      }
      const coefficient = asked < envelope ? attack : release;
      envelope = asked + coefficient * (envelope - asked);
      if (envelope > -NO_REDUCTION) envelope = 0;
      const n = begin + i - from;
      const wet = wetNow + wetSlope * n;
      const dry = dryNow + drySlope * n;
      const gain = dry + (envelope === 0 ? wet : wet * Math.exp(envelope * NEPERS_PER_DECIBEL));
      left[i] = left[i]! * gain;
      right[i] = right[i]! * gain;
    }
    this.envelope = envelope;
  }
}

export const createVcaCompressor = (sampleRate: number): Kernel => new VcaCompressorKernel(sampleRate);
