import { type HeardNode, type HeardProcessor, isSplit } from "../../chains/heard-chain";
import { latencyAt } from "../../processors/model";
import { findKernel } from "../../processors/kernels";
import type { HeardValues } from "../../units/param-spec";
import type { Kernel } from "../../processors/kernel";
import { CHUNK, FADE, type KeyBus, type ProcessorState, type Unit, Waiting } from "./unit";

function createKernel(processor: HeardProcessor, sampleRate: number): Kernel {
  const create = findKernel(processor.model);
  if (!create) throw new Error(`${processor.model} cannot be heard`);
  const kernel = create(sampleRate);
  kernel.set(processor.values, true);
  return kernel;
}

/** One processor: its kernel, how far it is faded in, and the kernel that it replaces while that fades out. */
export class ProcessorUnit implements Unit {
  readonly latency: number;
  private readonly key: string;
  private readonly model: string;
  private readonly structural: readonly string[];
  private values: HeardValues;
  private keyedBy: string | null;
  private kernel: Kernel;
  private leaving: Kernel | null = null;
  private leavingShare = 0;
  private enabled: boolean;
  private share: number;
  private peakIn = 0;
  private readonly fadeStep: number;
  /** What passes by waits as long as what is processed. */
  private readonly waiting: Waiting;
  private readonly wetLeft = new Float32Array(CHUNK);
  private readonly wetRight = new Float32Array(CHUNK);
  private readonly dryLeft = new Float32Array(CHUNK);
  private readonly dryRight = new Float32Array(CHUNK);

  constructor(
    processor: HeardProcessor,
    private readonly sampleRate: number,
    private readonly keys: KeyBus,
  ) {
    this.key = processor.key;
    this.model = processor.model;
    this.structural = processor.structural;
    this.latency = latencyAt(processor, sampleRate);
    this.values = processor.values;
    this.keyedBy = processor.keyedBy ?? null;
    this.kernel = createKernel(processor, sampleRate);
    this.enabled = processor.enabled;
    this.share = processor.enabled ? 1 : 0;
    this.fadeStep = 1 / Math.round(FADE * sampleRate);
    this.waiting = new Waiting(this.latency);
  }

  fits(node: HeardNode): boolean {
    return !isSplit(node) && node.key === this.key && node.model === this.model;
  }

  take(node: HeardNode): void {
    if (isSplit(node)) throw new Error(`${node.key} is a split`);
    const { values, enabled } = node;
    this.keyedBy = node.keyedBy ?? null;
    if (this.structural.some((id) => values[id] !== this.values[id])) {
      this.leaving = this.kernel;
      this.leavingShare = 1;
      this.kernel = createKernel(node, this.sampleRate);
    } else if (values !== this.values) this.kernel.set(values, this.share === 0);
    if (enabled && this.share === 0) this.kernel.reset();
    this.values = values;
    this.enabled = enabled;
  }

  reset(): void {
    this.kernel.reset();
    this.leaving = null;
    this.share = this.enabled ? 1 : 0;
    this.waiting.clear();
  }

  collect(states: ProcessorState[]): void {
    const { key, peakIn } = this;
    this.peakIn = 0;
    states.push({ key, peakIn, reading: this.share > 0 ? this.kernel.reading() : 0 });
  }

  process(left: Float32Array, right: Float32Array, from: number, to: number): void {
    let peakIn = this.peakIn;
    for (let i = from; i < to; i++) {
      const l = Math.abs(left[i]!);
      const r = Math.abs(right[i]!);
      if (l > peakIn) peakIn = l;
      if (r > peakIn) peakIn = r;
    }
    this.peakIn = peakIn;
    const settled = this.share === (this.enabled ? 1 : 0) && !this.leaving;
    if (settled && !this.enabled) {
      this.waiting.pass(left, right, from, to);
      return;
    }
    const isDirect = settled;
    this.kernel.listen?.(
      this.keyedBy === null ? null : this.keys.find(this.keyedBy),
      this.keys.shift + (isDirect ? 0 : from),
    );
    if (isDirect) {
      this.waiting.feed(left, right, from, to);
      this.kernel.process(left, right, from, to);
    } else this.fade(left, right, from, to);
    this.guard(left, right, from, to);
  }

  /** Between dry and processed while a switch is under way, and from a leaving kernel to the new one. */
  private fade(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { wetLeft, wetRight, dryLeft, dryRight, fadeStep } = this;
    const count = to - from;
    for (let i = 0; i < count; i++) {
      dryLeft[i] = wetLeft[i] = left[from + i]!;
      dryRight[i] = wetRight[i] = right[from + i]!;
    }
    this.waiting.pass(dryLeft, dryRight, 0, count);
    this.kernel.process(wetLeft, wetRight, 0, count);
    if (this.leaving) this.leave(this.leaving, left, right, from, count);
    if (this.share === 1 && this.enabled) {
      for (let i = 0; i < count; i++) {
        left[from + i] = wetLeft[i]!;
        right[from + i] = wetRight[i]!;
      }
      return;
    }
    const [goal, step] = this.enabled ? [1, fadeStep] : [0, -fadeStep];
    for (let i = 0; i < count; i++) {
      this.share = Math.abs(goal - this.share) < fadeStep ? goal : this.share + step;
      left[from + i] = this.share === 1 ? wetLeft[i]! : dryLeft[i]! + this.share * (wetLeft[i]! - dryLeft[i]!);
      right[from + i] = this.share === 1 ? wetRight[i]! : dryRight[i]! + this.share * (wetRight[i]! - dryRight[i]!);
    }
  }

  // eslint-disable-next-line max-params -- a stretch of two channels: an object for it would be allocated in the audio path
  private leave(leaving: Kernel, left: Float32Array, right: Float32Array, from: number, count: number): void {
    const { wetLeft, wetRight, fadeStep } = this;
    leaving.process(left, right, from, from + count);
    for (let i = 0; i < count; i++) {
      this.leavingShare = Math.max(0, this.leavingShare - fadeStep);
      wetLeft[i] = wetLeft[i]! + this.leavingShare * (left[from + i]! - wetLeft[i]!);
      wetRight[i] = wetRight[i]! + this.leavingShare * (right[from + i]! - wetRight[i]!);
    }
    if (this.leavingShare < fadeStep / 2) this.leaving = null;
  }

  /** What is not finite is silence, and the state that made it is dropped. */
  private guard(left: Float32Array, right: Float32Array, from: number, to: number): void {
    let bad = false;
    for (let i = from; i < to; i++) {
      if (left[i]! - left[i]! === 0 && right[i]! - right[i]! === 0) continue;
      left[i] = 0;
      right[i] = 0;
      bad = true;
    }
    if (bad) this.kernel.reset();
  }
}
