import { type HeardNode, type HeardProcessor, isSplit } from "../../chains/heard-chain";
import { latencyAt } from "../../processors/model";
import { findKernel } from "../../processors/kernels";
import type { HeardValues } from "../../units/param-spec";
import type { Kernel } from "../../processors/kernel";
import { walk } from "../../dsp/walk";
import { CHUNK, FADE, type KeyBus, type ProcessorState, type Unit, Waiting } from "./unit";

function createKernel(processor: HeardProcessor, sampleRate: number): Kernel {
  const create = findKernel(processor.model);
  if (!create) throw new Error(`${processor.model} cannot be heard`);
  const kernel = create(sampleRate);
  kernel.set(processor.values, true);
  return kernel;
}

/** In seconds: what a kernel remembers that does not say. */
const SETTLING = 0.2;

/** In seconds of silence: how often a kernel is asked whether it is at rest. */
const REST = 1;

/** A kernel that is to take the place of the one that is heard. */
interface Successor {
  readonly kernel: Kernel;
  /** Samples until it sounds as though it had always run. */
  wait: number;
  share: number;
}

/**
 * One processor: its kernel, how far it is faded in, and the kernel that is to replace it, which runs beside it unheard
 * until it has settled. It runs on while it is switched off, so that it is itself at once when it is switched on.
 */
export class ProcessorUnit implements Unit {
  readonly latency: number;
  private readonly key: string;
  private readonly model: string;
  private readonly structural: readonly string[];
  private node: HeardProcessor;
  /** What the kernel, or its successor, was made for. */
  private made: HeardValues;
  private keyedBy: string | null;
  private kernel: Kernel;
  private successor: Successor | null = null;
  private enabled: boolean;
  private share: number;
  private peakIn = 0;
  /** For how many samples nothing has gone in. */
  private silence = 0;
  /** It was at rest when nothing had gone in for so long, and nothing has gone in since: only time passes for it. */
  private sleeps = false;
  private readonly fadeStep: number;
  /** What passes by waits as long as what is processed. */
  private readonly waiting: Waiting;
  private readonly wetLeft = new Float32Array(CHUNK);
  private readonly wetRight = new Float32Array(CHUNK);
  private readonly nextLeft = new Float32Array(CHUNK);
  private readonly nextRight = new Float32Array(CHUNK);

  constructor(
    processor: HeardProcessor,
    private readonly sampleRate: number,
    private readonly keys: KeyBus,
  ) {
    this.key = processor.key;
    this.model = processor.model;
    this.structural = processor.structural;
    this.latency = latencyAt(processor, sampleRate);
    this.node = processor;
    this.made = processor.values;
    this.keyedBy = processor.keyedBy ?? null;
    this.kernel = createKernel(processor, sampleRate);
    this.enabled = processor.enabled;
    this.share = processor.enabled ? 1 : 0;
    this.fadeStep = 1 / Math.round(FADE * sampleRate);
    this.waiting = new Waiting(this.latency);
  }

  get settling(): number {
    return this.settlingOf(this.kernel);
  }

  fits(node: HeardNode): boolean {
    return (
      !isSplit(node) &&
      node.key === this.key &&
      node.model === this.model &&
      latencyAt(node, this.sampleRate) === this.latency
    );
  }

  take(node: HeardNode): void {
    if (isSplit(node)) throw new Error(`${node.key} is a split`);
    const before = this.node.values;
    this.node = node;
    this.keyedBy = node.keyedBy ?? null;
    this.enabled = node.enabled;
    this.sleeps = false;
    if (node.values === before) return;
    if (this.isMade(node.values)) (this.successor?.kernel ?? this.kernel).set(node.values, false);
    else if (!this.successor) this.succeed();
  }

  reset(): void {
    this.sleeps = false;
    this.kernel.reset();
    this.successor = null;
    this.share = this.enabled ? 1 : 0;
    this.waiting.clear();
  }

  collect(states: ProcessorState[]): void {
    const { key, peakIn } = this;
    this.peakIn = 0;
    states.push({ key, peakIn, reading: this.share > 0 ? this.kernel.reading() : 0 });
  }

  process(left: Float32Array, right: Float32Array, from: number, to: number): void {
    this.watch(left, right, from, to);
    const isDirect = this.enabled && this.share === 1 && !this.successor;
    this.sleeps &&= isDirect && this.silence > 0;
    if (!this.sleeps) this.work(left, right, from, to, isDirect);
    else {
      this.waiting.feed(left, right, from, to);
      this.kernel.idle?.(to - from);
    }
  }

