import { highPass, lowPass } from "../../dsp/biquad";
import { crossoverAllPass, twice } from "../../dsp/crossover";
import { GlidingBiquads } from "../../dsp/gliding-biquad";
import { SteepShelf } from "../../dsp/gliding-shelf";
import { GRID } from "../../dsp/grid";
import { PeakHold } from "../../dsp/peak-hold";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import { hertz } from "../../units/quantities";
import type { ValuesOf } from "../model";
import { holdsPeaks } from "./detector";
import { type MULTIBAND, MULTIBAND_BANDS, MULTIBAND_KNEE, SHELVES, multibandCurve } from "./multiband";
import { factorOf, followed, smoothing } from "./reduction";
import { type StaticCurve, gainAt } from "./static-curve";

const BUTTERWORTH = Math.SQRT1_2;

type Sides = readonly [Float64Array, Float64Array];

/**
 * Three bands are heard by a detector each. What they ask for is done by crossovers, whose low band passes the all-pass of
 * the upper one, so that the three add up to a flat response; or by two shelves.
 */
class MultibandKernel extends GridKernel {
  private readonly lowPass = new GlidingBiquads(2);
  private readonly highPass = new GlidingBiquads(2);
  private readonly lowAllPass = new GlidingBiquads(1);
  private readonly midPass = new GlidingBiquads(2);
  private readonly topPass = new GlidingBiquads(2);
  private readonly filters = [this.lowPass, this.highPass, this.lowAllPass, this.midPass, this.topPass];
  private readonly sound = MULTIBAND_BANDS.map((): Sides => [new Float64Array(GRID), new Float64Array(GRID)]);
  private readonly thresholds = MULTIBAND_BANDS.map(() => this.ramp());
  private readonly slopes = MULTIBAND_BANDS.map(() => this.ramp());
  /** In dB. */
  private readonly gains = MULTIBAND_BANDS.map(() => this.ramp());
  private readonly attacks = new Float64Array(3);
  private readonly releases = new Float64Array(3);
  private readonly now = new Float64Array(3);
  private readonly peaks = MULTIBAND_BANDS.map(() => new PeakHold(this.sampleRate));
  private readonly levels = new Float64Array(GRID);
  /** By how much each band is turned up or down in a segment, in dB. */
  private readonly turned = MULTIBAND_BANDS.map(() => new Float64Array(GRID));
  private readonly curve: { -readonly [K in keyof StaticCurve]: number } = {
    threshold: 0,
    slope: 0,
    knee: MULTIBAND_KNEE,
  };
  private byShelves = false;
  private readonly corners = [this.ramp(), this.ramp()] as const;
  /** Two for each side: at the lower and at the upper frequency. */
  private readonly shelves = [new SteepShelf(), new SteepShelf(), new SteepShelf(), new SteepShelf()] as const;

  set(values: ValuesOf<typeof MULTIBAND>, jump: boolean): void {
    const { sampleRate, glide } = this;
    this.byShelves = values.form === SHELVES;
    for (const peaks of this.peaks) peaks.holds = holdsPeaks(values);
    const lower = { freq: hertz(values.lower), q: BUTTERWORTH, sampleRate };
    const upper = { freq: hertz(values.upper), q: BUTTERWORTH, sampleRate };
    this.lowPass.aim(twice(lowPass(lower)), glide, jump);
    this.highPass.aim(twice(highPass(lower)), glide, jump);
    this.lowAllPass.aim([crossoverAllPass(lowPass(upper))], glide, jump);
    this.midPass.aim(twice(lowPass(upper)), glide, jump);
    this.topPass.aim(twice(highPass(upper)), glide, jump);
    [values.lower, values.upper].forEach((freq, at) =>
      this.aim(this.corners[at]!, Math.tan((Math.PI * freq) / sampleRate), jump),
    );
    MULTIBAND_BANDS.forEach((band, at) => {
      const curve = multibandCurve(values, band);
      this.aim(this.thresholds[at]!, curve.threshold, jump);
      this.aim(this.slopes[at]!, curve.slope, jump);
      this.aim(this.gains[at]!, values[`${band}.gain`], jump);
      this.attacks[at] = smoothing(values[`${band}.attack`], sampleRate);
      this.releases[at] = smoothing(values[`${band}.release`], sampleRate);
    });
  }

