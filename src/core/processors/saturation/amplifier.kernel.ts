import type { Biquad } from "../../dsp/biquad";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import type { Kernel } from "../kernel";
import type { ValuesOf } from "../model";
import { type AMPLIFIER, PREAMP_OFFSET, cabinetSections, preampCurve, toneSections } from "./amplifier";
import { driveGains } from "./drive";
import { type Bent, SaturationKernel, type Shaped } from "./saturation.kernel";
import { SOFT, softClip } from "./shaper";

const PREAMP_REST = softClip(PREAMP_OFFSET);

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
    const drive = values.drive + values.master;
    if (drive > 44) return "to the end";
    return drive > 24 ? "hard" : "firmly";
  }

  protected shape({ samples, traces }: Shaped, count: number): void {
    const first = this.drive(this.before, this.after);
    first.offset = PREAMP_OFFSET;
    first.rest = PREAMP_REST;
    SOFT.pass(samples, count, traces[0], first);
    SOFT.pass(samples, count, traces[1], this.drive(this.power, this.powerAfter));
  }
}

export const createAmplifier = (sampleRate: number): Kernel<ValuesOf<typeof AMPLIFIER>> =>
  new AmplifierKernel(sampleRate);
