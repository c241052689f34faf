import { butterworthQs, lowPass } from "../../dsp/biquad";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import type { Kernel } from "../kernel";
import { KeyedKernel } from "../keyed-kernel";
import { slopeOf } from "../grid-kernel";
import { GRID } from "../../dsp/grid";
import { PeakHold } from "../../dsp/peak-hold";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { HeardValues } from "../../units/param-spec";
import type { ValuesOf } from "../model";
import { holdsPeaks } from "./detector";
import { type FET_COMPRESSOR, fetCurve } from "./fet-compressor";
import { type OPTO_COMPRESSOR, OPTO_ATTACK, OPTO_FAST_RELEASE, OPTO_MEMORY, optoCurve } from "./opto-compressor";
import { DECIBELS_PER_NEPER, factorOf, followed, held, smoothing } from "./reduction";
import { type StaticCurve, makeupOf } from "./static-curve";
import { type VCA_COMPRESSOR, vcaCurve } from "./vca-compressor";

type CompressorValues = HeardValues<"hears" | "makeupMode" | "makeup" | "mix" | "release">;

/**
 * Feed-forward, linked by the louder channel, a soft knee; the reduction follows by one branch for attack
 * and one for release. How it follows, and what the sound is put through, may be the model's own.
 */
abstract class CompressorKernel extends KeyedKernel {
  private readonly threshold = this.ramp();
  private readonly slope = this.ramp();
  private readonly knee = this.ramp();
  private readonly wet = this.ramp();
  private readonly dry = this.ramp();
  private readonly peaks = new PeakHold(this.sampleRate);
  /** Of the stretch at hand: the level, what is asked for in dB, then what is done in dB, then the gains. */
  private readonly work = new Float64Array(GRID);
  protected readonly less = [new Float64Array(GRID), new Float64Array(GRID)] as const;
  protected attack = 0;
  protected release = 0;
  /** In dB, 0 or below. */
  protected now = 0;

  protected aimAt(curve: StaticCurve, values: CompressorValues, jump: boolean): void {
    const mix = values.mix / 100;
    this.peaks.holds = holdsPeaks(values);
    this.release = smoothing(values.release, this.sampleRate);
    this.aim(this.threshold, curve.threshold, jump);
    this.aim(this.slope, curve.slope, jump);
    this.aim(this.knee, curve.knee, jump);
    this.aim(this.wet, mix * gainOf(makeupOf(values, curve)), jump);
    this.aim(this.dry, 1 - mix, jump);
  }

  /** The attack is by far through; a release that is longer is let go as it comes. */
  settling(): number {
    return Math.max(0.3, -5 / (Math.log(this.attack) * this.sampleRate));
  }

  reset(): void {
    this.now = 0;
    this.peaks.reset();
  }

  protected override tick(): void {
    this.peaks.tick();
  }

  override reading(): number {
    return this.now;
  }

  /** Turns what is asked for, sample by sample, into what is done. */
  protected follow(asked: Float64Array, count: number): void {
    const { attack, release } = this;
    let { now } = this;
    for (let i = 0; i < count; i++) asked[i] = now = followed(now, asked[i]!, attack, release);
    this.now = now;
  }

  /** What its parts take away of the sound that is turned down, into `less`: nothing, where none do. */
  protected colour(_left: Float32Array, _right: Float32Array, _from: number, _count: number): void {}

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { work } = this;
    const count = to - from;
    this.ask(left, right, from, count);
    this.follow(work, count);
    const wetSlope = slopeOf(this.wet);
    const drySlope = slopeOf(this.dry);
    const wet0 = this.wet.value;
    const dry0 = this.dry.value;
    const { within } = this;
    const { less } = this;
    this.colour(left, right, from, count);
    for (let i = 0; i < count; i++) {
      const n = within + i;
      const wet = (wet0 + wetSlope * n) * factorOf(work[i]!);
      const dry = dry0 + drySlope * n;
      const at = from + i;
      left[at] = dry * left[at]! + wet * (left[at]! - less[0][i]!);
      right[at] = dry * right[at]! + wet * (right[at]! - less[1][i]!);
    }
  }

  private ask(left: Float32Array, right: Float32Array, from: number, count: number): void {
    const { work } = this;
    const threshold = this.threshold.value;
    const slope = this.slope.value;
    const knee = this.knee.value;
    const quiet = gainOf(decibels(threshold - knee / 2));
    const keyLeft = this.heardLeft(left);
    const keyRight = this.heardRight(right);
    const begin = from + this.shift;
    for (let i = 0; i < count; i++) work[i] = Math.max(Math.abs(keyLeft[begin + i]!), Math.abs(keyRight[begin + i]!));
    this.peaks.hold(work, count);
    let askedFor = -1;
    let ask = 0;
    for (let i = 0; i < count; i++) {
      const level = work[i]!;
      // As `gainAt`, with no object to hold the curve, and worked out once for as long as the level is held.
      if (level !== askedFor) {
        askedFor = level;
        const over = level > quiet ? DECIBELS_PER_NEPER * Math.log(level) - threshold : -knee / 2;
        ask = 2 * over >= knee ? -slope * over : over > -knee / 2 ? (-slope * (over + knee / 2) ** 2) / (2 * knee) : 0;
      }
      work[i] = ask;
    }
  }
}

