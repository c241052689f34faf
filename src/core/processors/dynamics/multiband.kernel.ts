import { highPass, lowPass } from "../../dsp/biquad";
import { crossoverAllPass, twice } from "../../dsp/crossover";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { GRID } from "../../dsp/grid";
import { PeakHold } from "../../dsp/peak-hold";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { decibels, gainOf, hertz } from "../../units/quantities";
import type { ValuesOf } from "../model";
import { type MULTIBAND, MULTIBAND_BANDS, MULTIBAND_KNEE, multibandCurve } from "./multiband";
import { factorOf, followed, smoothing } from "./reduction";
import { type StaticCurve, gainAt } from "./static-curve";

const BUTTERWORTH = Math.SQRT1_2;

/**
 * Three bands. The low band passes the all-pass of the upper crossover, so that the three add up to a flat response.
 */
class MultibandKernel extends GridKernel {
  private readonly lowPass = new GlidingBiquads(2);
  private readonly highPass = new GlidingBiquads(2);
  private readonly lowAllPass = new GlidingBiquads(1);
  private readonly midPass = new GlidingBiquads(2);
  private readonly topPass = new GlidingBiquads(2);
  private readonly filters = [this.lowPass, this.highPass, this.lowAllPass, this.midPass, this.topPass];
  private readonly sound = MULTIBAND_BANDS.map(() => [new Float64Array(GRID), new Float64Array(GRID)] as const);
  private readonly thresholds = MULTIBAND_BANDS.map(() => this.ramp());
  private readonly slopes = MULTIBAND_BANDS.map(() => this.ramp());
  private readonly gains = MULTIBAND_BANDS.map(() => this.ramp());
  private readonly attacks = new Float64Array(3);
  private readonly releases = new Float64Array(3);
  private readonly now = new Float64Array(3);
  private readonly peaks = MULTIBAND_BANDS.map(() => new PeakHold(this.sampleRate));
  private readonly levels = new Float64Array(GRID);
  private readonly curve: { -readonly [K in keyof StaticCurve]: number } = {
    threshold: 0,
    slope: 0,
    knee: MULTIBAND_KNEE,
  };

  set(values: ValuesOf<typeof MULTIBAND>, jump: boolean): void {
    const { sampleRate, glide } = this;
    const lower = { freq: hertz(values.lower), q: BUTTERWORTH, sampleRate };
    const upper = { freq: hertz(values.upper), q: BUTTERWORTH, sampleRate };
    this.lowPass.aim(twice(lowPass(lower)), glide, jump);
    this.highPass.aim(twice(highPass(lower)), glide, jump);
    this.lowAllPass.aim([crossoverAllPass(lowPass(upper))], glide, jump);
    this.midPass.aim(twice(lowPass(upper)), glide, jump);
    this.topPass.aim(twice(highPass(upper)), glide, jump);
    MULTIBAND_BANDS.forEach((band, at) => {
      const curve = multibandCurve(values, band);
      this.aim(this.thresholds[at]!, curve.threshold, jump);
      this.aim(this.slopes[at]!, curve.slope, jump);
      this.aim(this.gains[at]!, gainOf(decibels(values[`${band}.gain`])), jump);
      this.attacks[at] = smoothing(values[`${band}.attack`], sampleRate);
      this.releases[at] = smoothing(values[`${band}.release`], sampleRate);
    });
  }

  reset(): void {
    for (const filter of this.filters) filter.clear();
    for (const peaks of this.peaks) peaks.reset();
    this.now.fill(0);
  }

  override reading(): number {
    return Math.min(this.now[0]!, this.now[1]!, this.now[2]!);
  }

  protected override tick(): void {
    for (let f = 0; f < this.filters.length; f++) this.filters[f]!.tick();
    for (let band = 0; band < 3; band++) this.peaks[band]!.tick();
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const count = to - from;
    this.splitInto(0, left, from, count);
    this.splitInto(1, right, from, count);
    for (let i = from; i < to; i++) left[i] = right[i] = 0;
    for (let band = 0; band < 3; band++) this.addBand(band, left, right, from, count);
  }

  private splitInto(channel: 0 | 1, input: Float32Array, from: number, count: number): void {
    const low = this.sound[0]![channel];
    const mid = this.sound[1]![channel];
    const high = this.sound[2]![channel];
    for (let i = 0; i < count; i++) low[i] = mid[i] = input[from + i]!;
    this.lowPass.process(channel, low, count, this.within);
    this.lowAllPass.process(channel, low, count, this.within);
    this.highPass.process(channel, mid, count, this.within);
    for (let i = 0; i < count; i++) high[i] = mid[i]!;
    this.midPass.process(channel, mid, count, this.within);
    this.topPass.process(channel, high, count, this.within);
  }

  // eslint-disable-next-line max-params -- a band of a segment: an object for each would be allocated in the audio path
  private addBand(band: number, left: Float32Array, right: Float32Array, from: number, count: number): void {
    const [bandLeft, bandRight] = this.sound[band]!;
    const { curve } = this;
    const attack = this.attacks[band]!;
    const release = this.releases[band]!;
    const ramp = this.gains[band]!;
    const slope = slopeOf(ramp);
    curve.threshold = this.thresholds[band]!.value;
    curve.slope = this.slopes[band]!.value;
    const { levels } = this;
    for (let i = 0; i < count; i++) levels[i] = Math.max(Math.abs(bandLeft[i]!), Math.abs(bandRight[i]!));
    this.peaks[band]!.hold(levels, count);
    let now = this.now[band]!;
    for (let i = 0; i < count; i++) {
      const level = levels[i]!;
      const ask = level > 1e-5 ? gainAt(curve, 20 * Math.log10(level)) : 0;
      now = followed(now, ask, attack, release);
      const gain = (ramp.value + slope * (this.within + i)) * factorOf(now);
      left[from + i]! += gain * bandLeft[i]!;
      right[from + i]! += gain * bandRight[i]!;
    }
    this.now[band] = now;
  }
}

export const createMultiband = (sampleRate: number): Kernel<ValuesOf<typeof MULTIBAND>> =>
  new MultibandKernel(sampleRate);
