import { z } from "zod";
import { type Chain, EMPTY_CHAIN, type Processor, processorName } from "../../chains/chain";
import { completeChain, completeProcessor } from "../../chains/complete";
import { findChainProblem, findProcessorProblem } from "../../chains/problems";
import { ChainSchema, KeySchema, NameSchema, ProcessorSchema, StripRefSchema } from "../../chains/schema";
import { fromsOf } from "../../chains/tree";
import type { Problem } from "../../documents/problem";
import { findModel } from "../../processors/models";
import { type StripKind, isBus } from "../../documents/strip-kinds";
import { keysOf, rekeyedBy } from "./inserts";
import { part } from "./part";

const ChannelsSchema = z.enum(["mono", "stereo"]);
const KeyRangeSchema = z.strictObject({ low: z.int().min(0).max(127), high: z.int().min(0).max(127) });

const LayerSchema = z.strictObject({
  key: KeySchema,
  name: NameSchema,
  instrument: ProcessorSchema,
  keys: KeyRangeSchema,
  velocities: KeyRangeSchema,
  effects: ChainSchema,
});

const SourceSchema = z.discriminatedUnion("type", [
  z.strictObject({
    type: z.literal("input"),
    channels: ChannelsSchema,
    input: z.string().max(200),
    gain: z.number().min(-60).max(60),
    inverted: z.boolean(),
  }),
  z.strictObject({ type: z.literal("bus"), channels: ChannelsSchema }),
  z.strictObject({ type: z.literal("layers"), channels: ChannelsSchema, layers: z.array(LayerSchema).max(32) }),
  z.strictObject({
    type: z.literal("output"),
    channels: ChannelsSchema,
    strip: StripRefSchema,
    output: z.int().min(1),
  }),
]);

export type Source = Readonly<z.infer<typeof SourceSchema>>;
export type Layer = Extract<Source, { type: "layers" }>["layers"][number];

function emptySource(kind: StripKind): Source {
  if (isBus(kind)) return { type: "bus", channels: "stereo" };
  if (kind === "instrument") return { type: "layers", channels: "stereo", layers: [] };
  return { type: "input", channels: "mono", input: "", gain: 0, inverted: false };
}

/** "In 2, mono", "return", "output 1–2". */
export function describeSource({ kind, source }: { readonly kind: StripKind; readonly source: Source }): string {
  switch (source.type) {
    case "input":
      return `${source.input === "" ? "No input" : source.input}, ${source.channels}`;
    case "layers":
      return source.layers.length === 0
        ? "no instrument"
        : source.layers.map((l) => processorName(l.instrument)).join(", ");
    case "output":
      return `output ${source.output}`;
    case "bus":
      return kind === "main" ? "main output" : kind;
  }
}

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

/** A layer as a chain: its instrument, and its effects behind it. */
const chainsOf = (source: Source): readonly Chain[] =>
  layersOf({ source }).flatMap(({ instrument, effects }) => [{ nodes: [instrument], macros: [] }, effects]);

function mapLayers(source: Source, change: (layer: Layer) => Layer): Source {
  return source.type === "layers" ? { ...source, layers: source.layers.map(change) } : source;
}

const completeLayer = (layer: Layer): Layer => ({
  ...layer,
  instrument: completeProcessor(layer.instrument),
  effects: completeChain(layer.effects),
});

function findLayerProblem(layer: Layer, path: string): Problem | null {
  if (layer.keys.low > layer.keys.high)
    return { path: `${path}.keys`, message: "The lowest key is above the highest." };
  if (layer.velocities.low > layer.velocities.high)
    return { path: `${path}.velocities`, message: "The softest touch is above the hardest." };
  return (
    findProcessorProblem(layer.instrument, `${path}.instrument`) ??
    (findModel(layer.instrument.model)?.family === "instrument"
      ? null
      : { path: `${path}.instrument.model`, message: `${layer.instrument.model} is no instrument.` }) ??
    findChainProblem(layer.effects, `${path}.effects`)
  );
}

function findProblem(source: Source, kind: StripKind, path: string): Problem | null {
  if (source.type !== "layers") return null;
  if (kind !== "instrument") return { path: `${path}.type`, message: "Only a strip of kind instrument plays layers." };
  const keys = new Set<string>();
  for (const [at, layer] of source.layers.entries()) {
    const here = `${path}.layers[${at}]`;
    if (keys.has(layer.key)) return { path: `${here}.key`, message: `The key “${layer.key}” is used twice.` };
    keys.add(layer.key);
    const problem = findLayerProblem(layer, here);
    if (problem) return problem;
  }
  return null;
}

export const SOURCE = part<Source>({
  title: "Instrument",
  phrase: "the source",
  schema: SourceSchema,
  empty: emptySource,
  words: (source, { kind }) => describeSource({ kind, source }),
  change: () => "the instrument changes",
  aims: {
    of: (source) => chainsOf(source).flatMap(keysOf),
    mapped: (source, aim) => mapLayers(source, (layer) => ({ ...layer, effects: rekeyedBy(layer.effects, aim) })),
    question: null,
  },
  // An input is what the project has, not what a preset brings.
  isHeld: (source) => source.type === "layers",
  isOffered: (kind) => kind === "instrument",
  misfit: (kind) => (kind === "instrument" ? null : "plays no instrument; the layers are left out"),
  presets: (source) => chainsOf(source).flatMap(fromsOf),
  complete: (source) => mapLayers(source, completeLayer),
  findProblem,
});