class VcaCompressorKernel extends CompressorKernel {
  set(values: ValuesOf<typeof VCA_COMPRESSOR>, jump: boolean): void {
    this.attack = smoothing(values.attack, this.sampleRate);
    this.aimAt(vcaCurve(values), values, jump);
  }
}

/**
 * A light cell: half of the reduction fades fast, the other half slowly, and the slow half is there only as far as the
 * cell was lit for long.
 */
class OptoCompressorKernel extends CompressorKernel {
  private readonly fast = smoothing(OPTO_FAST_RELEASE, this.sampleRate);
  private readonly charge = smoothing(OPTO_MEMORY, this.sampleRate);
  private lit = 0;
  private memory = 0;

  set(values: ValuesOf<typeof OPTO_COMPRESSOR>, jump: boolean): void {
    this.attack = smoothing(OPTO_ATTACK, this.sampleRate);
    this.aimAt(optoCurve(values), values, jump);
  }

  override reset(): void {
    super.reset();
    this.lit = this.memory = 0;
  }

  protected override follow(asked: Float64Array, count: number): void {
    const { attack, fast, charge, release } = this;
    let { lit, memory } = this;
    for (let i = 0; i < count; i++) {
      lit = followed(lit, asked[i]!, attack, fast);
      memory = held(lit + (lit < memory ? charge : release) * (memory - lit));
      asked[i] = Math.min(lit, memory / 2);
    }
    this.lit = lit;
    this.memory = memory;
    this.now = asked[count - 1]!;
  }
}

/**
 * Fast to a fraction of a millisecond, and coloured by its transistor: a share of the third harmonic, of what lies low
 * enough that the harmonic is heard, so that none folds back.
 */
class FetCompressorKernel extends CompressorKernel {
  private readonly amount = this.ramp();
  private readonly lows = new GlidingBiquads(FET_BAND.length);

  constructor(sampleRate: number) {
    super(sampleRate);
    const sections = FET_BAND.map((q) => lowPass({ freq: hertz(FET_TOP), q, sampleRate }));
    this.lows.aim(sections, 1, true);
  }

  set(values: ValuesOf<typeof FET_COMPRESSOR>, jump: boolean): void {
    this.attack = smoothing(values.attack, this.sampleRate);
    this.aim(this.amount, (values.colour / 100) * FET_COLOUR, jump);
    this.aimAt(fetCurve(values), values, jump);
  }

  override reset(): void {
    super.reset();
    this.lows.clear();
  }

  protected override tick(): void {
    super.tick();
    this.lows.tick();
  }

  protected override colour(left: Float32Array, right: Float32Array, from: number, count: number): void {
    this.take(0, left, from, count);
    this.take(1, right, from, count);
  }

  /** Beyond full scale it goes on straight, so that it never turns round. */
  private take(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    const less = this.less[channel];
    const amount = this.amount.value;
    for (let i = 0; i < count; i++) less[i] = samples[from + i]!;
    this.lows.process(channel, less, count, this.within);
    for (let i = 0; i < count; i++) {
      const x = less[i]!;
      const size = Math.abs(x);
      less[i] = amount * (size <= 1 ? x * x * x : Math.sign(x) * (3 * size - 2));
    }
  }
}

/** In Hz: the third harmonic of what lies above is not heard. A Butterworth filter of the fourth order. */
const FET_TOP = 6000;
const FET_BAND = butterworthQs(4);

/** At full colour a sine at full scale has its third harmonic 30 dB below it: x − c·x³ holds c/4 of it. */
const FET_COLOUR = 0.12;

export const createVcaCompressor = (sampleRate: number): Kernel<ValuesOf<typeof VCA_COMPRESSOR>> =>
  new VcaCompressorKernel(sampleRate);
export const createOptoCompressor = (sampleRate: number): Kernel<ValuesOf<typeof OPTO_COMPRESSOR>> =>
  new OptoCompressorKernel(sampleRate);
export const createFetCompressor = (sampleRate: number): Kernel<ValuesOf<typeof FET_COMPRESSOR>> =>
  new FetCompressorKernel(sampleRate);
