import { FLUSH, GRID, gridSteps, isSilent } from "../../../dsp/grid";
import { GridKernel, slopeOf } from "../../grid-kernel";
import type { Kernel } from "../../kernel";
import type { ValuesOf } from "../../model";
import { settlingOf } from "../delay-design";
import { dampingCoefficient, levelGain, loopTime, tapGains, tapsOf } from "./design";
import { LONGEST, type MULTITAP_DELAY } from "./model";
import { TAPS } from "./taps";

/** A changed time cross-fades from the old place in the line to the new, in seconds. */
const MOVE = 0.012;

/** A place from which the line is read, walking to another by cross-fade. */
interface Reader {
  readonly now: Float64Array;
  /** Samples behind the writer. */
  delay: number;
  before: number;
  wanted: number;
  /** How much of the fade is left, 1 to 0. */
  fade: number;
}

const createReader = (): Reader => ({ now: new Float64Array(GRID), delay: 1, before: 1, wanted: 1, fade: 0 });

const rests = ({ fade, wanted, delay }: Reader): boolean => fade <= 0 && wanted === delay;

/** Input summed to mono into one line; taps panned over it; the loop is read at the longest tap and damped. */
class MultitapDelayKernel extends GridKernel {
  private readonly line: Float64Array;
  private readonly mask: number;
  private readonly readers = TAPS.map(createReader);
  private readonly loop = createReader();
  private readonly lefts = TAPS.map(() => this.ramp());
  private readonly rights = TAPS.map(() => this.ramp());
  private readonly feedback = this.ramp();
  private readonly damping = this.ramp();
  private readonly dry = this.ramp();
  private readonly wet = this.ramp();
  private readonly wetLeft = new Float64Array(GRID);
  private readonly wetRight = new Float64Array(GRID);
  private settles = 0;
  private written = 0;
  private lowPass = 0;
  private readonly fadeStep: number;

  constructor(sampleRate: number) {
    super(sampleRate);
    const longest = Math.ceil((LONGEST / 1000) * sampleRate) + GRID;
    this.mask = 2 ** Math.ceil(Math.log2(longest)) - 1;
    this.line = new Float64Array(this.mask + 1);
    this.fadeStep = 1 / (gridSteps(MOVE, sampleRate) * GRID);
  }

  set(values: ValuesOf<typeof MULTITAP_DELAY>, jump: boolean): void {
    const taps = tapsOf(values);
    taps.forEach((tap, at) => {
      const { left, right } = tapGains(tap);
      this.aim(this.lefts[at]!, left, jump);
      this.aim(this.rights[at]!, right, jump);
      this.move(this.readers[at]!, tap.time, jump);
    });
    const loop = loopTime(taps);
    if (loop > 0) this.move(this.loop, loop, jump);
    this.aim(this.feedback, loop > 0 ? values.feedback / 100 : 0, jump);
    this.aim(this.damping, dampingCoefficient(values.damping, this.sampleRate), jump);
    this.aim(this.dry, levelGain(values.dry), jump);
    this.aim(this.wet, levelGain(values.wet), jump);
    this.settles = settlingOf(Math.max(loop, ...taps.map(({ time }) => time)), values.feedback / 100);
  }

  settling(): number {
    return this.settles;
  }

  isAtRest(): boolean {
    return this.isStill && this.lowPass === 0 && rests(this.loop) && this.readers.every(rests) && isSilent(this.line);
  }

  reset(): void {
    this.line.fill(0);
    this.lowPass = 0;
  }

  private move(reader: Reader, time: number, jump: boolean): void {
    reader.wanted = Math.max(GRID, Math.round((time / 1000) * this.sampleRate));
    if (jump) {
      reader.delay = reader.wanted;
      reader.fade = 0;
    }
  }

  protected override tick(): void {
    for (const reader of this.readers) this.arrive(reader);
    this.arrive(this.loop);
    if (Math.abs(this.lowPass) < FLUSH) this.lowPass = 0;
  }

  /** A reader sets out for where it is wanted once it has come to rest. */
  private arrive(reader: Reader): void {
    if (reader.fade > 0 || reader.wanted === reader.delay) return;
    reader.before = reader.delay;
    reader.delay = reader.wanted;
    reader.fade = 1;
  }

  /** Reads ahead of the writer: no delay is shorter than a segment, so all that is read has been written. */
  private read(reader: Reader, count: number): void {
    const { line, mask } = this;
    const now = reader.now;
    const start = this.written - reader.delay;
    if (reader.fade <= 0) {
      for (let i = 0; i < count; i++) now[i] = line[(start + i) & mask]!;
      return;
    }
    const before = this.written - reader.before;
    let fade = reader.fade;
    for (let i = 0; i < count; i++) {
      fade = fade > this.fadeStep / 2 ? fade - this.fadeStep : 0;
      now[i] = (1 - fade) * line[(start + i) & mask]! + fade * line[(before + i) & mask]!;
    }
    reader.fade = fade > this.fadeStep / 2 ? fade : 0;
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const count = to - from;
    this.wetLeft.fill(0);
    this.wetRight.fill(0);
    for (let t = 0; t < TAPS.length; t++) this.addTap(t, count);
    this.read(this.loop, count);
    this.write(left, right, from, to);
    const begin = this.within;
    const wetSlope = slopeOf(this.wet);
    const drySlope = slopeOf(this.dry);
    const { wetLeft, wetRight } = this;
    const wetNow = this.wet.value;
    const dryNow = this.dry.value;
    for (let i = 0; i < count; i++) {
      const wet = wetNow + wetSlope * (begin + i);
      const dry = dryNow + drySlope * (begin + i);
      left[from + i] = dry * left[from + i]! + wet * wetLeft[i]!;
      right[from + i] = dry * right[from + i]! + wet * wetRight[i]!;
    }
    this.written = (this.written + count) & this.mask;
  }

  private addTap(tap: number, count: number): void {
    const reader = this.readers[tap]!;
    const gainLeft = this.lefts[tap]!;
    const gainRight = this.rights[tap]!;
    const isSilent = gainLeft.left === 0 && gainLeft.value === 0 && gainRight.value === 0;
    // A silent tap is read only on its way to another place, so that it arrives there.
    if (isSilent && reader.fade <= 0) return;
    this.read(reader, count);
    if (isSilent) return;
    const begin = this.within;
    const { wetLeft, wetRight } = this;
    const { now } = reader;
    const leftSlope = slopeOf(gainLeft);
    const rightSlope = slopeOf(gainRight);
    const leftNow = gainLeft.value;
    const rightNow = gainRight.value;
    for (let i = 0; i < count; i++) {
      const heard = now[i]!;
      wetLeft[i]! += heard * (leftNow + leftSlope * (begin + i));
      wetRight[i]! += heard * (rightNow + rightSlope * (begin + i));
    }
  }

  private write(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { line, mask, written } = this;
    const looped = this.loop.now;
    const feedback = this.feedback.value;
    const damping = this.damping.value;
    let lowPass = this.lowPass;
    for (let i = from; i < to; i++) {
      lowPass += damping * (looped[i - from]! - lowPass);
      const put = (left[i]! + right[i]!) / 2 + feedback * lowPass;
      line[(written + i - from) & mask] = Math.abs(put) < FLUSH ? 0 : put;
    }
    this.lowPass = lowPass;
  }
}

export const createMultitapDelay = (sampleRate: number): Kernel<ValuesOf<typeof MULTITAP_DELAY>> =>
  new MultitapDelayKernel(sampleRate);