  // eslint-disable-next-line max-params -- an object for each block would be allocated in the audio path
  private work(left: Float32Array, right: Float32Array, from: number, to: number, isDirect: boolean): void {
    this.kernel.listen?.(
      this.keyedBy === null ? null : this.keys.find(this.keyedBy),
      this.keys.shift + (isDirect ? 0 : from),
    );
    if (!isDirect) {
      this.beside(left, right, from, to);
      return;
    }
    this.waiting.feed(left, right, from, to);
    this.kernel.process(left, right, from, to);
    if (!makeFinite(left, right, from, to)) this.kernel.reset();
    if (this.keyedBy === null && this.isDue(to - from))
      this.sleeps = this.kernel.isAtRest?.(this.silence / this.sampleRate) ?? false;
  }

  private watch(left: Float32Array, right: Float32Array, from: number, to: number): void {
    let peak = 0;
    for (let i = from; i < to; i++) {
      const l = Math.abs(left[i]!);
      const r = Math.abs(right[i]!);
      if (l > peak) peak = l;
      if (r > peak) peak = r;
    }
    if (peak > this.peakIn) this.peakIn = peak;
    this.silence = peak === 0 && isNothing(left, right, from, to) ? this.silence + (to - from) : 0;
  }

  /** Whether with the last so many samples it has been silent for one more of the times after which it is asked. */
  private isDue(count: number): boolean {
    if (this.silence === 0) return false;
    const every = REST * this.sampleRate;
    return Math.floor(this.silence / every) > Math.floor((this.silence - count) / every);
  }

  /** What is processed runs beside what passes by, and a successor beside both. */
  private beside(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { wetLeft, wetRight, successor } = this;
    const count = to - from;
    for (let i = 0; i < count; i++) {
      wetLeft[i] = left[from + i]!;
      wetRight[i] = right[from + i]!;
    }
    if (successor) {
      this.nextLeft.set(wetLeft);
      this.nextRight.set(wetRight);
    }
    this.waiting.pass(left, right, from, to);
    this.kernel.process(wetLeft, wetRight, 0, count);
    if (!makeFinite(wetLeft, wetRight, 0, count)) this.kernel.reset();
    if (successor) this.pass(successor, count, from);
    if (this.share === 0 && !this.enabled) return;
    const goal = this.enabled ? 1 : 0;
    for (let i = 0; i < count; i++) {
      this.share = walk(this.share, goal, this.fadeStep);
      left[from + i] = this.between(left[from + i]!, wetLeft[i]!);
      right[from + i] = this.between(right[from + i]!, wetRight[i]!);
    }
  }

  private between(dry: number, wet: number): number {
    return this.share === 1 ? wet : dry + this.share * (wet - dry);
  }

  /** A successor is heard in place of the kernel once it has settled; what it was changed to meanwhile comes after it. */
  private pass(successor: Successor, count: number, from: number): void {
    const { wetLeft, wetRight, nextLeft, nextRight, fadeStep } = this;
    successor.kernel.listen?.(this.keyedBy === null ? null : this.keys.find(this.keyedBy), this.keys.shift + from);
    successor.kernel.process(nextLeft, nextRight, 0, count);
    if (!makeFinite(nextLeft, nextRight, 0, count)) successor.kernel.reset();
    for (let i = 0; i < count; i++) {
      if (successor.wait > 0) {
        successor.wait -= 1;
        continue;
      }
      successor.share = walk(successor.share, 1, fadeStep);
      wetLeft[i] = wetLeft[i]! + successor.share * (nextLeft[i]! - wetLeft[i]!);
      wetRight[i] = wetRight[i]! + successor.share * (nextRight[i]! - wetRight[i]!);
    }
    if (successor.share < 1) return;
    this.kernel = successor.kernel;
    this.successor = null;
    if (!this.isMade(this.node.values)) this.succeed();
  }

  private succeed(): void {
    const kernel = createKernel(this.node, this.sampleRate);
    this.made = this.node.values;
    this.successor = { kernel, wait: this.settlingOf(kernel), share: 0 };
  }

  /** Whether the kernel, or the successor that is on its way, was made for such values. */
  private isMade(values: HeardValues): boolean {
    const kernel = this.successor?.kernel ?? this.kernel;
    return this.structural.every((id) => values[id] === this.made[id]) && (kernel.fits?.(values) ?? true);
  }

  private settlingOf(kernel: Kernel): number {
    return this.latency + Math.round((kernel.settling?.() ?? SETTLING) * this.sampleRate);
  }
}

/** What is not a number is no silence, whatever it is compared with. */
function isNothing(left: Float32Array, right: Float32Array, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (left[i] !== 0 || right[i] !== 0) return false;
  return true;
}

/** What is not finite is silence; false where there was such. */
function makeFinite(left: Float32Array, right: Float32Array, from: number, to: number): boolean {
  let good = true;
  for (let i = from; i < to; i++) {
    if (left[i]! - left[i]! === 0 && right[i]! - right[i]! === 0) continue;
    left[i] = 0;
    right[i] = 0;
    good = false;
  }
  return good;
}
