import type { z } from "zod";
import { EMPTY_CHAIN, type Processor, processorName } from "../chains/chain";
import type { SourceSchema } from "./parts/schemas";

/* What comes into a strip; of an instrument, its layers. */

export type Source = Readonly<z.infer<typeof SourceSchema>>;
export type Layer = Extract<Source, { type: "layers" }>["layers"][number];

/** An instrument over all keys and touches, with no effects of its own. */
export const layerOf = (instrument: Processor): Layer => ({
  key: "layer1",
  name: processorName(instrument),
  instrument,
  keys: { low: 0, high: 127 },
  velocities: { low: 0, high: 127 },
  effects: EMPTY_CHAIN,
});

export const layersOf = ({ source }: { readonly source: Source }): readonly Layer[] =>
  source.type === "layers" ? source.layers : [];
