import type { HeardNode } from "../../chains/heard-chain";
import type { KeySignal } from "../../processors/kernel";

/** The most that is processed in one go; larger blocks are cut. */
export const CHUNK = 128;

/** Bypass and replacement cross-fade over this, in seconds. Shorter clicks on a sustained low note. */
export const FADE = 0.012;

/** What a processor shows while it runs. */
export interface ProcessorState {
  readonly key: string;
  /** Highest sample that arrived since the last reading. */
  readonly peakIn: number;
  /** What the kernel shows; see `Kernel`. */
  readonly reading: number;
}

/** The sounds that key processors. Sample i of what is processed stands beside sample i + `shift` of them. */
export interface KeyBus {
  readonly shift: number;
  find(material: string): KeySignal | null;
}

export const NO_KEYS: KeyBus = { shift: 0, find: () => null };

/** The keys as a lane hears them, whose own samples are counted from the beginning of each segment. */
export class LaneKeys implements KeyBus {
  shift = 0;

  constructor(private readonly outer: KeyBus) {}

  find(material: string): KeySignal | null {
    return this.outer.find(material);
  }

  begin(from: number): void {
    this.shift = this.outer.shift + from;
  }
}

/** A node at work. It is fed at most `CHUNK` samples at a time and takes changes on points of the grid only. */
export interface Unit {
  /** In samples, whether it is switched on or not. */
  readonly latency: number;
  /** In samples: how long it runs until it sounds as though it had always run. */
  readonly settling: number;
  /** Whether a changed node can be taken in this unit's stride: it has the same processors in the same places. */
  fits(node: HeardNode): boolean;
  take(node: HeardNode): void;
  process(left: Float32Array, right: Float32Array, from: number, to: number): void;
  reset(): void;
  /** Reads and clears what is shown. Allocates: not for every block. */
  collect(states: ProcessorState[]): void;
}

/** Two channels that wait a number of samples. */
export class Waiting {
  private readonly left: Float32Array;
  private readonly right: Float32Array;
  private at = 0;

  constructor(private readonly samples: number) {
    this.left = new Float32Array(samples);
    this.right = new Float32Array(samples);
  }

  pass(left: Float32Array, right: Float32Array, from: number, to: number): void {
    if (this.samples === 0) return;
    for (let i = from; i < to; i++) {
      const l = this.left[this.at]!;
      const r = this.right[this.at]!;
      this.left[this.at] = left[i]!;
      this.right[this.at] = right[i]!;
      left[i] = l;
      right[i] = r;
      this.at = this.at + 1 === this.samples ? 0 : this.at + 1;
    }
  }

  /** Takes the sound in and gives nothing back: for when it may be needed soon. */
  feed(left: Float32Array, right: Float32Array, from: number, to: number): void {
    if (this.samples === 0) return;
    let { at } = this;
    for (let i = from; i < to; i++) {
      this.left[at] = left[i]!;
      this.right[at] = right[i]!;
      at = at + 1 === this.samples ? 0 : at + 1;
    }
    this.at = at;
  }

  clear(): void {
    this.left.fill(0);
    this.right.fill(0);
  }
}
