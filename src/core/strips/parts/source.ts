import { type Chain, type StripRef, processorName } from "../../chains/chain";
import { completeChain, completeProcessor } from "../../chains/complete";
import { fromsOf } from "../../chains/tree";
import { type StripKind, isBus } from "../../documents/strip-kinds";
import { KEY_QUESTION, canBeHeard, keysOf, rekeyedBy } from "./inserts";
import { type Surroundings, part } from "./part";
import { type Layer, type Source, layersOf } from "../layers";
import { nameOfTarget } from "./sends";

export { type Layer, type Source, layerOf, layersOf } from "../layers";

function emptySource(kind: StripKind): Source {
  if (isBus(kind)) return { type: "bus", channels: "stereo" };
  if (kind === "instrument") return { type: "layers", channels: "stereo", layers: [] };
  return { type: "input", channels: "mono", input: "", gain: 0, inverted: false };
}

/** "In 2, mono", "return", "output 1–2". */
export function describeSource(
  { kind, source }: { readonly kind: StripKind; readonly source: Source },
  around?: Pick<Surroundings, "nameOf">,
): string {
  switch (source.type) {
    case "input":
      return `${source.input === "" ? "No input" : source.input}, ${source.channels}`;
    case "layers":
      return source.layers.length === 0
        ? "no instrument"
        : source.layers.map((l) => processorName(l.instrument)).join(", ");
    case "output":
      return [`output ${source.output}`, ...(around ? [`of ${nameOfTarget(source.strip, around)}`] : [])].join(" ");
    case "bus":
      return kind === "main" ? "main output" : kind;
  }
}

/** A layer as a chain: its instrument, and its effects behind it. */
const chainsOf = (source: Source): readonly Chain[] =>
  layersOf({ source }).flatMap(({ instrument, effects }) => [{ nodes: [instrument], macros: [] }, effects]);

/** What an output of an instrument brings, from another strip; with none, nothing comes in. */
const fedBy = (source: Extract<Source, { type: "output" }>, strip: StripRef | null): Source =>
  strip ? { ...source, strip } : { type: "input", channels: source.channels, input: "", gain: 0, inverted: false };

function mapLayers(source: Source, change: (layer: Layer) => Layer): Source {
  return source.type === "layers" ? { ...source, layers: source.layers.map(change) } : source;
}

const completeLayer = (layer: Layer): Layer => ({
  ...layer,
  instrument: completeProcessor(layer.instrument),
  effects: completeChain(layer.effects),
});

export const SOURCE = part<Source>({
  title: "Instrument",
  phrase: "the source",
  empty: emptySource,
  words: (source, around) => describeSource({ kind: around.kind, source }, around),
  change: () => "the instrument changes",
  aims: {
    way: "in",
    leads: "hears",
    at: () => "",
    of: (source) => [...(source.type === "output" ? [source.strip] : []), ...chainsOf(source).flatMap(keysOf)],
    mapped: (source, aim) =>
      source.type === "output"
        ? fedBy(source, aim(source.strip))
        : mapLayers(source, (layer) => ({ ...layer, effects: rekeyedBy(layer.effects, aim) })),
    takes: canBeHeard,
    whenNone: "leftOut",
    question: KEY_QUESTION,
  },
  // An input is what the project has, not what a preset brings.
  isHeld: (source) => source.type === "layers",
  isOffered: (kind) => kind === "instrument",
  misfit: (kind) => (kind === "instrument" ? null : "plays no instrument; the layers are left out"),
  presets: (source) => chainsOf(source).flatMap(fromsOf),
  complete: (source) => mapLayers(source, completeLayer),
});
