import { type Card, type Content, KIND_NAMES, type KeyedStrip, type Origin } from "../presets/preset";
import { beatsPerMinute } from "../units/quantities";
import { chainBlocks } from "./chain-blocks";
import { type SheetContext, fromWords, pluginBlock } from "./plugin-block";
import { type Block, type Fact, type RecallSheet, factOf } from "./sheet";
import { stripBlocks } from "./strip-blocks";

/** Note lengths of a sound that is of no song are heard at this. */
const USUAL_TEMPO = 120;

/** A version of a sound, and what its card says. */
export interface SheetPreset {
  readonly card: Card;
  readonly version: number;
  readonly content: Content;
  /** "Voices / Lead"; "" for none. */
  readonly folder: string;
}

const ORIGIN: readonly (readonly [label: string, field: Exclude<keyof Origin, "from">])[] = [
  ["Artist", "artist"],
  ["Client", "client"],
  ["Song", "song"],
  ["Project", "project"],
  ["Strip", "strip"],
  ["Performer", "performer"],
  ["Instrument", "instrument"],
  ["Microphone", "microphone"],
  ["Date", "date"],
  ["Take", "take"],
];

const cardFacts = ({ card, version, folder }: SheetPreset): readonly Fact[] => [
  { label: "Version", text: String(version) },
  ...factOf("Folder", folder),
  ...factOf("Short name", card.short),
  ...factOf("Purpose", card.purpose),
  ...factOf("Tags", card.tags.join(", ")),
  ...factOf("Rating", card.rating === 0 ? "" : `${card.rating} of 5`),
  ...ORIGIN.flatMap(([label, field]) => factOf(label, card.origin[field])),
  ...factOf("Made from", fromWords(card.origin.from)),
];

const nameIn =
  (strips: readonly KeyedStrip[]) =>
  (id: string): string | null =>
    strips.find((strip) => strip.id === id)?.name ?? null;

function contentBlocks(content: Content, tempo: number): readonly Block[] {
  const alone: SheetContext = { tempo: beatsPerMinute(tempo), nameOf: () => null };
  switch (content.kind) {
    case "plugin":
      return [pluginBlock(content.processor, "", alone)];
    case "chain":
      return chainBlocks(content.chain, alone);
    case "strip":
      return stripBlocks(content.strip, alone);
    case "set":
    case "mix": {
      const context = { tempo: beatsPerMinute(tempo), nameOf: nameIn(content.strips) };
      return content.strips.flatMap((strip, at): readonly Block[] => [
        { kind: "heading", rank: 1, text: `${at + 1} ${strip.name}`, aside: strip.kind },
        ...stripBlocks(strip, context),
      ]);
    }
  }
}

/** A sound of the library, by one of its versions. `tempo`: at which note lengths are heard; a mix has its own. */
export function presetSheet(preset: SheetPreset, tempo = USUAL_TEMPO): RecallSheet {
  const { card, content } = preset;
  const heardAt = content.kind === "mix" ? content.tempo : tempo;
  return {
    title: card.name,
    of: KIND_NAMES[content.kind],
    facts: [...cardFacts(preset), { label: "Tempo", text: `${heardAt} bpm` }],
    notes: card.notes,
    blocks: contentBlocks(content, heardAt),
  };
}
