import { DelayLine } from "../../dsp/delay-line";
import { FLUSH, GRID, flushed, gridSteps } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import type { ValuesOf } from "../model";
import { type ECHO, ECHO_LONGEST } from "./echo";
import { settlingOf } from "./delay-design";
import { dampingCoefficient, levelGain } from "./multitap-delay/design";

/** A changed time cross-fades from the old place in the line to the new, in seconds. */
const MOVE = 0.012;
/** Full wow: a turn in so many Hz, and so many samples at 48 kHz to each side. */
const WOW_RATE = 0.9;
const WOW_SWING = 0.0006;

interface Side {
  readonly line: DelayLine;
  delay: number;
  before: number;
  wanted: number;
  fade: number;
  low: number;
  damped: number;
}

/** Two lines with filters in their loops; crossed over, both sides go into the first and each line feeds the other. */
class EchoKernel extends GridKernel {
  private readonly sides = [this.side(), this.side()] as const;
  private readonly feedback = this.ramp();
  private readonly cross = this.ramp();
  private readonly damping = this.ramp();
  private readonly lowCut = this.ramp();
  private readonly wow = this.ramp();
  private readonly dry = this.ramp();
  private readonly wet = this.ramp();
  private readonly fadeStep = 1 / (gridSteps(MOVE, this.sampleRate) * GRID);
  private settles = 0;
  private phase = 0;
  private swing = 0;
  private nextSwing = 0;

  set(values: ValuesOf<typeof ECHO>, jump: boolean): void {
    this.move(this.sides[0], values.left, jump);
    this.move(this.sides[1], values.right, jump);
    this.aim(this.feedback, values.feedback / 100, jump);
    this.aim(this.cross, values.cross, jump);
    this.aim(this.damping, dampingCoefficient(values.damping, this.sampleRate), jump);
    this.aim(this.lowCut, 1 - Math.exp((-2 * Math.PI * values.lowCut) / this.sampleRate), jump);
    this.aim(this.wow, values.wow / 100, jump);
    this.aim(this.dry, levelGain(values.dry), jump);
    this.aim(this.wet, levelGain(values.wet), jump);
    this.settles = settlingOf(Math.max(values.left, values.right), values.feedback / 100);
  }

  settling(): number {
    return this.settles;
  }

  isAtRest(): boolean {
    return this.isStill && this.rests(this.sides[0]) && this.rests(this.sides[1]);
  }

  private rests({ low, damped, fade, wanted, delay, line }: Side): boolean {
    return low === 0 && damped === 0 && fade === 0 && wanted === delay && line.isSilent;
  }

  reset(): void {
    for (const side of this.sides) {
      side.line.clear();
      side.low = side.damped = 0;
    }
  }

  protected override tick(): void {
    for (let s = 0; s < 2; s++) {
      const side = this.sides[s]!;
      if (side.fade === 0 && side.wanted !== side.delay) {
        side.before = side.delay;
        side.delay = side.wanted;
        side.fade = 1;
      }
      if (Math.abs(side.low) < FLUSH) side.low = 0;
      if (Math.abs(side.damped) < FLUSH) side.damped = 0;
    }
    this.phase = (this.phase + (WOW_RATE * GRID) / this.sampleRate) % 1;
    this.swing = this.nextSwing;
    this.nextSwing = this.wow.value * WOW_SWING * this.sampleRate * Math.sin(2 * Math.PI * this.phase);
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const [one, two] = this.sides;
    const feedback = this.feedback.value;
    const cross = this.cross.value;
    const damping = this.damping.value;
    const lowCut = this.lowCut.value;
    const drySlope = slopeOf(this.dry);
    const wetSlope = slopeOf(this.wet);
    for (let i = from; i < to; i++) {
      const n = this.within + i - from;
      const swing = this.swing + ((this.nextSwing - this.swing) * n) / GRID;
      const l = this.read(one, swing, damping, lowCut);
      const r = this.read(two, -swing, damping, lowCut);
      const inLeft = left[i]!;
      const inRight = right[i]!;
      one.line.write(flushed(inLeft + (cross / 2) * (inRight - inLeft) + feedback * (l + cross * (r - l))));
      two.line.write(flushed(inRight * (1 - cross) + feedback * (r + cross * (l - r))));
      const dry = this.dry.value + drySlope * n;
      const wet = this.wet.value + wetSlope * n;
      left[i] = dry * inLeft + wet * l;
      right[i] = dry * inRight + wet * r;
    }
  }

  private side(): Side {
    const line = new DelayLine((ECHO_LONGEST / 1000 + 2 * WOW_SWING) * this.sampleRate + GRID);
    return { line, delay: GRID, before: GRID, wanted: GRID, fade: 0, low: 0, damped: 0 };
  }

  private move(side: Side, ms: number, jump: boolean): void {
    // Room for the wow on the near side of the shortest echo.
    side.wanted = Math.max(5 + Math.ceil(WOW_SWING * this.sampleRate), Math.round((ms / 1000) * this.sampleRate));
    if (!jump) return;
    side.delay = side.wanted;
    side.fade = 0;
  }

  /** What comes back on one side, filtered by its loop. */
  private read(side: Side, swing: number, damping: number, lowCut: number): number {
    let heard = side.line.readBetween(side.delay + swing);
    if (side.fade > 0) {
      side.fade = Math.max(0, side.fade - this.fadeStep);
      heard += side.fade * (side.line.readBetween(side.before + swing) - heard);
    }
    side.damped += damping * (heard - side.damped);
    side.low += lowCut * (side.damped - side.low);
    return side.damped - side.low;
  }
}

export const createEcho = (sampleRate: number): Kernel<ValuesOf<typeof ECHO>> => new EchoKernel(sampleRate);
