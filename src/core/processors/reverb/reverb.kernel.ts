import { DelayLine, type Taps, noTaps } from "../../dsp/delay-line";
import { FeedbackNetwork, primeFrom } from "../../dsp/feedback-network";
import { FLUSH, GRID, flushed, gridSteps } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { KernelFactory } from "../kernel";
import { decibels, gainOf } from "../../units/quantities";
import { levelGain } from "../delay/multitap-delay/design";
import type { ValuesOf } from "../model";
import { type PLATE, type ROOM, SPACES, type Space, type SpaceName, absorption } from "./reverb";

/** A changed pre-delay cross-fades, in seconds. */
const MOVE = 0.012;
const LONGEST_PREDELAY = 0.25;
const SMEAR = 0.62;
/** So that a wet level of 0 dB is about as loud as the dry sound, for music of every kind. */
const NETWORK_LEVEL = 0.5;

/** M. Schroeder's all-pass, "Natural sounding artificial reverberation", JAES 10 (1962). Longer than a segment. */
class Smear {
  private readonly line: Float64Array;
  private at = 0;

  constructor(length: number) {
    this.line = new Float64Array(length);
  }

  pass(samples: Float64Array, count: number): void {
    const { line } = this;
    let at = this.at;
    for (let i = 0; i < count; i++) {
      const delayed = line[at]!;
      const put = samples[i]! + SMEAR * delayed;
      line[at] = flushed(put);
      samples[i] = delayed - SMEAR * put;
      at = at + 1 === line.length ? 0 : at + 1;
    }
    this.at = at;
  }

  clear(): void {
    this.line.fill(0);
  }
}

/** A plate has no first reflections, and no level for them. */
type ReverbValues = ValuesOf<typeof PLATE> & Partial<ValuesOf<typeof ROOM>>;

/** Pre-delay, first reflections, smear, network. The size cannot glide: it is a kernel of its own. */
class ReverbKernel extends GridKernel {
  private readonly predelay: readonly [DelayLine, DelayLine];
  private network: FeedbackNetwork;
  private smears: readonly (readonly [Smear, Smear])[] = [];
  /** First reflections of the left and of the right, behind the pre-delay. */
  private early: readonly [Taps, Taps] = [noTaps(), noTaps()];
  private readonly hasEarly: boolean;
  private readonly dry = this.ramp();
  private readonly wet = this.ramp();
  private readonly width = this.ramp();
  private readonly earlyGain = this.ramp();
  private readonly lowCut = this.ramp();
  private readonly push = this.ramp();
  private readonly lows = new Float64Array(2);
  private readonly fadeStep = 1 / (gridSteps(MOVE, this.sampleRate) * GRID);
  private readonly wetLeft = new Float64Array(GRID);
  private readonly wetRight = new Float64Array(GRID);
  private readonly firstLeft = new Float64Array(GRID);
  private readonly firstRight = new Float64Array(GRID);
  private readonly beforeEntry = new Float64Array(GRID);
  private readonly beforeFirst = new Float64Array(GRID);
  private delay = 1;
  private before = 1;
  private wanted = 1;
  private fade = 0;
  private size = 0;
  private settles = 0;

  constructor(
    private readonly space: Space,
    sampleRate: number,
  ) {
    super(sampleRate);
    this.hasEarly = space.early.length > 0;
    const longest = Math.max(0, ...space.early.map(([ms]) => ms)) * 1.5;
    const line = () => new DelayLine((LONGEST_PREDELAY + longest / 1000) * sampleRate + GRID);
    this.predelay = [line(), line()];
    this.network = this.build(100);
  }

  set(values: ReverbValues, jump: boolean): void {
    const size = values.size;
    if (size !== this.size) this.network = this.build(size);
    const { lengths } = this.network;
    const filters = lengths.map((length) => absorption(values, length, this.sampleRate));
    this.network.aim(filters, this.glide, jump);
    // The longer it lasts, the more sound piles up: what goes in is turned down by as much.
    const mean = lengths.reduce((a, b) => a + b, 0) / lengths.length;
    const once = 10 ** ((-3 * mean) / (this.sampleRate * values.decay));
    this.aim(this.push, NETWORK_LEVEL * Math.sqrt(1 - once * once), jump);
    this.aim(this.dry, levelGain(values.dry), jump);
    this.aim(this.wet, levelGain(values.wet), jump);
    this.aim(this.width, values.width / 100, jump);
    this.aim(this.earlyGain, values.early === undefined ? 0 : gainOf(decibels(values.early)), jump);
    this.aim(this.lowCut, 1 - Math.exp((-2 * Math.PI * values.lowCut) / this.sampleRate), jump);
    this.wanted = Math.max(1, Math.round((values.predelay / 1000) * this.sampleRate));
    this.settles = values.predelay / 1000 + Math.max(...lengths) / this.sampleRate + values.decay / 2;
    if (!jump) return;
    this.delay = this.wanted;
    this.fade = 0;
  }

  /** In half of its decay a steady sound comes within 3 % of what it will be. */
  settling(): number {
    return this.settles;
  }

