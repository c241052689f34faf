import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { decibels, gainOf } from "../../units/quantities";
import type { ValuesOf } from "../model";
import { type LIMITER, LOOK_AHEAD } from "./limiter";
import { smoothing } from "./reduction";

const SPAN = LOOK_AHEAD + 1;
/** Room for the sliding minimum, a power of two. */
const QUEUE = 128;

/**
 * No sample leaves above the ceiling: the gain that each sample needs is held as a minimum over the look-ahead, released
 * slowly, and averaged over the same stretch, so that it has arrived when the sample does. The sliding minimum is a
 * queue of falling candidates (D. Lemire, "Streaming maximum-minimum filter", 2006): constant work a sample.
 */
class LimiterKernel extends GridKernel {
  private readonly gain = this.ramp();
  private readonly ceiling = this.ramp();
  private readonly delayedLeft = new Float64Array(LOOK_AHEAD);
  private readonly delayedRight = new Float64Array(LOOK_AHEAD);
  private readonly values = new Float64Array(QUEUE);
  private readonly times = new Int32Array(QUEUE);
  private readonly window = new Float64Array(SPAN).fill(1);
  private head = 0;
  private tail = 0;
  private time = 0;
  private released = 1;
  private sum = SPAN;
  private release = 0;
  private deepest = 1;

  set(values: ValuesOf<typeof LIMITER>, jump: boolean): void {
    this.release = smoothing(values.release, this.sampleRate);
    this.aim(this.gain, gainOf(decibels(values.gain)), jump);
    this.aim(this.ceiling, gainOf(decibels(values.ceiling)), jump);
  }

  reset(): void {
    this.delayedLeft.fill(0);
    this.delayedRight.fill(0);
    this.window.fill(1);
    this.head = this.tail = this.time = 0;
    this.released = this.deepest = 1;
    this.sum = SPAN;
  }

  override reading(): number {
    return this.deepest >= 1 ? 0 : 20 * Math.log10(this.deepest);
  }

  protected override tick(): void {
    // A running sum drifts by the last bit: it is counted anew now and then.
    if (this.time % 4096 < 32) this.sum = this.window.reduce((a, b) => a + b, 0);
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const gainSlope = slopeOf(this.gain);
    const ceilingSlope = slopeOf(this.ceiling);
    let deepest = 1;
    for (let i = from; i < to; i++) {
      const n = this.within + i - from;
      const gain = this.gain.value + gainSlope * n;
      const ceiling = this.ceiling.value + ceilingSlope * n;
      const l = left[i]! * gain;
      const r = right[i]! * gain;
      const peak = Math.max(Math.abs(l), Math.abs(r));
      const least = this.leastSoFar(peak > ceiling ? ceiling / peak : 1);
      this.released = least < this.released ? least : least + this.release * (this.released - least);
      if (this.released > 1 - 1e-9) this.released = 1;
      const at = this.time % SPAN;
      this.sum += this.released - this.window[at]!;
      this.window[at] = this.released;
      const done = Math.min(1, this.sum / SPAN);
      if (done < deepest) deepest = done;
      const ring = this.time % LOOK_AHEAD;
      left[i] = clampTo(this.delayedLeft[ring]! * done, ceiling);
      right[i] = clampTo(this.delayedRight[ring]! * done, ceiling);
      this.delayedLeft[ring] = l;
      this.delayedRight[ring] = r;
      this.time += 1;
    }
    this.deepest = deepest;
  }

  /** The least of the last `SPAN` needs, this one included. */
  private leastSoFar(need: number): number {
    const { values, times, time } = this;
    while (this.tail !== this.head && values[(this.tail - 1) & (QUEUE - 1)]! >= need)
      this.tail = (this.tail - 1) & (QUEUE - 1);
    values[this.tail] = need;
    times[this.tail] = time;
    this.tail = (this.tail + 1) & (QUEUE - 1);
    while (times[this.head]! <= time - SPAN) this.head = (this.head + 1) & (QUEUE - 1);
    return values[this.head]!;
  }
}

/** What rounding leaves above the ceiling, and a ceiling that is being lowered while the sound is on its way. */
const clampTo = (x: number, ceiling: number): number => Math.min(ceiling, Math.max(-ceiling, x));

export const createLimiter = (sampleRate: number): Kernel<ValuesOf<typeof LIMITER>> => new LimiterKernel(sampleRate);
