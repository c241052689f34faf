import type { KernelFactory } from "../kernel";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import { decibels, gainOf } from "../../units/quantities";
import type { HeardValues, ParamId } from "../../units/param-spec";
import type { ValuesOf } from "../model";
import { type CONSOLE_EQ, CONSOLE_EQ_DESIGN } from "./console-eq";
import type { EqDesign } from "./eq-design";
import { type GRAPHIC_EQ, GRAPHIC_CENTRES, GRAPHIC_EQ_DESIGN } from "./graphic-eq";
import { type TILT_EQ, TILT_EQ_DESIGN } from "./tilt-eq";

/** An equaliser whose bands are always the same number of sections: what is drawn is what is run. */
class SectionsEqKernel<Id extends ParamId> extends GridKernel {
  private readonly output = this.ramp();
  private readonly work = new Float64Array(GRID);
  private readonly biquads: GlidingBiquads;

  constructor(
    private readonly design: EqDesign<Id>,
    sections: number,
    sampleRate: number,
  ) {
    super(sampleRate);
    this.biquads = new GlidingBiquads(sections);
  }

  set(values: HeardValues<Id | "output">, jump: boolean): void {
    const sections = this.design.bands(values, this.sampleRate).flatMap((band) => band.sections);
    this.biquads.aim(sections, this.glide, jump);
    this.aim(this.output, gainOf(decibels(values.output)), jump);
  }

  isAtRest(): boolean {
    return this.isStill && this.biquads.isAtRest;
  }

  reset(): void {
    this.biquads.clear();
  }

  protected override tick(): void {
    this.biquads.tick();
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    this.channel(0, left, from, to);
    this.channel(1, right, from, to);
  }

  private channel(channel: 0 | 1, samples: Float32Array, from: number, to: number): void {
    const { work, output } = this;
    const count = to - from;
    for (let i = 0; i < count; i++) work[i] = samples[from + i]!;
    this.biquads.process(channel, work, count, this.within);
    const slope = slopeOf(output);
    const { within } = this;
    const gain = output.value;
    for (let i = 0; i < count; i++) samples[from + i] = work[i]! * (gain + slope * (within + i));
  }
}

export const createConsoleEq: KernelFactory<ValuesOf<typeof CONSOLE_EQ>> = (sampleRate) =>
  new SectionsEqKernel(CONSOLE_EQ_DESIGN, 6, sampleRate);
export const createGraphicEq: KernelFactory<ValuesOf<typeof GRAPHIC_EQ>> = (sampleRate) =>
  new SectionsEqKernel(GRAPHIC_EQ_DESIGN, GRAPHIC_CENTRES.length, sampleRate);
export const createTiltEq: KernelFactory<ValuesOf<typeof TILT_EQ>> = (sampleRate) =>
  new SectionsEqKernel(TILT_EQ_DESIGN, 3, sampleRate);
