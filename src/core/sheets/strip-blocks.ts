import { formatLevel, formatPan } from "../units/format";
import { noteName } from "../processors/instrument/models";
import { PART, type PartName, eachPart } from "../strips/parts";
import { FADER } from "../strips/params";
import { type Layer, layersOf } from "../strips/layers";
import { nameOfTarget, type Send } from "../strips/parts/sends";
import type { SavedStrip, Strip } from "../strips/strip";
import { chainBlocks } from "./chain-blocks";
import { type SheetContext, fromWords, pluginBlock } from "./plugin-block";
import { type Block, type Fact, type Table, factOf, onOrOff } from "./sheet";

/** Parts that are told by more than a line, each in its own place. */
const TOLD_APART: readonly PartName[] = ["inserts", "sends"];

const heading = (text: string, aside: string): Block => ({ kind: "heading", rank: 2, text, aside });

/** Each part in a line, as the ledger says it. */
const partFacts = (strip: Strip | SavedStrip, { nameOf }: SheetContext): readonly Fact[] =>
  eachPart(strip, (name, record, value) =>
    TOLD_APART.includes(name) || (name === "media" && !record.isHeld(value))
      ? []
      : factOf(name === "source" ? "Source" : PART[name].title, record.words(value, { kind: strip.kind, nameOf })),
  ).flat();

/** What is set on an input, beside its name. */
function inputFacts({ source }: SavedStrip): readonly Fact[] {
  if (source?.type !== "input") return [];
  return [
    ...factOf("Input gain", source.gain === 0 ? "" : `${formatLevel(source.gain, -Infinity)} dB`),
    ...factOf("Polarity", source.inverted ? "inverted" : ""),
  ];
}

const SEND_COLUMNS: Table["columns"] = [
  { title: "Send to" },
  { title: "Level", isNumber: true },
  { title: "Pan", isNumber: true },
  { title: "Taken" },
  { title: "On" },
];

function sendsBlock(sends: readonly Send[], { nameOf }: SheetContext): readonly Block[] {
  if (sends.length === 0) return [];
  const rows = sends.map(({ to, level, pan, tap, on }) => [
    nameOfTarget(to, { nameOf }),
    `${formatLevel(level, FADER.min)} dB`,
    formatPan(pan),
    tap === "pre" ? "before the fader" : "after the fader",
    onOrOff(on),
  ]);
  return [{ kind: "table", title: "", table: { columns: SEND_COLUMNS, rows } }];
}

const ALL = { low: 0, high: 127 };
const isAll = ({ low, high }: Layer["keys"]): boolean => low === ALL.low && high === ALL.high;

function layerAside({ keys, velocities }: Layer): string {
  const [lowest, highest] = [noteName(keys.low), noteName(keys.high)];
  return [
    isAll(keys) ? "all keys" : `keys ${lowest} to ${highest}`,
    isAll(velocities) ? "all velocities" : `velocities ${velocities.low} to ${velocities.high}`,
  ].join(", ");
}

const layerBlocks = (layer: Layer, at: number, context: SheetContext): readonly Block[] => [
  heading(`Layer ${at + 1}: ${layer.name}`, layerAside(layer)),
  pluginBlock(layer.instrument, `L${at + 1}`, context),
  ...chainBlocks(layer.effects, context),
];

/** All of a strip, or what a preset holds of one: its parts in words, its sends, its instruments, its inserts. `arriving`: what else is said of it. */
export function stripBlocks(
  strip: Strip | SavedStrip,
  context: SheetContext,
  arriving: readonly Fact[] = [],
): readonly Block[] {
  const { inserts, sends = [], source } = strip;
  const facts = [
    ...partFacts(strip, context),
    ...inputFacts(strip),
    ...arriving,
    ...factOf("Inserts from", fromWords(inserts?.from)),
  ];
  const layers = source ? layersOf({ source }) : [];
  return [
    ...(facts.length > 0 ? [{ kind: "facts", facts } as const] : []),
    ...sendsBlock(sends, context),
    ...layers.flatMap((layer, at) => layerBlocks(layer, at, context)),
    // What stands behind an instrument is told apart from what is within it.
    ...(layers.length > 0 && inserts && inserts.nodes.length > 0 ? [heading("Inserts", "")] : []),
    ...(inserts ? chainBlocks(inserts, context) : []),
  ];
}
