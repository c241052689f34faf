import type { HeardValues } from "../../units/param-spec";
import { ATTACK_AIM, type Envelope } from "../../processors/instrument/instrument-design";

/** One note at work. Made beforehand and used again for note after note: starting one allocates nothing. */
export interface Voice<Values extends HeardValues = HeardValues> {
  /** Takes values; a note that sounds already goes on with those that it can take. */
  set(values: Values): void;
  /** `velocity` 0 to 1. */
  start(note: number, velocity: number): void;
  release(): void;
  /** Adds the note to a stretch of both channels. */
  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void;
  /** Whether it still sounds. */
  readonly sounds: boolean;
  /** Silence at once, for a voice that is taken for another note. */
  stop(): void;
}

/** Recorded sound that a sampler plays, at its own rate. */
export interface Sample {
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly sampleRate: number;
}

export const TURN = 2 * Math.PI;

export const pitchOf = (note: number): number => 440 * 2 ** ((note - 69) / 12);

/** Below this a level is over. */
const OVER = 1e-4;

/** Attack, decay, sustain, release, exponential, a sample at a time. */
export class EnvelopeGenerator {
  level = 0;
  private stage: "off" | "attack" | "decay" | "release" = "off";
  private up = 0;
  private down = 0;
  private out = 0;
  private sustain = 1;

  constructor(private readonly sampleRate: number) {}

  set({ attack, decay, sustain, release }: Envelope): void {
    const share = (seconds: number) => 1 - Math.exp(-1 / (Math.max(1e-4, seconds) * this.sampleRate));
    this.up = share(attack);
    this.down = share(decay);
    this.out = share(release);
    this.sustain = sustain;
  }

  get sounds(): boolean {
    return this.stage !== "off";
  }

  start(): void {
    this.stage = "attack";
  }

  release(): void {
    if (this.stage !== "off") this.stage = "release";
  }

  stop(): void {
    this.stage = "off";
    this.level = 0;
  }

  next(): number {
    switch (this.stage) {
      case "off":
        return 0;
      case "attack":
        this.level += this.up * (ATTACK_AIM - this.level);
        if (this.level >= 1) {
          this.level = 1;
          this.stage = "decay";
        }
        break;
      case "decay":
        this.level += this.down * (this.sustain - this.level);
        if (this.sustain < OVER && this.level < OVER) this.stop();
        break;
      case "release":
        this.level -= this.out * this.level;
        if (this.level < OVER) this.stop();
        break;
    }
    return this.level;
  }
}

/** A level that falls by e in each of its times; a struck thing. */
export class Fading {
  level = 0;
  private factor = 0;

  constructor(private readonly sampleRate: number) {}

  strike(level: number, seconds: number): void {
    this.level = level;
    this.fallIn(seconds);
  }

  fallIn(seconds: number): void {
    this.factor = Math.exp(-1 / (Math.max(1e-4, seconds) * this.sampleRate));
  }

  next(): number {
    this.level = this.level > OVER / 10 ? this.level * this.factor : 0;
    return this.level;
  }
}
