import { BETWEEN_TAPS, BetweenReader, MOST_BETWEEN } from "../../dsp/between";
import { GRID, aimRamp, jumpRamp } from "../../dsp/grid";
import { SlidingLeast, SlidingMean } from "../../dsp/sliding";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { decibels, gainOf } from "../../units/quantities";
import { type ValuesOf, samplesAhead } from "../model";
import { HOLD, LIMITER } from "./limiter";
import { smoothing } from "./reduction";

/** Samples before the newest that a peak between two of them is read by. */
const BEHIND = BETWEEN_TAPS - 1;

/** In ms: how fast the second stage of the release takes up a gain that goes on being needed, and how slowly it lets go of it. */
const SLOW_ATTACK = 300;
const SLOW_RELEASE = 1500;

/** The gain before it arrives later than the ceiling, so that a preset that is louder but held lower does not swell between. */
const GAIN_GLIDES = 2;

/** What is nearer to 1 is 1. */
const NEARLY_ONE = 1 - 1e-9;

/** One channel as its detector hears it: the samples of this stretch behind those before. */
class Listened {
  readonly samples = new Float64Array(BEHIND + GRID);
  readonly reader = new BetweenReader();

  reset(): void {
    this.samples.fill(0);
    this.reader.reset();
  }
}

/**
 * Nothing leaves above the ceiling, between samples neither. What each pair of samples needs is read at four times their rate; it is
 * held as a minimum over the look-ahead and a while behind, released, and averaged twice over the look-ahead, so that it has arrived,
 * without a corner, when the sample does. The release has two stages: at once as far as lies above what has been needed for long, the
 * rest slowly; so a blow lets go soon, and a loud stretch does not pump.
 *
 * Law: the gain of a sample is never above what the pair before it and the pair behind it need.
 */
class LimiterKernel extends GridKernel {
  private readonly gain = this.ramp();
  private readonly ceiling = this.ramp();
  private readonly heard = [new Listened(), new Listened()] as const;
  private readonly needs = new Float64Array(GRID);
  private readonly delayedLeft: Float64Array;
  private readonly delayedRight: Float64Array;
  /** The ceiling by which each of the delayed samples was judged. */
  private readonly ceilings: Float64Array;
  private readonly least: SlidingLeast;
  private readonly first: SlidingMean;
  private readonly second: SlidingMean;
  private readonly slowAttack: number;
  private readonly slowRelease: number;
  private ring = 0;
  private released = 1;
  private slow = 1;
  private release = 0;
  private deepest = 1;

  constructor(sampleRate: number) {
    super(sampleRate);
    const ahead = samplesAhead(LIMITER, sampleRate);
    const late = LIMITER.latency + ahead;
    this.delayedLeft = new Float64Array(late);
    this.delayedRight = new Float64Array(late);
    this.ceilings = new Float64Array(late);
    this.least = new SlidingLeast(ahead + 2 + Math.round((HOLD * sampleRate) / 1000));
    // Both together reach over `ahead` + 1 samples.
    const half = Math.floor(ahead / 2) + 1;
    this.first = new SlidingMean(half);
    this.second = new SlidingMean(ahead + 2 - half);
    this.slowAttack = smoothing(SLOW_ATTACK, sampleRate);
    this.slowRelease = smoothing(SLOW_RELEASE, sampleRate);
  }

  set(values: ValuesOf<typeof LIMITER>, jump: boolean): void {
    this.release = smoothing(values.release, this.sampleRate);
    const gain = gainOf(decibels(values.gain));
    if (jump) jumpRamp(this.gain, gain);
    else aimRamp(this.gain, gain, GAIN_GLIDES * this.glide);
    this.aim(this.ceiling, gainOf(decibels(values.ceiling)), jump);
    if (jump) this.ceilings.fill(this.ceiling.value);
  }

  reset(): void {
    for (const one of this.heard) one.reset();
    this.delayedLeft.fill(0);
    this.delayedRight.fill(0);
    this.ceilings.fill(this.ceiling.value);
    this.least.reset();
    this.first.reset();
    this.second.reset();
    this.ring = 0;
    this.released = this.slow = this.deepest = 1;
  }

  override reading(): number {
    return this.deepest >= 1 ? 0 : 20 * Math.log10(this.deepest);
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const count = to - from;
    this.hear(left, right, from, count);
    this.findNeeds(count);
    const ceilingSlope = slopeOf(this.ceiling);
    const [{ samples: heardLeft }, { samples: heardRight }] = this.heard;
    const late = this.delayedLeft.length;
    let deepest = 1;
    for (let n = 0; n < count; n++) {
      const judgedBy = this.ceilings[this.ring]!;
      const done = this.second.push(this.first.push(this.follow(this.least.push(this.needs[n]!))));
      if (done < deepest) deepest = done;
      const i = from + n;
      left[i] = clampTo(this.delayedLeft[this.ring]! * done, judgedBy);
      right[i] = clampTo(this.delayedRight[this.ring]! * done, judgedBy);
      this.ceilings[this.ring] = this.ceiling.value + ceilingSlope * (this.within + n);
      this.delayedLeft[this.ring] = heardLeft[BEHIND + n]!;
      this.delayedRight[this.ring] = heardRight[BEHIND + n]!;
      this.ring = this.ring + 1 === late ? 0 : this.ring + 1;
    }
    this.deepest = deepest;
    for (const { samples } of this.heard) samples.copyWithin(0, count, count + BEHIND);
  }

  /** Takes a stretch in, louder by the gain. */
  private hear(left: Float32Array, right: Float32Array, from: number, count: number): void {
    const slope = slopeOf(this.gain);
    const [{ samples: heardLeft }, { samples: heardRight }] = this.heard;
    for (let n = 0; n < count; n++) {
      const gain = this.gain.value + slope * (this.within + n);
      heardLeft[BEHIND + n] = left[from + n]! * gain;
      heardRight[BEHIND + n] = right[from + n]! * gain;
    }
  }

  /** By how much each pair of samples, the newest 48 samples ago, has to be turned down. */
  private findNeeds(count: number): void {
    const slope = slopeOf(this.ceiling);
    const { value, left } = this.ceiling;
    const lowest = Math.min(value, left > 0 ? value + slope * GRID : value);
    const { needs } = this;
    needs.fill(1, 0, count);
    for (const { samples, reader } of this.heard) {
      let highest = 0;
      for (let i = 0; i < BEHIND + count; i++) highest = Math.max(highest, Math.abs(samples[i]!));
      if (highest * MOST_BETWEEN <= lowest) {
        reader.skip(samples, BEHIND + count - 1);
        continue;
      }
      for (let n = 0; n < count; n++) {
        const ceiling = value + slope * (this.within + n);
        const peak = reader.peak(samples, BEHIND + n);
        if (peak * needs[n]! > ceiling) needs[n] = ceiling / peak;
      }
    }
  }

  /** Down at once, up in two stages. */
  private follow(least: number): number {
    const { slow } = this;
    const next = least + (least < slow ? this.slowAttack : this.slowRelease) * (slow - least);
    this.slow = next > NEARLY_ONE ? 1 : next;
    const target = Math.min(least, this.slow);
    const released = least < this.released ? least : target + this.release * (this.released - target);
    this.released = released > NEARLY_ONE ? 1 : released;
    return this.released;
  }
}

/** What rounding leaves above the ceiling. */
const clampTo = (x: number, ceiling: number): number => Math.min(ceiling, Math.max(-ceiling, x));

export const createLimiter = (sampleRate: number): Kernel<ValuesOf<typeof LIMITER>> => new LimiterKernel(sampleRate);
