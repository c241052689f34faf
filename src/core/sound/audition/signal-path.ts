import type { HeardChain } from "../../chains/heard-chain";
import type { KeySignal } from "../../processors/kernel";
import { type ChainRuntime, type KeyBus, type ProcessorState, createChainRuntime } from "../chain/chain-runtime";
import type { HeardSound } from "../heard-sound";
import type { KeyReels } from "./reels";
import { LONGEST_PAST, type Source } from "./source";

/** What is listened to: the loop, or the instrument of A, as it is, or one of two sounds. */
export type Side = "dry" | "a" | "b";

/** So many times the time that passes does a path gain on now while it is behind. */
const CATCH_UP = 4;

/** What a path stands in. */
export interface Surroundings {
  readonly sampleRate: number;
  readonly keys: KeyReels;
  /** The longest stretch, in samples. */
  readonly size: number;
}

const chainOf = (chain: HeardChain | null | undefined): HeardChain | null => (chain && chain.length > 0 ? chain : null);

/** A chain and its runtime may both be missing, or the runtime takes the chain. */
const fitsIn = (runtime: ChainRuntime | null, chain: HeardChain | null): boolean =>
  runtime === null || chain === null ? runtime === chain : runtime.fits(chain);

/** The keys as a path hears them: as they were when it is behind. */
class PathKeys implements KeyBus {
  readonly shift = 0;
  isBehind = false;

  constructor(private readonly keys: KeyReels) {}

  find(material: string): KeySignal | null {
    return this.isBehind ? this.keys.findPast(material) : this.keys.find(material);
  }
}

/**
 * One sound at work: a source through its chain, less another chain where it has one. A path that is new begins as long
 * ago as its chain remembers and works up to now, so that it sounds as though it had always run when it is first heard.
 */
export class SignalPath {
  /** What it gave last. */
  readonly left: Float32Array;
  readonly right: Float32Array;
  /** How much of it is heard, 0 to 1, beside what the others have. */
  share = 0;
  /** Samples between what it gave last and now. */
  private behind: number;
  private readonly runtime: ChainRuntime | null;
  private readonly minus: ChainRuntime | null;
  private readonly lessLeft: Float32Array;
  private readonly lessRight: Float32Array;
  private readonly keys: PathKeys;

  constructor(
    readonly side: Side,
    sound: HeardSound | null,
    readonly source: Source,
    private readonly around: Surroundings,
  ) {
    const { sampleRate, keys, size } = around;
    this.keys = new PathKeys(keys);
    const runtimeOf = (chain: HeardChain | null) => chain && createChainRuntime(chain, sampleRate, this.keys);
    this.runtime = runtimeOf(chainOf(sound?.chain));
    this.minus = runtimeOf(chainOf(sound?.minus));
    this.left = new Float32Array(size);
    this.right = new Float32Array(size);
    this.lessLeft = new Float32Array(size);
    this.lessRight = new Float32Array(size);
    this.behind = 0;
  }

  /** Begins in the past of its source, as long ago as it needs. */
  beginEarlier(): void {
    const { runtime, minus, source, around } = this;
    const settling = Math.max(runtime?.settling ?? 0, minus?.settling ?? 0);
    this.behind = Math.min(Math.max(settling, source.behind), Math.round(LONGEST_PAST * around.sampleRate));
  }

  get isLate(): boolean {
    return this.behind > 0;
  }

  /** Whether it can take a changed sound in its stride. */
  fits(sound: HeardSound | null): boolean {
    if (!fitsIn(this.runtime, chainOf(sound?.chain)) || !fitsIn(this.minus, chainOf(sound?.minus))) return false;
    const { instrument } = this.source;
    const wanted = sound?.instrument ?? null;
    return wanted === null || instrument === null ? wanted === instrument : instrument.fits(wanted);
  }

  /** Takes a sound that fits. */
  take(sound: HeardSound | null): void {
    if (sound?.instrument) this.source.instrument?.update(sound.instrument);
    if (sound?.chain) this.runtime?.update(sound.chain);
    if (sound?.minus) this.minus?.update(sound.minus);
  }

  states(): readonly ProcessorState[] {
    return [...(this.source.instrument?.states() ?? []), ...(this.runtime?.states() ?? [])];
  }

  /** Time has passed. True where `left` and `right` now hold the sound of all of it. */
  pass(count: number): boolean {
    const { keys, source, around } = this;
    if (this.behind === 0) {
      keys.isBehind = false;
      this.give(count, count);
      return true;
    }
    this.behind += count;
    keys.isBehind = true;
    for (let left = (1 + CATCH_UP) * count; left > 0 && this.behind > 0; ) {
      const now = Math.min(around.size, left, this.behind);
      source.bringTo(this.behind - now);
      around.keys.readPast(this.behind, now);
      this.give(now, this.behind - source.behind);
      this.behind -= now;
      left -= now;
    }
    return false;
  }

  private give(count: number, back: number): void {
    const { left, right, lessLeft, lessRight } = this;
    this.source.past.read(left, right, count, back);
    if (this.minus) {
      lessLeft.set(left);
      lessRight.set(right);
      this.minus.process(lessLeft, lessRight, count);
    }
    this.runtime?.process(left, right, count);
    if (!this.minus) return;
    for (let i = 0; i < count; i++) {
      left[i]! -= lessLeft[i]!;
      right[i]! -= lessRight[i]!;
    }
  }
}
