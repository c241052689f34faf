import { type Biquad, bell, highPass, highPassOne, lowPass } from "../../dsp/biquad";
import { type Drive, type Trace, noDrive, noTrace } from "../../dsp/antiderivative";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID, type Ramp } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { Oversampler } from "../../dsp/oversampler";
import { type Doublings, oversamplingDelay } from "../../dsp/oversampling";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { HeardValues } from "../../units/param-spec";
import type { ValuesOf } from "../model";
import { type AMPLIFIER, PREAMP_OFFSET, cabinetSections, preampCurve, toneSections } from "./amplifier";
import { driveGains } from "./drive";
import type { OVERDRIVE } from "./overdrive";
import { HARD, SOFT, hardClip, evenGently, softClip, softenGently } from "./shaper";
import { type TAPE, TAPE_SPEEDS, tapeCurve, tapeDent, tapeDented } from "./tape";
import { type TUBE, tubeCurve, tubeOffset } from "./tube";

/** A constant is no sound. In Hz. */
const DC_CORNER = 5;

/**
 * What a lopsided curve makes of the level alone is no sound either, and comes and goes with each tone: below this it is
 * taken out of the even half of the curve, and of that only, so that a quiet low note passes as it came. In Hz.
 */
const PEDESTAL_CORNER = 40;

/** What is to be taken out of the even half so that, once the constant is taken too, it is left as by a Butterworth high-pass. */
function pedestal(sampleRate: number): Biquad {
  const { b0, a1, a2 } = highPass({ freq: hertz(PEDESTAL_CORNER), q: Math.SQRT1_2, sampleRate });
  const constant = highPassOne({ freq: hertz(DC_CORNER), q: Math.SQRT1_2, sampleRate });
  // One of the two zeros at a constant is left to the filter that takes the constant, and its pole stands in for it.
  const left = b0 / constant.b0;
  return { b0: 1 - left, b1: a1 - left * (constant.a1 - 1), b2: a2 + left * constant.a1, a1, a2 };
}

/** What a channel is put through at the higher rate, and what its curves remember of it. */
interface Shaped {
  readonly samples: Float64Array;
  readonly traces: readonly [Trace, Trace];
}

/** In seconds: for how long the filters between the rates may remember a sound, amply. */
const RESAMPLED = 0.5;

/** How hard a curve is bent: what is done against its aliases, by how many doublings of the rate. */
const BENT = { gently: 2, firmly: 2, hard: 3 } as const satisfies Record<string, Doublings>;
type Bent = keyof typeof BENT;

/** Up to so many dB of drive what folds back of a soft curve stays as low as it does beyond by more than that. */
const MOST_GENTLE = 10;

/**
 * Filters, a curve at four times the rate, or at eight where it is bent hard, filters; the dry sound waits as long as that
 * takes. The curve's own gains glide, so that a turned drive does not step.
 */
abstract class SaturationKernel<
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

class TapeKernel extends SaturationKernel<ValuesOf<typeof TAPE>> {
  private readonly dent = this.ramp();

  constructor(sampleRate: number) {
    super(sampleRate, new GlidingBiquads(1), new GlidingBiquads(2));
  }

  protected inputSections(values: ValuesOf<typeof TAPE>): readonly Biquad[] {
    const { bump } = TAPE_SPEEDS[values.speed] ?? TAPE_SPEEDS[1];
    return [bell({ freq: hertz(bump), q: 0.9, sampleRate: this.sampleRate }, decibels(values.bump))];
  }

  protected outputSections(values: ValuesOf<typeof TAPE>): readonly Biquad[] {
    const { highs } = TAPE_SPEEDS[values.speed] ?? TAPE_SPEEDS[1];
    const soft = lowPass({ freq: hertz(highs), q: 0.6, sampleRate: this.sampleRate });
    const rumble = highPass({ freq: hertz(18), q: Math.SQRT1_2, sampleRate: this.sampleRate });
    return [rumble, soft];
  }

