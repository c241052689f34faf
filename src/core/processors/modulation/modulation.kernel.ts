import { DelayLine, type Walk } from "../../dsp/delay-line";
import { FLUSH, GRID, isSilent } from "../../dsp/grid";
import { GridKernel, slopeOf } from "../grid-kernel";
import type { Kernel } from "../kernel";
import type { ValuesOf } from "../model";
import type { HeardValues } from "../../units/param-spec";
import { levelGain } from "../delay/multitap-delay/design";
import { type CHORUS, CHORUS_SWING, type FLANGER, FLANGER_SWING } from "./chorus";
import { TURN } from "./modulation-design";
import { type PHASER, PHASER_SWING, allPassCoefficient } from "./phaser";
import { type TREMOLO, tremoloGain, tremoloWave } from "./tremolo";

/** A turning phase, evaluated on the grid and straight between its points. */
abstract class TurningKernel extends GridKernel {
  /** In turns. */
  protected phase = 0;
  protected readonly rate = this.ramp();
  protected readonly depth = this.ramp();
  protected readonly spread = this.ramp();

  /** Takes the values that all have; each has its own besides, and then turns. */
  protected aimTurn(values: HeardValues<"rate" | "depth" | "spread">, jump: boolean): void {
    this.aim(this.rate, values.rate, jump);
    this.aim(this.depth, values.depth / 100, jump);
    this.aim(this.spread, values.spread / 200, jump);
    if (jump) this.turn(true);
  }

  reset(): void {
    this.phase = 0;
    this.clear();
    this.turn(this.standsAnew);
  }

  isAtRest(): boolean {
    return this.isStill && this.isSilent;
  }

  protected abstract readonly isSilent: boolean;

  /** Whether forgetting the sound forgets where the way stood. */
  protected readonly standsAnew: boolean = false;

  protected abstract clear(): void;
  /** Called on each point of the grid with the phase at the next: lays out the way until there, or jumps there. */
  protected abstract turn(jump: boolean): void;

  protected override tick(): void {
    this.phase = (this.phase + this.turns) % 1;
    this.turn(false);
  }

  /** Turns from one point of the grid to the next. */
  protected get turns(): number {
    return (this.rate.value * GRID) / this.sampleRate;
  }
}

/** A value that walks straight from one point of the grid to the next. */
class Swing {
  now = 0;
  next = 0;

  go(next: number, jump: boolean): void {
    this.now = jump ? next : this.next;
    this.next = next;
  }

  /** What it gains in one sample. */
  get step(): number {
    return (this.next - this.now) / GRID;
  }
}

const swings = (count: number): readonly Swing[] => Array.from({ length: count }, () => new Swing());

/** Two voices a quarter of a turn apart in each channel, read from a line whose length swings. */
class ChorusKernel extends TurningKernel {
  private readonly lines = [new DelayLine(0.06 * this.sampleRate), new DelayLine(0.06 * this.sampleRate)] as const;
  private readonly delay = this.ramp();
  private readonly dry = this.ramp();
  private readonly wet = this.ramp();
  /** Voices of the left, then of the right. */
  private readonly voices = swings(4);
  private readonly heard = [new Float64Array(GRID), new Float64Array(GRID)] as const;
  private readonly walk: Walk = { delay: 0, step: 0, passed: 0 };

  set(values: ValuesOf<typeof CHORUS>, jump: boolean): void {
    this.aim(this.delay, values.delay, jump);
    this.aim(this.dry, levelGain(values.dry), jump);
    this.aim(this.wet, levelGain(values.wet), jump);
    this.aimTurn(values, jump);
  }

  protected get isSilent(): boolean {
    return this.lines[0].isSilent && this.lines[1].isSilent;
  }

  protected clear(): void {
    for (const line of this.lines) line.clear();
  }

  protected turn(jump: boolean): void {
    // What has just been written is one behind.
    const samples = this.sampleRate / 1000;
    const swing = CHORUS_SWING * this.depth.value;
    for (let v = 0; v < 4; v++) {
      const ahead = (v % 2) / 4 + (v > 1 ? this.spread.value : 0);
      const sine = Math.sin(TURN * (this.phase + this.turns + ahead));
      this.voices[v]!.go((this.delay.value + swing * sine) * samples + 1, jump);
    }
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    this.channel(0, left, from, to);
    this.channel(1, right, from, to);
  }

