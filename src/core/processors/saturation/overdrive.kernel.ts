import { type Biquad, highPass, lowPass } from "../../dsp/biquad";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { hertz } from "../../units/quantities";
import type { Kernel } from "../kernel";
import type { ValuesOf } from "../model";
import type { OVERDRIVE } from "./overdrive";
import { type Bent, SaturationKernel, type Shaped } from "./saturation.kernel";
import { HARD, hardClip } from "./shaper";

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

export const createOverdrive = (sampleRate: number): Kernel<ValuesOf<typeof OVERDRIVE>> =>
  new OverdriveKernel(sampleRate);