  reset(): void {
    for (const filter of this.filters) filter.clear();
    for (const shelf of this.shelves) shelf.clear();
    for (const peaks of this.peaks) peaks.reset();
    this.now.fill(0);
  }

  override reading(): number {
    return Math.min(this.now[0]!, this.now[1]!, this.now[2]!);
  }

  protected override tick(): void {
    for (let f = 0; f < this.filters.length; f++) this.filters[f]!.tick();
    for (let s = 0; s < this.shelves.length; s++) this.shelves[s]!.flush();
    for (let band = 0; band < 3; band++) this.peaks[band]!.tick();
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const count = to - from;
    this.splitInto(0, left, from, count);
    this.splitInto(1, right, from, count);
    for (let band = 0; band < 3; band++) this.hear(band, count);
    if (this.byShelves) {
      this.shelve(0, left, from, count);
      this.shelve(1, right, from, count);
    } else {
      this.addUp(0, left, from, count);
      this.addUp(1, right, from, count);
    }
  }

  private splitInto(channel: 0 | 1, input: Float32Array, from: number, count: number): void {
    const low = this.sound[0]![channel];
    const mid = this.sound[1]![channel];
    const high = this.sound[2]![channel];
    for (let i = 0; i < count; i++) low[i] = mid[i] = input[from + i]!;
    this.lowPass.process(channel, low, count, this.within);
    if (!this.byShelves) this.lowAllPass.process(channel, low, count, this.within);
    this.highPass.process(channel, mid, count, this.within);
    for (let i = 0; i < count; i++) high[i] = mid[i]!;
    this.midPass.process(channel, mid, count, this.within);
    this.topPass.process(channel, high, count, this.within);
  }

  private hear(band: number, count: number): void {
    const [bandLeft, bandRight] = this.sound[band]!;
    const { curve, levels } = this;
    const turned = this.turned[band]!;
    const attack = this.attacks[band]!;
    const release = this.releases[band]!;
    const ramp = this.gains[band]!;
    const slope = slopeOf(ramp);
    curve.threshold = this.thresholds[band]!.value;
    curve.slope = this.slopes[band]!.value;
    for (let i = 0; i < count; i++) levels[i] = Math.max(Math.abs(bandLeft[i]!), Math.abs(bandRight[i]!));
    this.peaks[band]!.hold(levels, count);
    let now = this.now[band]!;
    for (let i = 0; i < count; i++) {
      const level = levels[i]!;
      const ask = level > 1e-5 ? gainAt(curve, 20 * Math.log10(level)) : 0;
      now = followed(now, ask, attack, release);
      turned[i] = now + ramp.value + slope * (this.within + i);
    }
    this.now[band] = now;
  }

  private addUp(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    for (let i = 0; i < count; i++) {
      let sum = 0;
      for (let band = 0; band < 3; band++) sum += factorOf(this.turned[band]![i]!) * this.sound[band]![channel][i]!;
      samples[from + i] = sum;
    }
  }

  /** All of it by the low band, what lies above each frequency by how much the next band is turned otherwise. */
  private shelve(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    const { turned, within } = this;
    const low = turned[0]!;
    const mid = turned[1]!;
    const high = turned[2]!;
    const lower = this.corners[0];
    const upper = this.corners[1];
    const lowerSlope = slopeOf(lower);
    const upperSlope = slopeOf(upper);
    const first = this.shelves[2 * channel]!;
    const second = this.shelves[2 * channel + 1]!;
    for (let i = 0; i < count; i++) {
      const n = within + i;
      const sound = first.next(samples[from + i]!, lower.value + lowerSlope * n, factorOf((mid[i]! - low[i]!) / 8));
      const all = second.next(sound, upper.value + upperSlope * n, factorOf((high[i]! - mid[i]!) / 8));
      samples[from + i] = factorOf(low[i]!) * all;
    }
  }
}

export const createMultiband = (sampleRate: number): Kernel<ValuesOf<typeof MULTIBAND>> =>
  new MultibandKernel(sampleRate);