  private channel(channel: 0 | 1, samples: Float32Array, from: number, to: number): void {
    const line = this.lines[channel];
    const one = this.heard[0];
    const two = this.heard[1];
    const count = to - from;
    const written = line.writeFrom(samples, from, to) + 1;
    this.hear(line, this.voices[channel * 2]!, one, count, written);
    this.hear(line, this.voices[channel * 2 + 1]!, two, count, written);
    const drySlope = slopeOf(this.dry);
    const wetSlope = slopeOf(this.wet);
    const dry = this.dry.value;
    const wet = this.wet.value;
    const { within } = this;
    for (let i = 0; i < count; i++) {
      const n = within + i;
      const voices = (one[i]! + two[i]!) / 2;
      samples[from + i] = (dry + drySlope * n) * samples[from + i]! + (wet + wetSlope * n) * voices;
    }
  }

  // eslint-disable-next-line max-params -- an object for each would be allocated in the audio path
  private hear(line: DelayLine, voice: Swing, out: Float64Array, count: number, written: number): void {
    const { walk } = this;
    walk.delay = voice.now;
    walk.step = voice.step;
    walk.passed = this.within;
    line.readWalking(out, count, written, walk);
  }
}

/** A short line that is fed back; what is added to the sound notches it at every odd half of a wave. */
class FlangerKernel extends TurningKernel {
  private readonly lines = [new DelayLine(0.03 * this.sampleRate), new DelayLine(0.03 * this.sampleRate)] as const;
  private readonly delay = this.ramp();
  private readonly feedback = this.ramp();
  private readonly mix = this.ramp();
  private readonly ways = swings(2);

  set(values: ValuesOf<typeof FLANGER>, jump: boolean): void {
    this.aim(this.delay, values.delay, jump);
    this.aim(this.feedback, values.feedback / 100, jump);
    this.aim(this.mix, values.mix / 100, jump);
    this.aimTurn(values, jump);
  }

  protected get isSilent(): boolean {
    return this.lines[0].isSilent && this.lines[1].isSilent;
  }

  protected clear(): void {
    for (const line of this.lines) line.clear();
  }

  protected turn(jump: boolean): void {
    const swing = (FLANGER_SWING * this.depth.value) / 2;
    for (let c = 0; c < 2; c++) {
      // From the delay itself upwards: a line cannot be shorter than nothing.
      const sine = 1 - Math.cos(TURN * (this.phase + this.turns + (c === 1 ? this.spread.value : 0)));
      this.ways[c]!.go(((this.delay.value + swing * sine) * this.sampleRate) / 1000, jump);
    }
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    this.channel(0, left, from, to);
    this.channel(1, right, from, to);
  }

  private channel(channel: 0 | 1, samples: Float32Array, from: number, to: number): void {
    const line = this.lines[channel];
    const way = this.ways[channel]!;
    const feedbackSlope = slopeOf(this.feedback);
    const mixSlope = slopeOf(this.mix);
    const feedback = this.feedback.value;
    const mix0 = this.mix.value;
    const now = way.now;
    const step = way.step;
    const begin = this.within - from;
    for (let i = from; i < to; i++) {
      const n = begin + i;
      const x = samples[i]!;
      const delayed = line.readBetween(Math.max(5, now + step * n));
      const put = x + (feedback + feedbackSlope * n) * delayed;
      line.write(Math.abs(put) < FLUSH ? 0 : put);
      const mix = mix0 + mixSlope * n;
      samples[i] = (1 - mix) * x + mix * delayed;
    }
  }
}

/** All-passes in series whose corner wanders: where they turn the phase by half a turn, the sum has a notch. */
class PhaserKernel extends TurningKernel {
  private stages = 0;
  private readonly states = new Float64Array(2 * 12 * 2);
  private readonly fed = new Float64Array(2);
  private readonly centre = this.ramp();
  private readonly feedback = this.ramp();
  private readonly mix = this.ramp();
  private readonly ways = swings(2);

