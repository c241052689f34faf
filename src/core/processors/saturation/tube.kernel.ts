import { type Drive, noTrace } from "../../dsp/antiderivative";
import { type Biquad, highPass, highPassOne } from "../../dsp/biquad";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { hertz } from "../../units/quantities";
import { slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import type { ValuesOf } from "../model";
import { type Bent, DC_CORNER, MOST_GENTLE, SaturationKernel, type Shaped, keep } from "./saturation.kernel";
import { SOFT, evenGently, softClip } from "./shaper";
import { type TUBE, tubeCurve, tubeOffset } from "./tube";

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

export const createTube = (sampleRate: number): Kernel<ValuesOf<typeof TUBE>> => new TubeKernel(sampleRate);
