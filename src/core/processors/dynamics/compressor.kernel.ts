import type { Kernel } from "../kernel";
import { KeyedKernel } from "../keyed-kernel";
import { slopeOf } from "../grid-kernel";
import { decibels, gainOf } from "../../units/quantities";
import type { HeardValues } from "../model";
import { fetCurve } from "./fet-compressor";
import { OPTO_ATTACK, OPTO_FAST_RELEASE, OPTO_MEMORY, automaticMakeup, optoCurve } from "./opto-compressor";
import { type StaticCurve, smoothing } from "./vca-compressor/design";

const DECIBELS_PER_NEPER = 20 / Math.LN10;
const NEPERS_PER_DECIBEL = Math.LN10 / 20;
/** A reduction smaller than this, in dB, is none; it also keeps a long release from running into denormals. */
const NO_REDUCTION = 1e-6;

/** Feed-forward, linked by the louder channel, a soft knee: what follows the asked-for reduction is the model's own. */
abstract class CompressorKernel extends KeyedKernel {
  private readonly threshold = this.ramp();
  private readonly slope = this.ramp();
  private readonly knee = this.ramp();
  private readonly wet = this.ramp(1);
  protected readonly dry = this.ramp();
  /** In dB, 0 or below. */
  protected readonly asked = new Float64Array(32);
  protected now = 0;

  protected aimCurve(curve: StaticCurve, values: HeardValues, jump: boolean): void {
    const makeup = values.makeupMode === 1 ? automaticMakeup(curve) : (values.makeup ?? 0);
    const mix = (values.mix ?? 100) / 100;
    this.aim(this.threshold, curve.threshold, jump);
    this.aim(this.slope, curve.slope, jump);
    this.aim(this.knee, curve.knee, jump);
    this.aim(this.wet, mix * gainOf(decibels(makeup)), jump);
    this.aim(this.dry, 1 - mix, jump);
  }

  override reading(): number {
    return this.now;
  }

  /** Turns what is asked for, sample by sample, into what is done. */
  protected abstract follow(asked: Float64Array, count: number): void;

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { asked } = this;
    const threshold = this.threshold.value;
    const slope = this.slope.value;
    const knee = this.knee.value;
    const quiet = gainOf(decibels(threshold - knee / 2));
    const keyLeft = this.heardLeft(left);
    const keyRight = this.heardRight(right);
    const { shift } = this;
    for (let i = from; i < to; i++) {
      const level = Math.max(Math.abs(keyLeft[i + shift]!), Math.abs(keyRight[i + shift]!));
      let ask = 0;
      if (level > quiet) {
        const over = DECIBELS_PER_NEPER * Math.log(level) - threshold;
        ask = 2 * over < knee ? (-slope * (over + knee / 2) ** 2) / (2 * knee) : -slope * over;
      }
      asked[i - from] = ask;
    }
    this.follow(asked, to - from);
    const wetSlope = slopeOf(this.wet);
    const wetNow = this.wet.value;
    for (let i = 0; i < to - from; i++) {
      const done = asked[i]!;
      const wet = wetNow + wetSlope * (this.within + i);
      asked[i] = done === 0 ? wet : wet * Math.exp(done * NEPERS_PER_DECIBEL);
    }
    this.finish(left, right, from, to);
  }

  /** Puts the gains that stand in `asked` on the sound, beside the dry one. */
  protected finish(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { asked } = this;
    const drySlope = slopeOf(this.dry);
    const dryNow = this.dry.value;
    for (let i = from; i < to; i++) {
      const gain = asked[i - from]! + dryNow + drySlope * (this.within + i - from);
      left[i]! *= gain;
      right[i]! *= gain;
    }
  }
}

/**
 * A light cell: half of the reduction fades fast, the other half slowly, and the slow half is there only as far as the
 * cell was lit for long.
 */
class OptoCompressorKernel extends CompressorKernel {
  private readonly attack = smoothing(OPTO_ATTACK, this.sampleRate);
  private readonly fast = smoothing(OPTO_FAST_RELEASE, this.sampleRate);
  private readonly charge = smoothing(OPTO_MEMORY, this.sampleRate);
  private release = 0;
  private lit = 0;
  private memory = 0;

  set(values: HeardValues, jump: boolean): void {
    this.release = smoothing(values.release ?? 1200, this.sampleRate);
    this.aimCurve(optoCurve(values), values, jump);
  }

  reset(): void {
    this.lit = this.memory = this.now = 0;
  }

  protected follow(asked: Float64Array, count: number): void {
    const { attack, fast, charge, release } = this;
    let { lit, memory } = this;
    for (let i = 0; i < count; i++) {
      const ask = asked[i]!;
      lit = ask + (ask < lit ? attack : fast) * (lit - ask);
      memory = lit + (lit < memory ? charge : release) * (memory - lit);
      if (lit > -NO_REDUCTION) lit = 0;
      if (memory > -NO_REDUCTION) memory = 0;
      asked[i] = Math.min(lit, memory / 2);
    }
    this.lit = lit;
    this.memory = memory;
    this.now = asked[count - 1]!;
  }
}

/** Fast to a fraction of a millisecond, and coloured by its transistor: a share of the third harmonic. */
class FetCompressorKernel extends CompressorKernel {
  private readonly colour = this.ramp();
  private attack = 0;
  private release = 0;

  set(values: HeardValues, jump: boolean): void {
    this.attack = smoothing(values.attack ?? 1, this.sampleRate);
    this.release = smoothing(values.release ?? 100, this.sampleRate);
    this.aim(this.colour, (values.colour ?? 0) / 100, jump);
    this.aimCurve(fetCurve(values), values, jump);
  }

  reset(): void {
    this.now = 0;
  }

  protected follow(asked: Float64Array, count: number): void {
    const { attack, release } = this;
    let now = this.now;
    for (let i = 0; i < count; i++) {
      const ask = asked[i]!;
      now = ask + (ask < now ? attack : release) * (now - ask);
      if (now > -NO_REDUCTION) now = 0;
      asked[i] = now;
    }
    this.now = now;
  }

  protected override finish(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { asked } = this;
    const colour = this.colour.value * FET_COLOUR;
    const drySlope = slopeOf(this.dry);
    const dryNow = this.dry.value;
    for (let i = from; i < to; i++) {
      const wet = asked[i - from]!;
      const dry = dryNow + drySlope * (this.within + i - from);
      left[i] = dry * left[i]! + wet * bend(left[i]!, colour);
      right[i] = dry * right[i]! + wet * bend(right[i]!, colour);
    }
  }
}

/** At full colour a sine at full scale has its third harmonic 30 dB below it: x − c·x³ holds c/4 of it. */
const FET_COLOUR = 0.12;

/** Beyond full scale it goes on straight, so that it never folds back. */
function bend(x: number, colour: number): number {
  const size = Math.abs(x);
  return size <= 1 ? x - colour * x * x * x : x - colour * Math.sign(x) * (3 * size - 2);
}

export const createOptoCompressor = (sampleRate: number): Kernel => new OptoCompressorKernel(sampleRate);
export const createFetCompressor = (sampleRate: number): Kernel => new FetCompressorKernel(sampleRate);
