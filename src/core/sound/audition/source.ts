import type { HeardInstrument } from "../../chains/heard-instrument";
import { InstrumentRuntime, type Samples } from "../instrument/instrument-runtime";
import { Past } from "./past";
import type { MaterialReel } from "./reels";

/** What chains are fed. Several may hear one source, each from a time of its own. */
export interface Source {
  readonly past: Past;
  readonly instrument: InstrumentRuntime | null;
  /** Samples between what it gave last and now: one that is new begins a while ago. */
  readonly behind: number;
  /** Time passes. One that is not behind gives its sound of it. */
  pass(count: number): void;
  /** Gives its sound until it is only so many samples behind. */
  bringTo(behind: number): void;
}

/** How far back a sound can be heard, in seconds; no path begins longer ago. */
export const LONGEST_PAST = 5;
/** An instrument that is new begins so long ago, in seconds: what was struck then still sounds. */
export const LEAD = 1;

const pastAt = (sampleRate: number): Past => new Past((LONGEST_PAST + 0.2) * sampleRate);

/** The material as its reel gives it. */
export class MaterialSource implements Source {
  readonly past: Past;
  readonly instrument = null;
  readonly behind = 0;

  constructor(
    private readonly reel: MaterialReel,
    sampleRate: number,
  ) {
    this.past = pastAt(sampleRate);
  }

  pass(count: number): void {
    this.past.write(this.reel.left, this.reel.right, count);
  }

  bringTo(): void {}
}

interface Begin {
  readonly samples: Samples;
  readonly sampleRate: number;
  /** The longest stretch, in samples. */
  readonly size: number;
}

/** An instrument, its phrase and the keys that are held. */
export class InstrumentSource implements Source {
  readonly past: Past;
  readonly instrument: InstrumentRuntime;
  behind = 0;
  private readonly left: Float32Array;
  private readonly right: Float32Array;

  constructor(instrument: HeardInstrument, { samples, sampleRate, size }: Begin) {
    this.past = pastAt(sampleRate);
    this.instrument = new InstrumentRuntime(instrument, samples, sampleRate);
    this.left = new Float32Array(size);
    this.right = new Float32Array(size);
  }

  /** It begins `samples` ago, and is at `progress` of its phrase when it has come to now. */
  begin(progress: number, samples: number): void {
    const { instrument } = this;
    this.behind = samples;
    const back = instrument.length > 0 ? samples / instrument.length : 0;
    instrument.seek((((progress - back) % 1) + 1) % 1);
  }

  pass(count: number): void {
    if (this.behind === 0) this.give(count);
    else this.behind += count;
  }

  bringTo(behind: number): void {
    while (this.behind > behind) {
      const count = Math.min(this.left.length, this.behind - behind);
      this.give(count);
      this.behind -= count;
    }
  }

  private give(count: number): void {
    const { left, right } = this;
    left.fill(0, 0, count);
    right.fill(0, 0, count);
    this.instrument.addTo(left, right, count);
    this.past.write(left, right, count);
  }
}
