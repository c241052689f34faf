import type { HeardValues } from "../../units/param-spec";
import { Fading, type Voice } from "./voice";

/** A voice that is struck and rings until it is over, or until the key is let go and a damper falls on it. */
export abstract class StruckVoice<Values extends HeardValues<"release">> implements Voice<Values> {
  private readonly damper: Fading;
  private damped = false;

  constructor(
    protected readonly sampleRate: number,
    protected values: Values,
  ) {
    this.damper = new Fading(sampleRate);
  }

  abstract readonly sounds: boolean;
  abstract stop(): void;
  protected abstract strike(note: number, velocity: number): void;
  /** Adds the note; each sample times `damping()`. */
  protected abstract ring(left: Float32Array, right: Float32Array, from: number, to: number): void;

  set(values: Values): void {
    this.values = values;
  }

  start(note: number, velocity: number): void {
    this.damped = false;
    this.damper.level = 1;
    this.strike(note, velocity);
  }

  release(): void {
    this.damped = true;
    this.damper.fallIn(this.values.release / 1000);
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    this.ring(left, right, from, to);
    if (this.damped && this.damper.level === 0) this.stop();
  }

  /** What the damper leaves of the next sample. */
  protected damping(): number {
    return this.damped ? this.damper.next() : 1;
  }
}
