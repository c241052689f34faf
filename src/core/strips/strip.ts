import type { z } from "zod";
import { type Chain, EMPTY_CHAIN, type Processor, processorName } from "../chains/chain";
import { completeChain, completeProcessor } from "../chains/complete";
import { findChainProblem, findProcessorProblem } from "../chains/problems";
import type { STRIP_KINDS } from "../chains/schema";
import type { Problem } from "../documents/problem";
import { findModel } from "../processors/models";
import { formatLevel, formatPan } from "../units/format";
import { FADER } from "./params";
import type { LevelSchema, LookSchema, OutputSchema, PanSchema, SavedStripSchema, StripSchema } from "./schema";

export type StripKind = (typeof STRIP_KINDS)[number];
export type Strip = Readonly<z.infer<typeof StripSchema>>;
export type SavedStrip = Readonly<z.infer<typeof SavedStripSchema>>;
export type Source = Strip["source"];
export type Look = Readonly<z.infer<typeof LookSchema>>;
export type Level = Readonly<z.infer<typeof LevelSchema>>;
export type Pan = Readonly<z.infer<typeof PanSchema>>;
export type Output = Readonly<z.infer<typeof OutputSchema>>;

/** The parts that can be saved and applied today, in the order of the columns. */
export const PARTS = ["source", "inserts", "level", "pan", "routing", "look"] as const;
export type PartName = (typeof PARTS)[number];

export const PART_NAMES: Record<PartName, string> = {
  source: "Instrument",
  inserts: "Inserts",
  level: "Level",
  pan: "Pan",
  routing: "Output",
  look: "Look",
};

export const isBus = (kind: StripKind): boolean => kind === "return" || kind === "group" || kind === "main";

function blankSource(kind: StripKind): Source {
  if (isBus(kind)) return { type: "bus", channels: "stereo" };
  if (kind === "instrument") return { type: "layers", channels: "stereo", layers: [] };
  return { type: "input", channels: "mono", input: "", gain: 0, inverted: false };
}

/** A strip with nothing set. It goes to `output`. */
export const createStrip = (id: string, kind: StripKind, look: Look, output: Output): Strip => ({
  id,
  kind,
  look,
  source: blankSource(kind),
  inserts: EMPTY_CHAIN,
  sends: [],
  level: { fader: 0, mute: false },
  pan: { pan: 0, width: 100 },
  routing: { output },
  media: [],
});

export const stripName = (strip: Pick<Strip, "look">): string => strip.look.name;

export const formatFader = ({ fader, mute }: Level): string =>
  `${formatLevel(fader, FADER.min)}${mute ? ", muted" : ""}`;

/** "−6.0 dB, muted". */
export const describeLevel = ({ fader, mute }: Level): string =>
  `${formatLevel(fader, FADER.min)} dB${mute ? ", muted" : ""}`;

export const formatPanPart = ({ pan, width }: Pan): string =>
  width === 100 ? formatPan(pan) : `${formatPan(pan)}, width ${width} %`;

/** Which of a strip's chains: its inserts, or the effects within a layer of its instrument. */
export interface ChainCell {
  readonly part: string;
  readonly layer?: string | undefined;
}

/** null where the strip has no such layer. */
export function chainAt({ inserts, source }: Strip, { part, layer }: ChainCell): Chain | null {
  if (part !== "effects") return inserts;
  return source.type === "layers" ? (source.layers.find((l) => l.key === layer)?.effects ?? null) : null;
}

/** "In 2, mono", "return", "output 1–2". */
export function describeSource({ kind, source }: Pick<Strip, "kind" | "source">): string {
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

/** The parts that a saved strip holds, of those that can be applied today. */
export const partsOf = (saved: SavedStrip): readonly PartName[] =>
  PARTS.filter((part) => (part === "source" ? saved.source?.type === "layers" : saved[part] !== undefined));

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

export const layersOf = ({ source }: Pick<Strip, "source">): readonly Layer[] =>
  source.type === "layers" ? source.layers : [];

export function findStripProblem(strip: Strip | SavedStrip, path: string): Problem | null {
  if (strip.kind === "folder")
    return { path: `${path}.kind`, message: `Strips of kind ${strip.kind} cannot be built here yet.` };
  if (strip.sends && strip.sends.length > 0)
    return { path: `${path}.sends`, message: "Sends cannot be built here yet." };
  return (
    (strip.source ? findSourceProblem(strip.kind, strip.source, `${path}.source`) : null) ??
    (strip.inserts ? findChainProblem(strip.inserts, `${path}.inserts`) : null)
  );
}

function findSourceProblem(kind: StripKind, source: Strip["source"], path: string): Problem | null {
  if (source.type !== "layers") return null;
  if (kind !== "instrument") return { path: `${path}.type`, message: "Only a strip of kind instrument plays layers." };
  const keys = new Set<string>();
  for (const [at, layer] of source.layers.entries()) {
    const here = `${path}.layers[${at}]`;
    if (keys.has(layer.key)) return { path: `${here}.key`, message: `The key “${layer.key}” is used twice.` };
    keys.add(layer.key);
    if (layer.keys.low > layer.keys.high)
      return { path: `${here}.keys`, message: "The lowest key is above the highest." };
    if (layer.velocities.low > layer.velocities.high)
      return { path: `${here}.velocities`, message: "The softest touch is above the hardest." };
    const problem =
      findProcessorProblem(layer.instrument, `${here}.instrument`) ??
      (findModel(layer.instrument.model)?.family === "instrument"
        ? null
        : { path: `${here}.instrument.model`, message: `${layer.instrument.model} is no instrument.` }) ??
      findChainProblem(layer.effects, `${here}.effects`);
    if (problem) return problem;
  }
  return null;
}

export function completeSource(source: Strip["source"]): Strip["source"] {
  if (source.type !== "layers") return source;
  const layers = source.layers.map((layer) => ({
    ...layer,
    instrument: completeProcessor(layer.instrument),
    effects: completeChain(layer.effects),
  }));
  return { ...source, layers };
}

export const completeStrip = <S extends Strip | SavedStrip>(strip: S): S => ({
  ...strip,
  ...(strip.inserts ? { inserts: completeChain(strip.inserts) } : {}),
  ...(strip.source ? { source: completeSource(strip.source) } : {}),
});
