import { type HeardChain, type HeardNode, isSplit } from "../../chains/heard-chain";
import { ProcessorUnit } from "./processor-unit";
import { SplitUnit } from "./split-unit";
import { type KeyBus, type ProcessorState, type Unit } from "./unit";

const createUnit = (node: HeardNode, sampleRate: number, keys: KeyBus): Unit =>
  isSplit(node)
    ? new SplitUnit(node, { sampleRate, keys }, (chain, laneKeys) => new SeriesUnit(chain, sampleRate, laneKeys))
    : new ProcessorUnit(node, sampleRate, keys);

/** Nodes one after the other. */
export class SeriesUnit {
  readonly latency: number;
  private readonly units: readonly Unit[];

  constructor(chain: HeardChain, sampleRate: number, keys: KeyBus) {
    this.units = chain.map((node) => createUnit(node, sampleRate, keys));
    this.latency = this.units.reduce((sum, unit) => sum + unit.latency, 0);
  }

  get settling(): number {
    return this.units.reduce((sum, unit) => sum + unit.settling, 0);
  }

  fits(chain: HeardChain): boolean {
    return chain.length === this.units.length && this.units.every((unit, at) => unit.fits(chain[at]!));
  }

  take(chain: HeardChain): void {
    this.units.forEach((unit, at) => unit.take(chain[at]!));
  }

  process(left: Float32Array, right: Float32Array, from: number, to: number): void {
    for (let u = 0; u < this.units.length; u++) this.units[u]!.process(left, right, from, to);
  }

  reset(): void {
    for (const unit of this.units) unit.reset();
  }

  collect(states: ProcessorState[]): void {
    for (const unit of this.units) unit.collect(states);
  }
}
