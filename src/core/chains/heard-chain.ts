import { type Delays, type Model, delaysOf } from "../processors/model";
import type { PanLaw } from "../dsp/pan";
import type { HeardValues } from "../units/param-spec";

/**
 * A chain as the audio thread takes it: values in numbers, sections dissolved, in plain data that travels to a worklet.
 * Made from a chain by `hearChain`.
 */
export interface HeardProcessor extends Delays {
  readonly key: string;
  readonly model: string;
  readonly enabled: boolean;
  readonly values: HeardValues;
  /** Values that cannot glide, as its model says. */
  readonly structural: readonly string[];
  /** The id of a material that its detector hears; none where it hears its own sound. */
  readonly keyedBy?: string;
}

/** A processor that is set so, beside what its model says of it. `key`: its model's id where none is given. */
export const heardProcessor = (
  model: Model,
  values: HeardValues,
  { key = model.id, enabled = true }: { readonly key?: string; readonly enabled?: boolean } = {},
): HeardProcessor => ({
  key,
  model: model.id,
  enabled,
  values,
  ...delaysOf(model, values),
  structural: model.structural,
});

export interface HeardLane {
  readonly key: string;
  readonly enabled: boolean;
  /** Amplitude factor; 0 is silence. */
  readonly gain: number;
  /** −100 to 100. */
  readonly pan: number;
  readonly panLaw: PanLaw;
  readonly nodes: HeardChain;
}

/** Lanes side by side, each with all of the sound, or with the band between two crossovers. */
export interface HeardSplit {
  readonly key: string;
  readonly enabled: boolean;
  /** In Hz, rising, one less than there are lanes; null where each lane has all of the sound. */
  readonly crossovers: readonly number[] | null;
  readonly lanes: readonly HeardLane[];
}

export type HeardNode = HeardProcessor | HeardSplit;
export type HeardChain = readonly HeardNode[];

export const isSplit = (node: HeardNode): node is HeardSplit => "lanes" in node;

/** The materials that key something in a chain, wherever it stands. */
export const keyMaterials = (chain: HeardChain): readonly string[] => [
  ...new Set(
    chain.flatMap((node): readonly string[] =>
      isSplit(node) ? node.lanes.flatMap((lane) => keyMaterials(lane.nodes)) : node.keyedBy ? [node.keyedBy] : [],
    ),
  ),
];
