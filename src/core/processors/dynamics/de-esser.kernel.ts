import { highPass } from "../../dsp/biquad";
import { twice } from "../../dsp/crossover";
import { GlidingShelf } from "../../dsp/gliding-shelf";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { PeakHold } from "../../dsp/peak-hold";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { hertz } from "../../units/quantities";
import type { ValuesOf } from "../model";
import { type DE_ESSER, deEsserCurve } from "./de-esser";
import { holdsPeaks } from "./detector";
import { factorOf, followed, smoothing } from "./reduction";
import { type StaticCurve, gainAt } from "./static-curve";

/** Half of the reduction, in dB, is done so far below the frequency that at it most of it is. */
const CORNER = 0.8;

/**
 * What lies above the frequency is heard by the detector and, alone or with the rest, turned down: alone by a shelf whose gain
 * is the reduction, sample by sample. At rest that is the sound itself, so that it may stand beside a dry lane.
 */
class DeEsserKernel extends GridKernel {
  private readonly filter = new GlidingBiquads(2);
  private readonly shelves = [new GlidingShelf(), new GlidingShelf()] as const;
  private readonly corner = this.ramp();
  private readonly highLeft = new Float64Array(GRID);
  private readonly highRight = new Float64Array(GRID);
  private readonly peaks = new PeakHold(this.sampleRate);
  /** 1 where the whole sound is turned down, 0 where only the highs are. */
  private readonly whole = this.ramp();
  private readonly threshold = this.ramp();
  private readonly range = this.ramp();
  private readonly slope = this.ramp();
  private readonly curve: { -readonly [K in keyof StaticCurve]: number } = { threshold: 0, slope: 0, knee: 0 };
  private attack = 0;
  private release = 0;
  private now = 0;

  set(values: ValuesOf<typeof DE_ESSER>, jump: boolean): void {
    const curve = deEsserCurve(values);
    this.peaks.holds = holdsPeaks(values);
    this.attack = smoothing(values.attack, this.sampleRate);
    this.release = smoothing(values.release, this.sampleRate);
    const design = { freq: hertz(values.freq), q: Math.SQRT1_2, sampleRate: this.sampleRate };
    this.filter.aim(twice(highPass(design)), this.glide, jump);
    this.aim(this.corner, Math.tan((Math.PI * CORNER * values.freq) / this.sampleRate), jump);
    this.aim(this.threshold, curve.threshold, jump);
    this.aim(this.slope, curve.slope, jump);
    this.curve.knee = curve.knee;
    this.aim(this.range, values.range, jump);
    this.aim(this.whole, values.mode === 1 ? 1 : 0, jump);
  }

  reset(): void {
    this.filter.clear();
    for (const shelf of this.shelves) shelf.clear();
    this.peaks.reset();
    this.now = 0;
  }

  override reading(): number {
    return this.now;
  }

  protected override tick(): void {
    this.filter.tick();
    for (const shelf of this.shelves) shelf.flush();
    this.peaks.tick();
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { highLeft, highRight, shelves, curve, attack, release, within } = this;
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
    const whole0 = this.whole.value;
    const wholeSlope = slopeOf(this.whole);
    const corner0 = this.corner.value;
    const cornerSlope = slopeOf(this.corner);
    for (let i = 0; i < count; i++) highLeft[i] = Math.max(Math.abs(highLeft[i]!), Math.abs(highRight[i]!));
    this.peaks.hold(highLeft, count);
    let { now } = this;
    for (let i = 0; i < count; i++) {
      const level = highLeft[i]!;
      const ask = level > 1e-6 ? Math.max(range, gainAt(curve, 20 * Math.log10(level))) : 0;
      now = followed(now, ask, attack, release);
      const corner = corner0 + cornerSlope * (within + i);
      const whole = whole0 + wholeSlope * (within + i);
      const gain = factorOf(now);
      // The root of the root of the gain: what a shelf is made of.
      const root = factorOf(now / 4);
      const l = left[from + i]!;
      const r = right[from + i]!;
      const shelvedLeft = shelves[0].next(l, corner, root);
      const shelvedRight = shelves[1].next(r, corner, root);
      left[from + i] = shelvedLeft + whole * (gain * l - shelvedLeft);
      right[from + i] = shelvedRight + whole * (gain * r - shelvedRight);
    }
    this.now = now;
  }
}

export const createDeEsser = (sampleRate: number): Kernel<ValuesOf<typeof DE_ESSER>> => new DeEsserKernel(sampleRate);