  protected aimCurve(values: ValuesOf<typeof TAPE>, jump: boolean): void {
    this.aim(this.dent, tapeDent(values.bias), jump);
  }

  protected curveOf(values: ValuesOf<typeof TAPE>) {
    return tapeCurve(values.bias);
  }

  protected bentBy({ drive, bias }: ValuesOf<typeof TAPE>): Bent {
    // The dent is a curve of its own before the soft one, and nothing is done against its aliases but the higher rate.
    if (tapeDent(bias) > 0) return drive > 6 ? "hard" : "firmly";
    return drive > MOST_GENTLE ? "firmly" : "gently";
  }

  protected shape({ samples, traces }: Shaped, count: number): void {
    const before = this.before.value;
    const beforeStep = this.step(this.before);
    const dent = this.dent.value;
    const { passed } = this;
    for (let i = 0; i < count; i++) samples[i] = tapeDented((before + beforeStep * (passed + i)) * samples[i]!, dent);
    this.soften(samples, count, traces[0], this.drive(null, this.after));
  }
}

class TubeKernel extends SaturationKernel<ValuesOf<typeof TUBE>> {
  private readonly offset = this.ramp();
  private readonly pedestal = new GlidingBiquads(1);
  private readonly even = new Float64Array(GRID);
  private readonly mirrored = new Float64Array(GRID);
  /** Of each channel what the curve remembers, the right way up and upside down. */
  private readonly slow = [
    [noTrace(), noTrace()],
    [noTrace(), noTrace()],
  ] as const;

  constructor(sampleRate: number) {
    super(sampleRate, new GlidingBiquads(0), new GlidingBiquads(0));
    this.pedestal.aim([pedestal(sampleRate)], 1, true);
  }

  override isAtRest(silence: number): boolean {
    return super.isAtRest(silence) && this.pedestal.isAtRest;
  }

  override reset(): void {
    super.reset();
    this.pedestal.clear();
  }

  protected override forget(): void {
    super.forget();
    const rest = this.atRest();
    for (const traces of this.slow) for (const trace of traces) keep(trace, rest, SOFT.at(rest));
  }

  protected override tick(): void {
    super.tick();
    this.pedestal.tick();
  }

  /** The even half of the curve needs no higher rate here: only what it has below some hundred hertz counts. */
  protected override level(channel: 0 | 1, dry: Float64Array, work: Float64Array, count: number): void {
    const { even, mirrored } = this;
    const traces = this.slow[channel];
    for (let i = 0; i < count; i++) even[i] = dry[i]!;
    if (this.bent === "gently") evenGently(even, count, traces, this.bending(1));
    else {
      for (let i = 0; i < count; i++) mirrored[i] = -dry[i]!;
      const drive = this.bending(1);
      SOFT.pass(even, count, traces[0], drive);
      SOFT.pass(mirrored, count, traces[1], drive);
      for (let i = 0; i < count; i++) even[i] = (even[i]! + mirrored[i]!) / 2;
    }
    this.pedestal.process(channel, even, count, this.within);
    for (let i = 0; i < count; i++) work[i]! -= even[i]!;
  }

  protected inputSections(): readonly Biquad[] {
    return [];
  }

  protected outputSections(): readonly Biquad[] {
    return [];
  }

  protected aimCurve(values: ValuesOf<typeof TUBE>, jump: boolean): void {
    this.aim(this.offset, tubeOffset(values.bias), jump);
  }

  protected curveOf(values: ValuesOf<typeof TUBE>) {
    return tubeCurve(tubeOffset(values.bias));
  }

  protected override atRest(): number {
    return this.offset.value;
  }

  protected bentBy({ drive }: ValuesOf<typeof TUBE>): Bent {
    if (drive > 24) return "hard";
    return drive > MOST_GENTLE ? "firmly" : "gently";
  }

  protected shape({ samples, traces }: Shaped, count: number): void {
    this.soften(samples, count, traces[0], this.bending(this.factor));
  }