  reset(): void {
    for (const line of this.predelay) line.clear();
    for (const [left, right] of this.smears) {
      left.clear();
      right.clear();
    }
    this.network.clear();
    this.lows.fill(0);
  }

  protected override tick(): void {
    this.network.tick();
    for (let c = 0; c < 2; c++) if (Math.abs(this.lows[c]!) < FLUSH) this.lows[c] = 0;
    if (this.fade > 0 || this.wanted === this.delay) return;
    this.before = this.delay;
    this.delay = this.wanted;
    this.fade = 1;
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { wetLeft, wetRight } = this;
    const count = to - from;
    this.enter(0, left, from, count);
    this.enter(1, right, from, count);
    for (let s = 0; s < this.smears.length; s++) {
      this.smears[s]![0].pass(wetLeft, count);
      this.smears[s]![1].pass(wetRight, count);
    }
    const push = this.push.value;
    for (let i = 0; i < count; i++) {
      wetLeft[i]! *= push;
      wetRight[i]! *= push;
    }
    this.network.process(wetLeft, wetRight, count, this.within);
    this.leave(left, right, from, count);
    if (this.fade > 0) this.fade = Math.max(0, this.fade - this.fadeStep * count);
  }

  private leave(left: Float32Array, right: Float32Array, from: number, count: number): void {
    const { wetLeft, wetRight, firstLeft, firstRight, within } = this;
    const drySlope = slopeOf(this.dry);
    const wetSlope = slopeOf(this.wet);
    const widthSlope = slopeOf(this.width);
    const earlySlope = slopeOf(this.earlyGain);
    const width0 = this.width.value;
    const early0 = this.earlyGain.value;
    const dry0 = this.dry.value;
    const wet0 = this.wet.value;
    for (let i = 0; i < count; i++) {
      const width = width0 + widthSlope * (within + i);
      const early = early0 + earlySlope * (within + i);
      const l = wetLeft[i]! + early * firstLeft[i]!;
      const r = wetRight[i]! + early * firstRight[i]!;
      const middle = (l + r) / 2;
      const dry = dry0 + drySlope * (within + i);
      const wet = wet0 + wetSlope * (within + i);
      left[from + i] = dry * left[from + i]! + wet * (middle + width * (l - middle));
      right[from + i] = dry * right[from + i]! + wet * (middle + width * (r - middle));
    }
  }

  /** One channel behind its pre-delay: its first reflections, and what enters the network. */
  private enter(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    const lowCut = this.lowCut.value;
    const line = this.predelay[channel];
    const wet = channel === 0 ? this.wetLeft : this.wetRight;
    const first = channel === 0 ? this.firstLeft : this.firstRight;
    let low = this.lows[channel]!;
    for (let i = 0; i < count; i++) {
      const x = samples[from + i]!;
      low += lowCut * (x - low);
      wet[i] = x - low;
    }
    this.lows[channel] = low;
    line.writeBlock(wet, count);
    this.take(channel, this.delay, wet, first, count);
    if (this.fade > 0) this.move(channel, wet, first, count);
  }

  /** Reads the entry and the first reflections at a pre-delay. */
  // eslint-disable-next-line max-params -- called for each segment: an object for it would be allocated in the audio path
  private take(channel: 0 | 1, delay: number, entry: Float64Array, first: Float64Array, count: number): void {
    const line = this.predelay[channel];
    line.readBlock(entry, count, delay);
    if (this.hasEarly) line.readTaps(first, count, delay, this.early[channel]);
  }

  /** Cross-fades from what is heard at the pre-delay before to what was read at the new one. */
  private move(channel: 0 | 1, wet: Float64Array, first: Float64Array, count: number): void {
    const { beforeEntry, beforeFirst } = this;
    this.take(channel, this.before, beforeEntry, beforeFirst, count);
    for (let i = 0; i < count; i++) {
      const fade = Math.max(0, this.fade - this.fadeStep * i);
      wet[i] = wet[i]! + fade * (beforeEntry[i]! - wet[i]!);
      first[i] = first[i]! + fade * (beforeFirst[i]! - first[i]!);
    }
  }

  private build(size: number): FeedbackNetwork {
    const { space, sampleRate } = this;
    const samples = (ms: number) => (ms / 1000) * (size / 100) * sampleRate;
    this.size = size;
    this.smears = space.smear.map((ms) => [
      new Smear(primeFrom(samples(ms))),
      new Smear(primeFrom(samples(ms * 1.07))),
    ]);
    this.early = [noTaps(), noTaps()];
    space.early.forEach(([ms, gain], at) => {
      const taps = this.early[at % 2 === 0 ? 0 : 1];
      taps.delays[at >> 1] = Math.max(1, Math.round(samples(ms)));
      taps.gains[at >> 1] = gain;
    });
    return new FeedbackNetwork(
      space.lines.map((ms) => primeFrom(samples(ms))),
      (space.wander * sampleRate) / 48_000,
      sampleRate,
    );
  }
}

const factoryOf =
  (space: SpaceName): KernelFactory<ReverbValues> =>
  (sampleRate) =>
    new ReverbKernel(SPACES[space], sampleRate);

export const createRoom = factoryOf("room");
export const createPlate = factoryOf("plate");
export const createHall = factoryOf("hall");
