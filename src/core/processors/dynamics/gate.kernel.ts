import { highPass } from "../../dsp/biquad";
import { DelayLine } from "../../dsp/delay-line";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { PeakHold } from "../../dsp/peak-hold";
import type { Kernel } from "../kernel";
import { type ValuesOf, samplesAhead } from "../model";
import { KeyedKernel } from "../keyed-kernel";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { HeardValues } from "../../units/param-spec";
import { holdsPeaks } from "./detector";
import { type EXPANDER, type GATE, MOST_AHEAD, expanderGainAt } from "./gate";
import { factorOf, smoothing } from "./reduction";

const NO_GAIN = 1e-6;

/**
 * The louder channel, without its rumble; both channels are turned by the same gain. Where it looks ahead, it
 * hears what has come while the sound still waits; how far is settled when it is made.
 */
abstract class DownwardKernel extends KeyedKernel {
  /** In dB, 0 or below. */
  protected now = 0;
  private readonly filter = new GlidingBiquads(1);
  private readonly detectorLeft = new Float64Array(GRID);
  private readonly detectorRight = new Float64Array(GRID);
  private readonly peaks = new PeakHold(this.sampleRate);
  private readonly lines = [this.line(), this.line()] as const;
  private ahead = 0;
  private opening = 0;
  private closing = 0;

  protected aimDetector(
    values: HeardValues<"hears" | "ahead" | "attack" | "release" | "detector">,
    jump: boolean,
  ): void {
    if (jump) this.ahead = samplesAhead({ lookAhead: values.ahead }, this.sampleRate);
    this.peaks.holds = holdsPeaks(values);
    this.opening = smoothing(values.attack, this.sampleRate);
    this.closing = smoothing(values.release, this.sampleRate);
    const freq = hertz(values.detector);
    this.filter.aim([highPass({ freq, q: Math.SQRT1_2, sampleRate: this.sampleRate })], this.glide, jump);
  }

  fits(values: HeardValues<"ahead">): boolean {
    return samplesAhead({ lookAhead: values.ahead }, this.sampleRate) === this.ahead;
  }

  /** It is as far closed as silence asks for, and nothing waits in it. */
  isAtRest(): boolean {
    const { filter, peaks, lines } = this;
    if (!this.isStill || this.now !== this.closed) return false;
    return filter.isAtRest && peaks.isSilent && lines[0].isSilent && lines[1].isSilent;
  }

  /** What silence asks for, in dB; null while it does not yet. */
  protected abstract readonly closed: number | null;

  reset(): void {
    for (const line of this.lines) line.clear();
    this.peaks.reset();
    this.now = 0;
    this.filter.clear();
  }

  override reading(): number {
    return this.now;
  }

  /** The gain in dB that a level, as an amplitude, asks for. Called once a sample. */
  protected abstract ask(level: number): number;

  protected override tick(): void {
    this.filter.tick();
    this.peaks.tick();
  }

  /** What asks for a gain in a stretch: the levels of the detector, into `detectorLeft`. */
  private detect(left: Float32Array, right: Float32Array, from: number, count: number): void {
    const { detectorLeft, detectorRight } = this;
    const keyLeft = this.heardLeft(left);
    const keyRight = this.heardRight(right);
    const begin = from + this.shift;
    for (let i = 0; i < count; i++) {
      detectorLeft[i] = keyLeft[begin + i]!;
      detectorRight[i] = keyRight[begin + i]!;
    }
    this.filter.process(0, detectorLeft, count, this.within);
    this.filter.process(1, detectorRight, count, this.within);
    for (let i = 0; i < count; i++) detectorLeft[i] = Math.max(Math.abs(detectorLeft[i]!), Math.abs(detectorRight[i]!));
    this.peaks.hold(detectorLeft, count);
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { detectorLeft, opening, closing } = this;
    const count = to - from;
    this.detect(left, right, from, count);
    if (this.ahead > 0) {
      this.wait(0, left, from, to);
      this.wait(1, right, from, to);
    }
    let { now } = this;
    let gain = 1;
    let gainFor = 0;
    for (let i = 0; i < count; i++) {
      const ask = this.ask(detectorLeft[i]!);
      now = ask + (ask > now ? opening : closing) * (now - ask);
      if (now - ask < NO_GAIN && ask - now < NO_GAIN) now = ask;
      if (now > -NO_GAIN) now = 0;
      const l = left[from + i]!;
      const r = right[from + i]!;
      // What is silent needs no gain.
      if (now === 0 || (l === 0 && r === 0)) continue;
      // In a long silence the gain stands still: it is not worked out again and again.
      if (now !== gainFor) {
        gain = factorOf(now);
        gainFor = now;
      }
      left[from + i] = gain * l;
      right[from + i] = gain * r;
    }
    this.now = now;
  }

  private line(): DelayLine {
    return new DelayLine(samplesAhead({ lookAhead: MOST_AHEAD }, this.sampleRate) + GRID);
  }

  private wait(channel: 0 | 1, samples: Float32Array, from: number, to: number): void {
    const line = this.lines[channel];
    const { ahead } = this;
    for (let i = from; i < to; i++) {
      line.write(samples[i]!);
      samples[i] = line.read(ahead + 1);
    }
  }
}

/** Opens at the threshold, closes below it by the hysteresis, and not before the hold is over. */
class GateKernel extends DownwardKernel {
  private opensAt = 1;
  private closesAt = 1;
  private readonly range = this.ramp();
  private hold = 0;
  private held = 0;
  private open = true;

  set(values: ValuesOf<typeof GATE>, jump: boolean): void {
    this.aimDetector(values, jump);
    this.opensAt = gainOf(decibels(values.threshold));
    this.closesAt = gainOf(decibels(values.threshold - values.hysteresis));
    this.hold = Math.round((values.hold / 1000) * this.sampleRate);
    this.aim(this.range, values.range, jump);
  }

  protected get closed(): number | null {
    return this.open ? null : this.range.value;
  }

  protected ask(level: number): number {
    if (level >= (this.open ? this.closesAt : this.opensAt)) {
      this.open = true;
      this.held = this.hold;
    } else if (this.held > 0) this.held -= 1;
    else this.open = false;
    return this.open ? 0 : this.range.value;
  }
}

class ExpanderKernel extends DownwardKernel {
  private readonly threshold = this.ramp();
  private readonly ratio = this.ramp();
  private readonly knee = this.ramp();
  private readonly range = this.ramp();
  private readonly curve = { threshold: 0, ratio: 1, knee: 0, range: 0 };

  set(values: ValuesOf<typeof EXPANDER>, jump: boolean): void {
    this.aimDetector(values, jump);
    this.aim(this.threshold, values.threshold, jump);
    this.aim(this.ratio, values.ratio, jump);
    this.aim(this.knee, values.knee, jump);
    this.aim(this.range, values.range, jump);
  }

  protected get closed(): number {
    return this.ask(0);
  }

  protected ask(level: number): number {
    const { curve } = this;
    curve.threshold = this.threshold.value;
    curve.ratio = this.ratio.value;
    curve.knee = this.knee.value;
    curve.range = this.range.value;
    return expanderGainAt(curve, level > 1e-6 ? 20 * Math.log10(level) : -120);
  }
}

export const createGate = (sampleRate: number): Kernel<ValuesOf<typeof GATE>> => new GateKernel(sampleRate);
export const createExpander = (sampleRate: number): Kernel<ValuesOf<typeof EXPANDER>> => new ExpanderKernel(sampleRate);
