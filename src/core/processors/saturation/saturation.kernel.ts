import { type Biquad, highPassOne } from "../../dsp/biquad";
import { type Drive, type Trace, noDrive, noTrace } from "../../dsp/antiderivative";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID, type Ramp } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import { Oversampler } from "../../dsp/oversampler";
import { type Doublings, oversamplingDelay } from "../../dsp/oversampling";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { HeardValues } from "../../units/param-spec";
import { driveGains } from "./drive";
import { SOFT, softenGently } from "./shaper";

/** A constant is no sound. In Hz. */
export const DC_CORNER = 5;

/** What a channel is put through at the higher rate, and what its curves remember of it. */
export interface Shaped {
  readonly samples: Float64Array;
  readonly traces: readonly [Trace, Trace];
}

/** In seconds: for how long the filters between the rates may remember a sound, amply. */
const RESAMPLED = 0.5;

/** How hard a curve is bent: what is done against its aliases, by how many doublings of the rate. */
const BENT = { gently: 2, firmly: 2, hard: 3, "to the end": 4 } as const satisfies Record<string, Doublings>;
export type Bent = keyof typeof BENT;

/** Up to so many dB of drive what folds back of a soft curve stays as low as it does beyond by more than that. */
export const MOST_GENTLE = 10;

/**
 * Filters, a curve at four times the rate, or at eight or sixteen where it is bent hard, filters; the dry sound waits as long as that
 * takes. The curve's own gains glide, so that a turned drive does not step.
 */
export abstract class SaturationKernel<
  Values extends HeardValues<"drive" | "makeupMode" | "output" | "mix">,