  set(values: ValuesOf<typeof PHASER>, jump: boolean): void {
    this.stages = values.stages;
    this.aim(this.centre, Math.log2(values.centre), jump);
    this.aim(this.feedback, values.feedback / 100, jump);
    this.aim(this.mix, values.mix / 100, jump);
    this.aimTurn(values, jump);
  }

  protected get isSilent(): boolean {
    return isSilent(this.states) && isSilent(this.fed);
  }

  protected clear(): void {
    this.states.fill(0);
    this.fed.fill(0);
  }

  protected turn(jump: boolean): void {
    const { states, fed } = this;
    for (let i = 0; i < states.length; i++) if (Math.abs(states[i]!) < FLUSH) states[i] = 0;
    for (let c = 0; c < 2; c++) {
      if (Math.abs(fed[c]!) < FLUSH) fed[c] = 0;
      const sine = Math.sin(TURN * (this.phase + this.turns + (c === 1 ? this.spread.value : 0)));
      const freq = 2 ** (this.centre.value + PHASER_SWING * this.depth.value * sine);
      this.ways[c]!.go(allPassCoefficient(freq, this.sampleRate), jump);
    }
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    this.channel(0, left, from, to);
    this.channel(1, right, from, to);
  }

  private channel(channel: 0 | 1, samples: Float32Array, from: number, to: number): void {
    const { states, stages } = this;
    const begin = channel * 24;
    const way = this.ways[channel]!;
    const feedbackSlope = slopeOf(this.feedback);
    const mixSlope = slopeOf(this.mix);
    const feedback = this.feedback.value;
    const mix0 = this.mix.value;
    const now = way.now;
    const step = way.step;
    const first = this.within - from;
    let fed = this.fed[channel]!;
    for (let i = from; i < to; i++) {
      const n = first + i;
      const a = now + step * n;
      const x = samples[i]!;
      const mix = mix0 + mixSlope * n;
      let y = x + (feedback + feedbackSlope * n) * fed;
      for (let s = begin; s < begin + stages * 2; s += 2) {
        const passed = a * y + states[s]! - a * states[s + 1]!;
        states[s] = y;
        states[s + 1] = passed;
        y = passed;
      }
      fed = y;
      samples[i] = (1 - mix) * x + mix * y;
    }
    this.fed[channel] = fed;
  }
}

class TremoloKernel extends TurningKernel {
  private wave = 0;
  protected override readonly standsAnew = true;
  private readonly ways = swings(2);

  set(values: ValuesOf<typeof TREMOLO>, jump: boolean): void {
    this.wave = values.wave;
    this.aimTurn(values, jump);
  }

  /** It keeps nothing of the sound. */
  protected readonly isSilent = true;

  protected clear(): void {}

  protected turn(jump: boolean): void {
    for (let c = 0; c < 2; c++) {
      const turns = this.phase + this.turns + (c === 1 ? this.spread.value : 0);
      this.ways[c]!.go(tremoloGain(tremoloWave(this.wave, turns), this.depth.value), jump);
    }
  }

  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const one = this.ways[0]!;
    const two = this.ways[1]!;
    const leftNow = one.now;
    const leftStep = one.step;
    const rightNow = two.now;
    const rightStep = two.step;
    const begin = this.within - from;
    for (let i = from; i < to; i++) {
      left[i]! *= leftNow + leftStep * (begin + i);
      right[i]! *= rightNow + rightStep * (begin + i);
    }
  }
}

export const createChorus = (sampleRate: number): Kernel<ValuesOf<typeof CHORUS>> => new ChorusKernel(sampleRate);
export const createFlanger = (sampleRate: number): Kernel<ValuesOf<typeof FLANGER>> => new FlangerKernel(sampleRate);
export const createPhaser = (sampleRate: number): Kernel<ValuesOf<typeof PHASER>> => new PhaserKernel(sampleRate);
export const createTremolo = (sampleRate: number): Kernel<ValuesOf<typeof TREMOLO>> => new TremoloKernel(sampleRate);
