import { type Biquad, bell, highPass, lowPass } from "../../dsp/biquad";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { Oversampler } from "../../dsp/oversampler";
import { OVERSAMPLING, OVERSAMPLING_LATENCY } from "../../dsp/oversampling";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { HeardValues } from "../../units/param-spec";
import type { ValuesOf } from "../model";
import { type AMPLIFIER, PREAMP_OFFSET, cabinetSections, toneSections } from "./amplifier";
import type { OVERDRIVE } from "./overdrive";
import { hardClip, softClip } from "./shaper";
import { type TAPE, TAPE_SPEEDS, driveGains, tapeCurve, tapeDent } from "./tape";
import { type TUBE, tubeCurve, tubeOffset } from "./tube";

/** A constant that a lopsided curve leaves behind is no sound. In Hz. */
const DC_CORNER = 8;

/**
 * Filters, a curve at four times the rate, filters; the dry sound waits as long as the oversampling takes. The curve's
 * own gains glide, so that a turned drive does not step.
 */
abstract class SaturationKernel<Values extends HeardValues<"drive" | "output" | "mix">> extends GridKernel {
  protected readonly before = this.ramp();
  protected readonly after = this.ramp();
  private readonly wet = this.ramp();
  private readonly dry = this.ramp();
  private readonly oversampler = new Oversampler();
  private readonly work = [new Float64Array(GRID), new Float64Array(GRID)] as const;
  private readonly waiting = [new Float64Array(OVERSAMPLING_LATENCY), new Float64Array(OVERSAMPLING_LATENCY)] as const;
  private readonly waitingAt = [0, 0];
  private readonly dcBlock = new GlidingBiquads(1);

  constructor(
    sampleRate: number,
    private readonly input: GlidingBiquads,
    private readonly output: GlidingBiquads,
  ) {
    super(sampleRate);
    this.dcBlock.aim([highPass({ freq: hertz(DC_CORNER), q: Math.SQRT1_2, sampleRate })], 1, true);
  }

  protected abstract inputSections(values: Values): readonly Biquad[];
  protected abstract outputSections(values: Values): readonly Biquad[];
  protected abstract aimCurve(values: Values, jump: boolean): void;
  /** Shapes `count` samples of the higher rate in place. */
  protected abstract shape(samples: Float64Array, count: number): void;

  set(values: Values, jump: boolean): void {
    const { before, after } = driveGains(values.drive);
    const mix = values.mix / 100;
    this.aim(this.before, before, jump);
    this.aim(this.after, after, jump);
    this.aim(this.wet, mix * gainOf(decibels(values.output)), jump);
    this.aim(this.dry, 1 - mix, jump);
    this.input.aim(this.inputSections(values), this.glide, jump);
    this.output.aim(this.outputSections(values), this.glide, jump);
    this.aimCurve(values, jump);
  }

  reset(): void {
    this.oversampler.clear();
    for (const waiting of this.waiting) waiting.fill(0);
    this.input.clear();
    this.output.clear();
    this.dcBlock.clear();
  }

  protected override tick(): void {
    this.input.tick();
    this.output.tick();
    this.dcBlock.tick();
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { work, oversampler } = this;
    const [workLeft, workRight] = work;
    const count = to - from;
    for (let i = 0; i < count; i++) {
      workLeft[i] = left[from + i]!;
      workRight[i] = right[from + i]!;
    }
    this.input.process(0, workLeft, count, this.within);
    this.input.process(1, workRight, count, this.within);
    oversampler.up(workLeft, workRight, count);
    this.shape(oversampler.left, count * OVERSAMPLING);
    this.shape(oversampler.right, count * OVERSAMPLING);
    oversampler.down(workLeft, workRight, count);
    this.leave(0, left, from, count);
    this.leave(1, right, from, count);
  }