  private bending(factor: number): Drive {
    const { offset } = this;
    const drive = this.drive(this.before, this.after, factor);
    drive.offsetStep = slopeOf(offset) / factor;
    drive.offset = offset.value;
    // What it gives in silence walks from one point of the grid to the next.
    const rest = softClip(offset.value);
    const then = drive.offsetStep === 0 ? rest : softClip(offset.value + drive.offsetStep * GRID * factor);
    drive.restStep = (then - rest) / (GRID * factor);
    drive.rest = rest;
    return drive;
  }
}

class OverdriveKernel extends SaturationKernel<ValuesOf<typeof OVERDRIVE>> {
  constructor(sampleRate: number) {
    super(sampleRate, new GlidingBiquads(1), new GlidingBiquads(1));
  }

  protected inputSections(values: ValuesOf<typeof OVERDRIVE>): readonly Biquad[] {
    return [highPass({ freq: hertz(values.tight), q: 0.6, sampleRate: this.sampleRate })];
  }

  protected outputSections(values: ValuesOf<typeof OVERDRIVE>): readonly Biquad[] {
    return [lowPass({ freq: hertz(values.tone), q: 0.6, sampleRate: this.sampleRate })];
  }

  protected aimCurve(): void {}

  protected curveOf() {
    return hardClip;
  }

  protected bentBy(values: ValuesOf<typeof OVERDRIVE>): Bent {
    return values.drive > 20 ? "hard" : "firmly";
  }

  protected shape({ samples, traces }: Shaped, count: number): void {
    HARD.pass(samples, count, traces[0], this.drive(this.before, this.after));
  }
}

/** Both stages are shaped in one go; tone and cabinet follow at the lower rate. */
class AmplifierKernel extends SaturationKernel<ValuesOf<typeof AMPLIFIER>> {
  private readonly power = this.ramp();
  private readonly powerAfter = this.ramp();

  constructor(sampleRate: number) {
    super(sampleRate, new GlidingBiquads(5), new GlidingBiquads(5));
  }

  protected inputSections(values: ValuesOf<typeof AMPLIFIER>): readonly Biquad[] {
    return toneSections(values, this.sampleRate);
  }

  protected outputSections(values: ValuesOf<typeof AMPLIFIER>): readonly Biquad[] {
    return cabinetSections(values, this.sampleRate);
  }

  protected aimCurve(values: ValuesOf<typeof AMPLIFIER>, jump: boolean): void {
    const { before, after } = driveGains(values.master, values.makeupMode, softClip);
    this.aim(this.power, before, jump);
    this.aim(this.powerAfter, after, jump);
  }

  protected curveOf() {
    return preampCurve();
  }

  protected override atRest(): number {
    return PREAMP_OFFSET;
  }

  protected bentBy(values: ValuesOf<typeof AMPLIFIER>): Bent {
    return values.drive + values.master > 30 ? "hard" : "firmly";
  }

  protected shape({ samples, traces }: Shaped, count: number): void {
    const first = this.drive(this.before, this.after);
    first.offset = PREAMP_OFFSET;
    first.rest = PREAMP_REST;
    SOFT.pass(samples, count, traces[0], first);
    SOFT.pass(samples, count, traces[1], this.drive(this.power, this.powerAfter));
  }
}

const PREAMP_REST = softClip(PREAMP_OFFSET);

function keep(trace: Trace, input: number, area: number): void {
  trace.input = input;
  trace.area = area;
}

export const createTape = (sampleRate: number): Kernel<ValuesOf<typeof TAPE>> => new TapeKernel(sampleRate);
export const createTube = (sampleRate: number): Kernel<ValuesOf<typeof TUBE>> => new TubeKernel(sampleRate);
export const createOverdrive = (sampleRate: number): Kernel<ValuesOf<typeof OVERDRIVE>> =>
  new OverdriveKernel(sampleRate);
export const createAmplifier = (sampleRate: number): Kernel<ValuesOf<typeof AMPLIFIER>> =>
  new AmplifierKernel(sampleRate);
