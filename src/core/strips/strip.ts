import type { z } from "zod";
import { EMPTY_CHAIN, completeChain, findChainProblem } from "../chains/chain";
import type { STRIP_KINDS } from "../chains/schema";
import type { Problem } from "../documents/problem";
import { formatLevel, formatPan } from "../units/format";
import { FADER } from "./params";
import type { LevelSchema, LookSchema, OutputSchema, PanSchema, SavedStripSchema, StripSchema } from "./schema";

export type StripKind = (typeof STRIP_KINDS)[number];
export type Strip = Readonly<z.infer<typeof StripSchema>>;
export type SavedStrip = Readonly<z.infer<typeof SavedStripSchema>>;
export type Look = Readonly<z.infer<typeof LookSchema>>;
export type Level = Readonly<z.infer<typeof LevelSchema>>;
export type Pan = Readonly<z.infer<typeof PanSchema>>;
export type Output = Readonly<z.infer<typeof OutputSchema>>;

/** The parts that can be saved and applied today, in the order of the columns. */
export const PARTS = ["inserts", "level", "pan", "routing", "look"] as const;
export type PartName = (typeof PARTS)[number];

export const PART_NAMES: Record<PartName, string> = {
  inserts: "Inserts",
  level: "Level",
  pan: "Pan",
  routing: "Output",
  look: "Look",
};

export const isBus = (kind: StripKind): boolean => kind === "return" || kind === "group" || kind === "main";

/** A strip with nothing set. It goes to `output`. */
export const createStrip = (id: string, kind: StripKind, look: Look, output: Output): Strip => ({
  id,
  kind,
  look,
  source: isBus(kind)
    ? { type: "bus", channels: "stereo" }
    : { type: "input", channels: "mono", input: "", gain: 0, inverted: false },
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

export const formatPanPart = ({ pan, width }: Pan): string =>
  width === 100 ? formatPan(pan) : `${formatPan(pan)}, width ${width} %`;

/** "In 2, mono", "return", "output 1–2". */
export function describeSource({ kind, source }: Strip): string {
  switch (source.type) {
    case "input":
      return `${source.input === "" ? "No input" : source.input}, ${source.channels}`;
    case "layers":
      return `${source.layers.length} layer${source.layers.length === 1 ? "" : "s"}`;
    case "output":
      return `output ${source.output}`;
    case "bus":
      return kind === "main" ? "main output" : kind;
  }
}

/** The parts that a saved strip holds, of those that can be applied today. */
export const partsOf = (saved: SavedStrip): readonly PartName[] => PARTS.filter((part) => saved[part] !== undefined);

export const findStripProblem = (strip: Strip | SavedStrip, path: string): Problem | null => {
  if (strip.kind === "folder" || strip.kind === "instrument")
    return { path: `${path}.kind`, message: `Strips of kind ${strip.kind} cannot be built here yet.` };
  if (strip.sends && strip.sends.length > 0)
    return { path: `${path}.sends`, message: "Sends cannot be built here yet." };
  return strip.inserts ? findChainProblem(strip.inserts, `${path}.inserts`) : null;
};

export const completeStrip = <S extends Strip | SavedStrip>(strip: S): S =>
  strip.inserts ? { ...strip, inserts: completeChain(strip.inserts) } : strip;
