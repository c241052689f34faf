import type { Inside } from "../library/inside";
import { measuredTags } from "../library/measured-tags";
import { several } from "../names/several";
import { fold } from "../names/words";
import { OWN } from "../packs/pack";
import type { Card } from "../presets/preset";
import type { Field } from "./fields";

/** The parts of a text that is searched, the weightiest first. Words of a name count for more than those of an origin. */
export interface SearchText {
  readonly name: string;
  readonly tags: string;
  readonly purpose: string;
  readonly origin: string;
  readonly notes: string;
}

/** How the words of each part weigh when hits are ranked. */
export const WEIGHTS: Readonly<Record<keyof SearchText, number>> = {
  name: 10,
  tags: 4,
  purpose: 2,
  origin: 1,
  notes: 0.5,
};

/** All that the index knows of a preset. `row` is its number in the store. */
export interface IndexEntry {
  readonly row: number;
  readonly text: SearchText;
  readonly values: Readonly<Partial<Record<Field, readonly string[]>>>;
  readonly folder: string | null;
  /** Other folders that refer to it. */
  readonly alsoIn?: readonly string[];
  readonly sortName: string;
  /** Milliseconds since 1970. */
  readonly savedAt: number;
  readonly touchedAt: number;
  /** By what else a list can be put in order; what has none of it stands last. */
  readonly by?: OrderedBy;
}

/** What a list is put in order by beside names and times. */
export interface OrderedBy {
  readonly rating: number;
  /** The day it comes from, in milliseconds since 1970; null where that is not known. */
  readonly origin: number | null;
  /** How many plugins it has. */
  readonly length: number;
  /** The path of its folder, as it is sorted; null for one in none. */
  readonly folder: string | null;
  /** In LUFS; null where it is not measured, or silent. */
  readonly loudness: number | null;
}

/** `path`: the names of its folder and of those above, its own first. */
export const orderedBy = (
  card: Card,
  inside: Inside,
  { path, loudness }: { readonly path: readonly string[]; readonly loudness: number | null },
): OrderedBy => ({
  rating: card.rating,
  origin: card.origin.date === undefined ? null : Date.parse(card.origin.date),
  length: inside.length,
  folder: path.length === 0 ? null : fold(path.toReversed().join(" / ")),
  loudness,
});

export function searchText(card: Card, inside: Inside): SearchText {
  const { from: _, ...words } = card.origin;
  const origin = Object.values(words).filter((word) => word !== undefined);
  return {
    name: `${card.name} ${card.short ?? ""}`.trim(),
    tags: [...new Set([...card.tags, ...measuredTags(card, inside)])].join(" "),
    purpose: `${card.purpose} ${inside.names.join(" ")}`,
    origin: origin.join(" "),
    notes: card.notes,
  };
}

/** What is said of a preset beside its card and what is inside. */
interface Around {
  readonly kind: string;
  /** The names of the folders that it is in and of those above. */
  readonly folder: readonly string[];
  readonly pack: string | null;
  /** The pack of the sound that it was made out of. */
  readonly fromPack: string | null;
  /** The names of the projects that use it. */
  readonly projects: readonly string[];
  /** The day on which its sound was saved: 2026-11-24. */
  readonly savedOn: string;
  /** In LUFS; null where it is not measured, or silent. */
  readonly loudness: number | null;
  /** Its sound was saved after it was last used. */
  readonly isChanged: boolean;
}

/** What fields say of a preset. */
export function valuesOf(card: Card, inside: Inside, more: Around): IndexEntry["values"] {
  const { origin } = card;
  const number = (value: number | null | undefined) => (typeof value === "number" ? [String(value)] : []);
  return {
    kind: [more.kind],
    name: card.short ? [card.name, card.short] : [card.name],
    for: several(card.purpose),
    family: inside.families,
    has: inside.models,
    maker: inside.makers,
    artist: several(origin.artist),
    client: several(origin.client),
    song: several(origin.song),
    project: several(origin.project),
    performer: several(origin.performer),
    instrument: several(origin.instrument),
    mic: several(origin.microphone),
    tag: card.tags,
    measured: measuredTags(card, inside),
    folder: more.folder,
    pack: [more.pack ?? OWN],
    from: [origin.from?.preset, origin.from?.name, more.fromPack].filter((one) => typeof one === "string"),
    in: more.projects,
    notes: card.notes === "" ? [] : [card.notes],
    rating: [String(card.rating)],
    year: origin.date === undefined ? [] : [origin.date.slice(0, 4)],
    saved: [more.savedOn],
    loudness: number(more.loudness && Math.round(10 * more.loudness) / 10),
    decay: number(inside.decay),
    tempo: number(inside.tempo),
    used: more.projects.length === 0 ? ["no"] : more.isChanged ? ["yes", "changed"] : ["yes"],
  };
}
