import type { KernelFactory } from "../kernel";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import { decibels, gainOf } from "../../units/quantities";
import type { HeardValues } from "../model";
import { CONSOLE_EQ_DESIGN } from "./console-eq";
import type { EqDesign } from "./eq-design";
import { GRAPHIC_EQ_DESIGN } from "./graphic-eq";
import { TILT_EQ_DESIGN } from "./tilt-eq";

/** An equaliser whose bands are always the same number of sections: what is drawn is what is run. */
class SectionsEqKernel extends GridKernel {
  private readonly output = this.ramp(1);
  private readonly work = new Float64Array(GRID);
  private readonly biquads: GlidingBiquads;

  constructor(
    private readonly design: EqDesign,
    sampleRate: number,
  ) {
    super(sampleRate);
    this.biquads = new GlidingBiquads(design.bands({}, sampleRate).flatMap((b) => b.sections).length);
  }

  set(values: HeardValues, jump: boolean): void {
    const sections = this.design.bands(values, this.sampleRate).flatMap((band) => band.sections);
    this.biquads.aim(sections, this.glide, jump);
    this.aim(this.output, gainOf(decibels(values.output ?? 0)), jump);
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

const factoryOf =
  (design: EqDesign): KernelFactory =>
  (sampleRate) =>
    new SectionsEqKernel(design, sampleRate);

export const createConsoleEq = factoryOf(CONSOLE_EQ_DESIGN);
export const createGraphicEq = factoryOf(GRAPHIC_EQ_DESIGN);
export const createTiltEq = factoryOf(TILT_EQ_DESIGN);
