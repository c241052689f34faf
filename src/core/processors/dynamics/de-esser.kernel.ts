import { highPass, lowPass } from "../../dsp/biquad";
import { crossoverAllPass, twice } from "../../dsp/crossover";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { GridKernel } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { hertz } from "../../units/quantities";
import type { ValuesOf } from "../model";
import { type DE_ESSER, deEsserCurve } from "./de-esser";
import { factorOf, followed, smoothing } from "./reduction";
import { type StaticCurve, gainAt } from "./static-curve";

const DETECTOR_RELEASE = 3;

/**
 * What lies above the frequency is heard by the detector and, alone or with the rest, turned down. The rest runs through
 * the all-pass that both halves of the crossover add up to, so that they stay in phase whatever is turned down.
 */
class DeEsserKernel extends GridKernel {
  private readonly filter = new GlidingBiquads(2);
  private readonly allPass = new GlidingBiquads(1);
  private readonly wholeLeft = new Float64Array(GRID);
  private readonly wholeRight = new Float64Array(GRID);
  private readonly highLeft = new Float64Array(GRID);
  private readonly highRight = new Float64Array(GRID);
  private readonly forget = smoothing(DETECTOR_RELEASE, this.sampleRate);
  /** 1 where the whole sound is turned down, 0 where only the highs are. */
  private readonly whole = this.ramp();
  private readonly threshold = this.ramp();
  private readonly range = this.ramp();
  private readonly slope = this.ramp();
  private readonly curve: { -readonly [K in keyof StaticCurve]: number } = { threshold: 0, slope: 0, knee: 0 };
  private attack = 0;
  private release = 0;
  private level = 0;
  private now = 0;

  set(values: ValuesOf<typeof DE_ESSER>, jump: boolean): void {
    const curve = deEsserCurve(values);
    this.attack = smoothing(values.attack, this.sampleRate);
    this.release = smoothing(values.release, this.sampleRate);
    const design = { freq: hertz(values.freq), q: Math.SQRT1_2, sampleRate: this.sampleRate };
    this.filter.aim(twice(highPass(design)), this.glide, jump);
    this.allPass.aim([crossoverAllPass(lowPass(design))], this.glide, jump);
    this.aim(this.threshold, curve.threshold, jump);
    this.aim(this.slope, curve.slope, jump);
    this.curve.knee = curve.knee;
    this.aim(this.range, values.range, jump);
    this.aim(this.whole, values.mode === 1 ? 1 : 0, jump);
  }

  reset(): void {
    this.filter.clear();
    this.allPass.clear();
    this.level = this.now = 0;
  }

  override reading(): number {
    return this.now;
  }

  protected override tick(): void {
    this.filter.tick();
    this.allPass.tick();
    if (this.level < 1e-9) this.level = 0;
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { highLeft, highRight, wholeLeft, wholeRight, curve, attack, release, forget } = this;
    const count = to - from;
    for (let i = 0; i < count; i++) {
      wholeLeft[i] = highLeft[i] = left[from + i]!;
      wholeRight[i] = highRight[i] = right[from + i]!;
    }
    this.filter.process(0, highLeft, count, this.within);
    this.filter.process(1, highRight, count, this.within);
    this.allPass.process(0, wholeLeft, count, this.within);
    this.allPass.process(1, wholeRight, count, this.within);
    curve.threshold = this.threshold.value;
    curve.slope = this.slope.value;
    const range = this.range.value;
    const whole = this.whole.value;
    let { level, now } = this;
    for (let i = 0; i < count; i++) {
      level = Math.max(Math.abs(highLeft[i]!), Math.abs(highRight[i]!), level * forget);
      const ask = level > 1e-6 ? Math.max(range, gainAt(curve, 20 * Math.log10(level))) : 0;
      now = followed(now, ask, attack, release);
      const less = factorOf(now) - 1;
      const l = wholeLeft[i]!;
      const r = wholeRight[i]!;
      left[from + i] = l + less * (whole * l + (1 - whole) * highLeft[i]!);
      right[from + i] = r + less * (whole * r + (1 - whole) * highRight[i]!);
    }
    this.level = level;
    this.now = now;
  }
}

export const createDeEsser = (sampleRate: number): Kernel<ValuesOf<typeof DE_ESSER>> => new DeEsserKernel(sampleRate);