> extends GridKernel {
  protected readonly before = this.ramp();
  protected readonly after = this.ramp();
  private readonly wet = this.ramp();
  private readonly dry = this.ramp();
  protected bent: Bent = "firmly";
  private oversamplers = this.oversampled();
  private shaped: readonly [Shaped, Shaped] = [this.channel(0), this.channel(1)];
  protected factor = this.oversamplers[0].factor;
  private readonly work = [new Float64Array(GRID), new Float64Array(GRID)] as const;
  private readonly late = oversamplingDelay(this.sampleRate);
  private readonly waiting = [new Float64Array(this.late), new Float64Array(this.late)] as const;
  private readonly waitingAt = [0, 0];
  /** The dry sound of this stretch, as late as what is shaped. */
  private readonly waited = new Float64Array(GRID);
  private readonly dcBlock = new GlidingBiquads(1);
  private readonly driven = noDrive();

  constructor(
    sampleRate: number,
    private readonly input: GlidingBiquads,
    private readonly output: GlidingBiquads,
  ) {
    super(sampleRate);
    this.dcBlock.aim([highPassOne({ freq: hertz(DC_CORNER), q: Math.SQRT1_2, sampleRate })], 1, true);
  }

  protected abstract inputSections(values: Values): readonly Biquad[];
  protected abstract outputSections(values: Values): readonly Biquad[];
  protected abstract aimCurve(values: Values, jump: boolean): void;
  /** The curve, or the first of them, as it is drawn: by it the level behind it is set. */
  protected abstract curveOf(values: Values): (x: number) => number;
  /** Shapes `count` samples of the higher rate in place. */
  protected abstract shape(channel: Shaped, count: number): void;

  /** Hard, where four times the rate are too few. */
  protected abstract bentBy(values: Values): Bent;

  fits(values: Values): boolean {
    return this.bent === this.bentBy(values);
  }

  set(values: Values, jump: boolean): void {
    if (jump && !this.fits(values)) this.rebuild(this.bentBy(values));
    const { before, after } = driveGains(values.drive, values.makeupMode, this.curveOf(values));
    const mix = values.mix / 100;
    this.aim(this.before, before, jump);
    this.aim(this.after, after, jump);
    this.aim(this.wet, mix * gainOf(decibels(values.output)), jump);
    this.aim(this.dry, 1 - mix, jump);
    this.input.aim(this.inputSections(values), this.glide, jump);
    this.output.aim(this.outputSections(values), this.glide, jump);
    this.aimCurve(values, jump);
    if (jump) this.forget();
  }

  isAtRest(silence: number): boolean {
    const { input, output, dcBlock } = this;
    return this.isStill && silence > RESAMPLED && input.isAtRest && output.isAtRest && dcBlock.isAtRest;
  }

  reset(): void {
    for (const oversampler of this.oversamplers) oversampler.clear();
    this.forget();
    for (const waiting of this.waiting) waiting.fill(0);
    this.input.clear();
    this.output.clear();
    this.dcBlock.clear();
  }

  /** What its curve stands at in silence. */
  protected atRest(): number {
    return 0;
  }

  protected forget(): void {
    const rest = this.atRest();
    for (const { traces } of this.shaped) {
      keep(traces[0], rest, SOFT.at(rest));
      keep(traces[1], 0, 0);
    }
  }

  protected override tick(): void {
    this.input.tick();
    this.output.tick();
    this.dcBlock.tick();
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    this.pass(0, left, from, to - from);
    this.pass(1, right, from, to - from);
  }

  private pass(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    const work = this.work[channel];
    const oversampler = this.oversamplers[channel];
    for (let i = 0; i < count; i++) work[i] = samples[from + i]!;
    this.input.process(channel, work, count, this.within);
    oversampler.up(work, count);
    this.shape(this.shaped[channel], count * this.factor);
    oversampler.down(work, count);
    this.leave(channel, samples, from, count);
  }

  private oversampled(): readonly [Oversampler, Oversampler] {
    const { sampleRate, bent } = this;
    return [new Oversampler(sampleRate, BENT[bent]), new Oversampler(sampleRate, BENT[bent])];
  }

  private rebuild(bent: Bent): void {
    this.bent = bent;
    this.oversamplers = this.oversampled();
    this.shaped = [this.channel(0), this.channel(1)];
    this.factor = this.oversamplers[0].factor;
  }

  private channel(at: 0 | 1): Shaped {
    return { samples: this.oversamplers[at].high, traces: [noTrace(), noTrace()] };
  }

  /** Takes out of what was shaped, `work`, what the curve made of the level of the sound alone; `dry` is that sound. */
  protected level(_channel: 0 | 1, _dry: Float64Array, _work: Float64Array, _count: number): void {}

  private leave(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    const work = this.work[channel];
    const { waited } = this;
    this.wait(channel, samples, from, count);
    this.level(channel, waited, work, count);
    this.dcBlock.process(channel, work, count, this.within);
    this.output.process(channel, work, count, this.within);
    const wetSlope = slopeOf(this.wet);
    const drySlope = slopeOf(this.dry);
    const { within } = this;
    const wet0 = this.wet.value;
    const dry0 = this.dry.value;
    for (let i = 0; i < count; i++)
      samples[from + i] = (wet0 + wetSlope * (within + i)) * work[i]! + (dry0 + drySlope * (within + i)) * waited[i]!;
  }

  private wait(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    const { late, waited } = this;
    const waiting = this.waiting[channel];
    let at = this.waitingAt[channel]!;
    for (let i = 0; i < count; i++) {
      waited[i] = waiting[at]!;
      waiting[at] = samples[from + i]!;
      at = at + 1 === late ? 0 : at + 1;
    }
    this.waitingAt[channel] = at;
  }

  /** The soft curve, as well as it is bent hard. */
  protected soften(samples: Float64Array, count: number, trace: Trace, drive: Drive): void {
    if (this.bent === "gently") softenGently(samples, count, trace, drive);
    else SOFT.pass(samples, count, trace, drive);
  }

  /** A glide's slope, for samples of the higher rate. */
  protected step(ramp: Ramp): number {
    return slopeOf(ramp) / this.factor;
  }

  /**
   * How a stretch of so many times the rate goes into a curve and comes out of it, by two gains of which the first may be none:
   * the same one each time.
   */
  protected drive(before: Ramp | null, after: Ramp, factor = this.factor): Drive {
    const { driven } = this;
    driven.beforeStep = before ? slopeOf(before) / factor : 0;
    driven.passed = this.within * factor;
    driven.before = before ? before.value : 1;
    driven.afterStep = slopeOf(after) / factor;
    driven.after = after.value;
    driven.offset = driven.offsetStep = driven.rest = driven.restStep = 0;
    return driven;
  }

  /** How many samples of the higher rate have passed since the last point of the grid. */
  protected get passed(): number {
    return this.within * this.factor;
  }
}

export function keep(trace: Trace, input: number, area: number): void {
  trace.input = input;
  trace.area = area;
}