  private leave(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    const work = this.work[channel];
    this.dcBlock.process(channel, work, count, this.within);
    this.output.process(channel, work, count, this.within);
    const waiting = this.waiting[channel];
    const wetSlope = slopeOf(this.wet);
    const drySlope = slopeOf(this.dry);
    const { within } = this;
    const [wet0, dry0] = [this.wet.value, this.dry.value];
    let at = this.waitingAt[channel]!;
    for (let i = 0; i < count; i++) {
      const dry = waiting[at]!;
      waiting[at] = samples[from + i]!;
      at = at + 1 === OVERSAMPLING_LATENCY ? 0 : at + 1;
      samples[from + i] = (wet0 + wetSlope * (within + i)) * work[i]! + (dry0 + drySlope * (within + i)) * dry;
    }
    this.waitingAt[channel] = at;
  }

  /** A glide's slope, for samples of the higher rate. */
  protected step(ramp: Parameters<typeof slopeOf>[0]): number {
    return slopeOf(ramp) / OVERSAMPLING;
  }

  /** How many samples of the higher rate have passed since the last point of the grid. */
  protected get shaped(): number {
    return this.within * OVERSAMPLING;
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

  protected shape(samples: Float64Array, count: number): void {
    const [before, after] = [this.before.value, this.after.value];
    const [beforeStep, afterStep] = [this.step(this.before), this.step(this.after)];
    const dent = this.dent.value;
    const { shaped } = this;
    for (let i = 0; i < count; i++) {
      const n = shaped + i;
      samples[i] = (after + afterStep * n) * tapeCurve((before + beforeStep * n) * samples[i]!, dent);
    }
  }
}

class TubeKernel extends SaturationKernel<ValuesOf<typeof TUBE>> {
  private readonly offset = this.ramp();

  constructor(sampleRate: number) {
    super(sampleRate, new GlidingBiquads(0), new GlidingBiquads(0));
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

  protected shape(samples: Float64Array, count: number): void {
    const [before, after, offset] = [this.before.value, this.after.value, this.offset.value];
    const [beforeStep, afterStep, offsetStep] = [this.step(this.before), this.step(this.after), this.step(this.offset)];
    const { shaped } = this;
    if (beforeStep === 0 && afterStep === 0 && offsetStep === 0) {
      // Nothing glides: what the working point itself gives is the same for all samples.
      const rest = softClip(offset);
      for (let i = 0; i < count; i++) samples[i] = after * (softClip(before * samples[i]! + offset) - rest);
      return;
    }
    for (let i = 0; i < count; i++) {
      const n = shaped + i;
      const x = (before + beforeStep * n) * samples[i]!;
      samples[i] = (after + afterStep * n) * tubeCurve(x, offset + offsetStep * n);
    }
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

  protected shape(samples: Float64Array, count: number): void {
    const [before, after] = [this.before.value, this.after.value];
    const [beforeStep, afterStep] = [this.step(this.before), this.step(this.after)];
    const { shaped } = this;
    for (let i = 0; i < count; i++) {
      const n = shaped + i;
      samples[i] = (after + afterStep * n) * hardClip((before + beforeStep * n) * samples[i]!);
    }
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
    const { before, after } = driveGains(values.master);
    this.aim(this.power, before, jump);
    this.aim(this.powerAfter, after, jump);
  }

  protected shape(samples: Float64Array, count: number): void {
    const [before, after] = [this.before.value, this.after.value];
    const [power, powerAfter] = [this.power.value, this.powerAfter.value];
    const [beforeStep, afterStep] = [this.step(this.before), this.step(this.after)];
    const [powerStep, powerAfterStep] = [this.step(this.power), this.step(this.powerAfter)];
    const { shaped } = this;
    for (let i = 0; i < count; i++) {
      const n = shaped + i;
      const first = (after + afterStep * n) * tubeCurve((before + beforeStep * n) * samples[i]!, PREAMP_OFFSET);
      samples[i] = (powerAfter + powerAfterStep * n) * softClip((power + powerStep * n) * first);
    }
  }
}

export const createTape = (sampleRate: number): Kernel<ValuesOf<typeof TAPE>> => new TapeKernel(sampleRate);
export const createTube = (sampleRate: number): Kernel<ValuesOf<typeof TUBE>> => new TubeKernel(sampleRate);
export const createOverdrive = (sampleRate: number): Kernel<ValuesOf<typeof OVERDRIVE>> =>
  new OverdriveKernel(sampleRate);
export const createAmplifier = (sampleRate: number): Kernel<ValuesOf<typeof AMPLIFIER>> =>
  new AmplifierKernel(sampleRate);
