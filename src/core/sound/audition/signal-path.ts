import type { HeardChain } from "../../chains/heard-chain";
import { type ChainRuntime, type ProcessorState, createChainRuntime } from "../chain/chain-runtime";
import type { HeardSound } from "../heard-sound";
import { InstrumentRuntime, type Samples } from "../instrument/instrument-runtime";
import type { KeyReels, MaterialReel } from "./reels";
import { walk } from "./walk";

/** The matched gain of a side, an amplitude factor on its way to another. */
export interface SideGain {
  now: number;
  target: number;
}

/** What a path stands in: the rate, what it is fed, and where its output goes. */
export interface Surroundings {
  readonly sampleRate: number;
  readonly keys: KeyReels;
  readonly material: MaterialReel;
  readonly samples: Samples;
  /** The longest stretch, in samples. */
  readonly size: number;
  /** What the share of a path walks in one sample, and what share of its way a gain goes. */
  readonly step: number;
  readonly gainShare: number;
}

const chainOf = (chain: HeardChain | null | undefined): HeardChain | null => (chain && chain.length > 0 ? chain : null);

/** A chain and its runtime may both be missing, or the runtime takes the chain. */
const fitsIn = (runtime: ChainRuntime | null, chain: HeardChain | null): boolean =>
  runtime === null || chain === null ? runtime === chain : runtime.fits(chain);

/** One sound at work: the instrument, or the material, through its chain, less another chain where it has one. */
export class SignalPath {
  readonly instrument: InstrumentRuntime | null;
  private readonly runtime: ChainRuntime | null;
  private readonly minus: ChainRuntime | null;
  private readonly wetLeft: Float32Array;
  private readonly wetRight: Float32Array;
  private readonly lessLeft: Float32Array;
  private readonly lessRight: Float32Array;
  private leaves = false;

  /** `share`: 0 to 1, walking to 1 while it is heard, to 0 when it leaves. */
  constructor(
    sound: HeardSound | null,
    private share: number,
    private readonly gain: SideGain,
    private readonly around: Surroundings,
  ) {
    const { sampleRate, keys, samples, size } = around;
    const runtimeOf = (chain: HeardChain | null) => chain && createChainRuntime(chain, sampleRate, keys);
    this.runtime = runtimeOf(chainOf(sound?.chain));
    this.minus = runtimeOf(chainOf(sound?.minus));
    this.instrument = sound?.instrument ? new InstrumentRuntime(sound.instrument, samples, sampleRate) : null;
    this.wetLeft = new Float32Array(size);
    this.wetRight = new Float32Array(size);
    this.lessLeft = new Float32Array(size);
    this.lessRight = new Float32Array(size);
  }

  get isGone(): boolean {
    return this.share === 0;
  }

  /** Takes a changed sound; false, and nothing is taken, where it needs a path of its own. */
  update({ chain, minus, instrument = null }: HeardSound): boolean {
    const [wanted, less] = [chainOf(chain), chainOf(minus)];
    if (!fitsIn(this.runtime, wanted) || !fitsIn(this.minus, less)) return false;
    if ((instrument === null) !== (this.instrument === null)) return false;
    if (instrument && !this.instrument?.update(instrument)) return false;
    if (wanted) this.runtime?.update(wanted);
    if (less) this.minus?.update(less);
    return true;
  }

  states(): readonly ProcessorState[] {
    return [...(this.instrument?.states() ?? []), ...(this.runtime?.states() ?? [])];
  }

  /** Another is heard from now on: it fades out. */
  leave(): void {
    this.leaves = true;
  }

  /** Adds samples `from` up to `to`, at most the longest stretch. */
  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { wetLeft, wetRight, lessLeft, lessRight, gain } = this;
    const { step, gainShare } = this.around;
    const count = to - from;
    this.begin(count);
    if (this.minus) {
      lessLeft.set(wetLeft);
      lessRight.set(wetRight);
      this.minus.process(lessLeft, lessRight, count);
    }
    this.runtime?.process(wetLeft, wetRight, count);
    const less = this.minus ? 1 : 0;
    const goal = this.leaves ? 0 : 1;
    let now = gain.now;
    for (let i = 0; i < count; i++) {
      this.share = walk(this.share, goal, step);
      now += gainShare * (gain.target - now);
      left[from + i]! += this.share * now * (wetLeft[i]! - less * lessLeft[i]!);
      right[from + i]! += this.share * now * (wetRight[i]! - less * lessRight[i]!);
    }
    // One that leaves beside one that comes walks the same way, not twice as fast.
    if (!this.leaves) gain.now = now;
  }

  private begin(count: number): void {
    const { wetLeft, wetRight } = this;
    const { material } = this.around;
    if (this.instrument) {
      wetLeft.fill(0);
      wetRight.fill(0);
      this.instrument.addTo(wetLeft, wetRight, count);
    } else {
      wetLeft.set(material.left);
      wetRight.set(material.right);
    }
  }
}
