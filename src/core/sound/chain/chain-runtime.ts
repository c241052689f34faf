import type { HeardChain } from "../../chains/heard-chain";
import { GRID } from "../../dsp/grid";
import { SeriesUnit } from "./series-unit";
import { CHUNK, type KeyBus, NO_KEYS, type ProcessorState } from "./unit";

export type { KeyBus, ProcessorState } from "./unit";

export interface ChainRuntime {
  /** In samples. */
  readonly latency: number;
  /** In samples: how long it runs until it sounds as though it had always run. */
  readonly settling: number;
  /** Whether `update` can take it. */
  fits(chain: HeardChain): boolean;
  /**
   * Takes changed values and switches from the next point of the grid on. False, and nothing is taken, when processors
   * came, went or moved: that needs a runtime of its own, cross-faded with this.
   */
  update(chain: HeardChain): boolean;
  /** Processes the first `count` samples of both channels in place. */
  process(left: Float32Array, right: Float32Array, count: number): void;
  reset(): void;
  /** Reads and clears what is shown. Allocates: not for every block. */
  states(): readonly ProcessorState[];
}

/** +60 dB over full scale: what is louder is no sound, and in a long feedback would take minutes to die away. */
const LOUDEST = 1000;

/** NaN compares as neither; Infinity − Infinity is NaN: what is not finite is silence from here on. */
function makeSane(samples: Float32Array, count: number): void {
  for (let i = 0; i < count; i++) {
    const x = samples[i]!;
    if (x > -LOUDEST && x < LOUDEST) continue;
    samples[i] = x - x === 0 ? Math.sign(x) * LOUDEST : 0;
  }
}

class TreeRuntime implements ChainRuntime {
  private readonly series: SeriesUnit;
  /** Samples since the last point of the grid. */
  private within = 0;
  private pending: HeardChain | null = null;

  constructor(chain: HeardChain, sampleRate: number, keys: KeyBus) {
    this.series = new SeriesUnit(chain, sampleRate, keys);
  }

  get latency(): number {
    return this.series.latency;
  }

  get settling(): number {
    return this.series.settling;
  }

  fits(chain: HeardChain): boolean {
    return this.series.fits(chain);
  }

  update(chain: HeardChain): boolean {
    if (!this.series.fits(chain)) return false;
    this.pending = chain;
    return true;
  }

  reset(): void {
    this.series.reset();
  }

  states(): readonly ProcessorState[] {
    const states: ProcessorState[] = [];
    this.series.collect(states);
    return states;
  }

  process(left: Float32Array, right: Float32Array, count: number): void {
    makeSane(left, count);
    makeSane(right, count);
    let at = 0;
    while (at < count) {
      const toGrid = (GRID - this.within) % GRID;
      if (this.pending && toGrid === 0) {
        this.series.take(this.pending);
        this.pending = null;
      }
      const end = Math.min(count, at + (this.pending ? toGrid : CHUNK));
      this.series.process(left, right, at, end);
      this.within = (this.within + end - at) % GRID;
      at = end;
    }
  }
}

/** Throws for a model that cannot be heard: leave those out beforehand. */
export const createChainRuntime = (chain: HeardChain, sampleRate: number, keys: KeyBus = NO_KEYS): ChainRuntime =>
  new TreeRuntime(chain, sampleRate, keys);
