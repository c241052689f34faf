import { DelayLine } from "../../dsp/delay-line";
import { Diffuser } from "../../dsp/diffuser";
import { FeedbackNetwork } from "../../dsp/feedback-network";
import { FLUSH, GRID, gridSteps, isSilent } from "../../dsp/grid";
import { CHANNELS } from "../../dsp/hadamard";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { KernelFactory } from "../kernel";
import { decibels, gainOf } from "../../units/quantities";
import { levelGain } from "../delay/multitap-delay/design";
import type { ValuesOf } from "../model";
import { type PLATE, type ROOM, SPACES, type Space, type SpaceName, absorption, linesOf } from "./reverb";

/** A changed pre-delay cross-fades, in seconds. */
const MOVE = 0.012;
const LONGEST_PREDELAY = 0.25;
/** So that a wet level of 0 dB is about as loud as the dry sound, for music of every kind. */
const NETWORK_LEVEL = 0.77;
/** At an early level of −6 dB, and in a plate, the first 50 ms are as loud as the tail that begins with them. */
const EARLY_LEVEL = 2;

/** A plate has no level for its first reflections. */
type ReverbValues = ValuesOf<typeof PLATE> & Partial<ValuesOf<typeof ROOM>>;

/** Pre-delay, first reflections, network. The size cannot glide: it is a kernel of its own. */
class ReverbKernel extends GridKernel {
  private readonly predelay: readonly [DelayLine, DelayLine];
  private diffuser!: Diffuser;
  private network!: FeedbackNetwork;
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
  /** What the diffuser makes of a segment, channel behind channel. */
  private readonly spread = new Float64Array(CHANNELS * GRID);
  private readonly beforeEntry = new Float64Array(GRID);
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
    const line = () => new DelayLine(LONGEST_PREDELAY * sampleRate + GRID);
    this.predelay = [line(), line()];
    this.build(100);
  }

  set(values: ReverbValues, jump: boolean): void {
    const size = values.size;
    if (size !== this.size) this.build(size);
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
    this.aim(this.earlyGain, values.early === undefined ? 1 : EARLY_LEVEL * gainOf(decibels(values.early)), jump);
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

  isAtRest(): boolean {
    const { predelay, diffuser, network, lows } = this;
    const isMoving = this.fade > 0 || this.wanted !== this.delay;
    if (isMoving || !this.isStill || !isSilent(lows) || !network.isAtRest || !diffuser.isSilent) return false;
    return predelay[0].isSilent && predelay[1].isSilent;
  }

  override idle(count: number): void {
    super.idle(count);
    // Its rings keep step with the grid.
    this.diffuser.idle(count);
    this.network.idle(count);
  }

  reset(): void {
    for (const line of this.predelay) line.clear();
    this.diffuser.clear();
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
    const { wetLeft, wetRight, spread } = this;
    const count = to - from;
    this.enter(0, left, from, count);
    this.enter(1, right, from, count);
    this.diffuser.process(wetLeft, wetRight, spread, count);
    this.network.process(spread, wetLeft, wetRight, count);
    this.addFirst(count);
    this.leave(left, right, from, count);
    if (this.fade > 0) this.fade = Math.max(0, this.fade - this.fadeStep * count);
  }

  /**
   * The first reflections: what enters the network, heard as it enters. Of four channels one is turned: signs in turn would be
   * a row of the matrix behind them, which undoes it, and leaves a quarter of the echoes.
   */
  private addFirst(count: number): void {
    const { wetLeft, wetRight, spread, within } = this;
    const slope = slopeOf(this.earlyGain);
    const begin = this.earlyGain.value;
    for (let i = 0; i < count; i++) {
      const gain = begin + slope * (within + i);
      wetLeft[i]! += gain * (spread[i]! + spread[i + 2 * GRID]! + (spread[i + 4 * GRID]! - spread[i + 6 * GRID]!));
      wetRight[i]! +=
        gain * (spread[i + GRID]! + spread[i + 3 * GRID]! + (spread[i + 5 * GRID]! - spread[i + 7 * GRID]!));
    }
  }

  private leave(left: Float32Array, right: Float32Array, from: number, count: number): void {
    const { wetLeft, wetRight, within } = this;
    const drySlope = slopeOf(this.dry);
    const wetSlope = slopeOf(this.wet);
    const widthSlope = slopeOf(this.width);
    const width0 = this.width.value;
    const dry0 = this.dry.value;
    const wet0 = this.wet.value;
    for (let i = 0; i < count; i++) {
      const width = width0 + widthSlope * (within + i);
      const l = wetLeft[i]!;
      const r = wetRight[i]!;
      const middle = (l + r) / 2;
      const dry = dry0 + drySlope * (within + i);
      const wet = wet0 + wetSlope * (within + i);
      left[from + i] = dry * left[from + i]! + wet * (middle + width * (l - middle));
      right[from + i] = dry * right[from + i]! + wet * (middle + width * (r - middle));
    }
  }

  /** One channel behind its pre-delay, at the level at which it enters. */
  private enter(channel: 0 | 1, samples: Float32Array, from: number, count: number): void {
    const lowCut = this.lowCut.value;
    const push = this.push.value;
    const line = this.predelay[channel];
    const wet = channel === 0 ? this.wetLeft : this.wetRight;
    let low = this.lows[channel]!;
    for (let i = 0; i < count; i++) {
      const x = samples[from + i]!;
      low += lowCut * (x - low);
      wet[i] = push * (x - low);
    }
    this.lows[channel] = low;
    line.writeBlock(wet, count);
    line.readBlock(wet, count, this.delay);
    if (this.fade > 0) this.move(line, wet, count);
  }

  /** Cross-fades from what is heard at the pre-delay before to what was read at the new one. */
  private move(line: DelayLine, wet: Float64Array, count: number): void {
    const { beforeEntry } = this;
    line.readBlock(beforeEntry, count, this.before);
    for (let i = 0; i < count; i++) {
      const fade = Math.max(0, this.fade - this.fadeStep * i);
      wet[i] = wet[i]! + fade * (beforeEntry[i]! - wet[i]!);
    }
  }

  private build(size: number): void {
    const { space, sampleRate } = this;
    const samples = (ms: number) => Math.round((ms / 1000) * (size / 100) * sampleRate);
    this.size = size;
    this.diffuser = new Diffuser(space.stages.map((stage) => stage.map(samples)));
    this.network = new FeedbackNetwork(linesOf(space, size, sampleRate));
  }
}

const factoryOf =
  (space: SpaceName): KernelFactory<ReverbValues> =>
  (sampleRate) =>
    new ReverbKernel(SPACES[space], sampleRate);

export const createRoom = factoryOf("room");
export const createPlate = factoryOf("plate");
export const createHall = factoryOf("hall");
