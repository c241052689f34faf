import type { HeardChain, HeardProcessor } from "../chains/heard-chain";
import { findKernel } from "../processors/kernels";
import type { HeardValues } from "../processors/model";
import { GRID } from "./grid";
import type { Kernel } from "./kernel";

/** Bypass and replacement cross-fade over this, in seconds. Shorter clicks on a sustained low note. */
const FADE = 0.012;

/** The most that is processed in one go; larger blocks are cut. */
const CHUNK = 128;

/** What a processor shows while it runs. */
export interface ProcessorState {
  readonly key: string;
  /** Highest sample that arrived since the last reading. */
  readonly peakIn: number;
  /** What the kernel shows; see `Kernel`. */
  readonly reading: number;
}

/** One processor: its kernel, how far it is faded in, and the kernel that it replaces while that fades out. */
interface Slot {
  readonly key: string;
  readonly model: string;
  values: HeardValues;
  kernel: Kernel;
  leaving: Kernel | null;
  leavingShare: number;
  enabled: boolean;
  share: number;
  peakIn: number;
}

export interface ChainRuntime {
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

function createKernel(processor: HeardProcessor, sampleRate: number): Kernel {
  const entry = findKernel(processor.model);
  if (!entry) throw new Error(`${processor.model} cannot be heard`);
  const kernel = entry.create(sampleRate);
  kernel.set(processor.values, true);
  return kernel;
}

const sameOrder = (slots: readonly Slot[], chain: HeardChain): boolean =>
  slots.length === chain.length && slots.every((s, at) => s.key === chain[at]!.key && s.model === chain[at]!.model);

class SeriesRuntime implements ChainRuntime {
  private readonly slots: Slot[];
  private readonly fadeStep: number;
  private readonly wetLeft = new Float32Array(CHUNK);
  private readonly wetRight = new Float32Array(CHUNK);
  private readonly dryLeft = new Float32Array(CHUNK);
  private readonly dryRight = new Float32Array(CHUNK);
  private position = 0;
  private pending: HeardChain | null = null;

  constructor(
    chain: HeardChain,
    private readonly sampleRate: number,
  ) {
    this.fadeStep = 1 / Math.round(FADE * sampleRate);
    this.slots = chain.map((processor) => ({
      ...processor,
      kernel: createKernel(processor, sampleRate),
      leaving: null,
      leavingShare: 0,
      share: processor.enabled ? 1 : 0,
      peakIn: 0,
    }));
  }

  update(chain: HeardChain): boolean {
    if (!sameOrder(this.slots, chain)) return false;
    this.pending = chain;
    return true;
  }

  reset(): void {
    for (const slot of this.slots) {
      slot.kernel.reset();
      slot.leaving = null;
      slot.share = slot.enabled ? 1 : 0;
    }
  }

  states(): readonly ProcessorState[] {
    return this.slots.map((slot) => {
      const { key, peakIn } = slot;
      slot.peakIn = 0;
      return { key, peakIn, reading: slot.share > 0 ? slot.kernel.reading() : 0 };
    });
  }

  process(left: Float32Array, right: Float32Array, count: number): void {
    for (let i = 0; i < count; i++) {
      // Infinity − Infinity and NaN − NaN are NaN: anything that is not finite is silence from here on.
      if (left[i]! - left[i]! !== 0) left[i] = 0;
      if (right[i]! - right[i]! !== 0) right[i] = 0;
    }
    let at = 0;
    while (at < count) {
      const toGrid = (GRID - (this.position % GRID)) % GRID;
      if (this.pending && toGrid === 0) this.take(this.pending);
      const end = Math.min(count, at + (this.pending ? toGrid : CHUNK));
      for (const slot of this.slots) this.run(slot, left, right, { from: at, to: end });
      this.position += end - at;
      at = end;
    }
  }

  private take(chain: HeardChain): void {
    this.pending = null;
    this.slots.forEach((slot, at) => {
      const { values, enabled, model } = chain[at]!;
      const structural = findKernel(model)?.structural ?? [];
      if (structural.some((id) => values[id] !== slot.values[id])) {
        slot.leaving = slot.kernel;
        slot.leavingShare = 1;
        slot.kernel = createKernel(chain[at]!, this.sampleRate);
      } else if (values !== slot.values) slot.kernel.set(values, slot.share === 0);
      if (enabled && slot.share === 0) slot.kernel.reset();
      slot.values = values;
      slot.enabled = enabled;
    });
  }

  private run(slot: Slot, left: Float32Array, right: Float32Array, span: Span): void {
    const { from, to } = span;
    for (let i = from; i < to; i++) {
      const peak = Math.max(Math.abs(left[i]!), Math.abs(right[i]!));
      if (peak > slot.peakIn) slot.peakIn = peak;
    }
    const settled = slot.share === (slot.enabled ? 1 : 0) && !slot.leaving;
    if (settled && !slot.enabled) return;
    if (settled) slot.kernel.process(left, right, from, to);
    else this.fade(slot, left, right, span);
    this.guard(slot, left, right, span);
  }

  /** Between dry and processed while a switch is under way, and from a leaving kernel to the new one. */
  private fade(slot: Slot, left: Float32Array, right: Float32Array, { from, to }: Span): void {
    const { wetLeft, wetRight, dryLeft, dryRight, fadeStep } = this;
    const count = to - from;
    for (let i = 0; i < count; i++) {
      dryLeft[i] = wetLeft[i] = left[from + i]!;
      dryRight[i] = wetRight[i] = right[from + i]!;
    }
    slot.kernel.process(wetLeft, wetRight, 0, count);
    if (slot.leaving) {
      slot.leaving.process(left, right, from, to);
      for (let i = 0; i < count; i++) {
        slot.leavingShare = Math.max(0, slot.leavingShare - fadeStep);
        wetLeft[i] = wetLeft[i]! + slot.leavingShare * (left[from + i]! - wetLeft[i]!);
        wetRight[i] = wetRight[i]! + slot.leavingShare * (right[from + i]! - wetRight[i]!);
      }
      if (slot.leavingShare < fadeStep / 2) slot.leaving = null;
    }
    const [goal, step] = slot.enabled ? [1, fadeStep] : [0, -fadeStep];
    for (let i = 0; i < count; i++) {
      slot.share = Math.abs(goal - slot.share) < fadeStep ? goal : slot.share + step;
      left[from + i] = dryLeft[i]! + slot.share * (wetLeft[i]! - dryLeft[i]!);
      right[from + i] = dryRight[i]! + slot.share * (wetRight[i]! - dryRight[i]!);
    }
  }

  private guard(slot: Slot, left: Float32Array, right: Float32Array, { from, to }: Span): void {
    let bad = false;
    for (let i = from; i < to; i++) {
      if (left[i]! - left[i]! === 0 && right[i]! - right[i]! === 0) continue;
      left[i] = 0;
      right[i] = 0;
      bad = true;
    }
    if (bad) slot.kernel.reset();
  }
}

interface Span {
  readonly from: number;
  readonly to: number;
}

/** Throws for a model that cannot be heard: leave those out beforehand. */
export const createChainRuntime = (chain: HeardChain, sampleRate: number): ChainRuntime =>
  new SeriesRuntime(chain, sampleRate);
