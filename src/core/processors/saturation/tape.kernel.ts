import { type Biquad, bell, highPass, lowPass } from "../../dsp/biquad";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { decibels, hertz } from "../../units/quantities";
import type { Kernel } from "../kernel";
import type { ValuesOf } from "../model";
import { type Bent, MOST_GENTLE, SaturationKernel, type Shaped } from "./saturation.kernel";
import { type TAPE, TAPE_SPEEDS, tapeCurve, tapeDent, tapeDented } from "./tape";

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

export const createTape = (sampleRate: number): Kernel<ValuesOf<typeof TAPE>> => new TapeKernel(sampleRate);
