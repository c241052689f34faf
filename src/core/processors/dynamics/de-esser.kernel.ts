import { highPass } from "../../dsp/biquad";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { GridKernel } from "../../dsp/grid-kernel";
import type { Kernel } from "../../dsp/kernel";
import { hertz } from "../../units/quantities";
import type { HeardValues } from "../model";
import { deEsserCurve } from "./de-esser";
import { type StaticCurve, gainAt, smoothing } from "./vca-compressor/design";

const NEPERS_PER_DECIBEL = Math.LN10 / 20;
const DETECTOR_RELEASE = 3;
const NO_REDUCTION = 1e-6;

/** What lies above the frequency is heard by the detector and, alone or with the rest, turned down. */
class DeEsserKernel extends GridKernel {
  private readonly filter = new GlidingBiquads(1);
  private readonly highLeft = new Float64Array(GRID);
  private readonly highRight = new Float64Array(GRID);
  private readonly forget = smoothing(DETECTOR_RELEASE, this.sampleRate);
  /** 1 where the whole sound is turned down, 0 where only the highs are. */
  private readonly whole = this.ramp();
  private readonly threshold = this.ramp(-30);
  private readonly range = this.ramp(-12);
  private readonly slope = this.ramp();
  private readonly curve: { -readonly [K in keyof StaticCurve]: number } = { threshold: 0, slope: 0, knee: 4 };
  private attack = 0;
  private release = 0;
  private level = 0;
  private now = 0;

  set(values: HeardValues, jump: boolean): void {
    const curve = deEsserCurve(values);
    this.attack = smoothing(values.attack ?? 1, this.sampleRate);
    this.release = smoothing(values.release ?? 50, this.sampleRate);
    const design = { freq: hertz(values.freq ?? 6000), q: Math.SQRT1_2, sampleRate: this.sampleRate };
    this.filter.aim([highPass(design)], this.glide, jump);
    this.aim(this.threshold, curve.threshold, jump);
    this.aim(this.slope, curve.slope, jump);
    this.aim(this.range, values.range ?? -12, jump);
    this.aim(this.whole, values.mode === 1 ? 1 : 0, jump);
  }

  reset(): void {
    this.filter.clear();
    this.level = this.now = 0;
  }

  override reading(): number {
    return this.now;
  }

  protected override tick(): void {
    this.filter.tick();
    if (this.level < 1e-9) this.level = 0;
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { highLeft, highRight, curve, attack, release, forget } = this;
    const count = to - from;
    for (let i = 0; i < count; i++) {
      highLeft[i] = left[from + i]!;
      highRight[i] = right[from + i]!;
    }
    this.filter.process(0, highLeft, count, this.within);
    this.filter.process(1, highRight, count, this.within);
    curve.threshold = this.threshold.value;
    curve.slope = this.slope.value;
    const range = this.range.value;
    const whole = this.whole.value;
    let { level, now } = this;
    for (let i = 0; i < count; i++) {
      level = Math.max(Math.abs(highLeft[i]!), Math.abs(highRight[i]!), level * forget);
      const ask = level > 1e-6 ? Math.max(range, gainAt(curve, 20 * Math.log10(level))) : 0;
      now = ask + (ask < now ? attack : release) * (now - ask);
      if (now > -NO_REDUCTION) now = 0;
      if (now === 0) continue;
      const less = Math.exp(now * NEPERS_PER_DECIBEL) - 1;
      const at = from + i;
      left[at]! += less * (whole * left[at]! + (1 - whole) * highLeft[i]!);
      right[at]! += less * (whole * right[at]! + (1 - whole) * highRight[i]!);
    }
    this.level = level;
    this.now = now;
  }
}

export const createDeEsser = (sampleRate: number): Kernel => new DeEsserKernel(sampleRate);
