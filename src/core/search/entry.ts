import type { Inside } from "../library/inside";
import { measuredTags } from "../library/measured-tags";
import { OWN } from "../packs/pack";
import type { Card } from "../presets/preset";
import type { Field } from "./query";

/** The parts of a text that is searched, the weightiest first. Words of a name count for more than those of an origin. */
export interface SearchText {
  readonly name: string;
  readonly tags: string;
  readonly purpose: string;
  readonly origin: string;
}

/** How the words of each part weigh when hits are ranked. */
export const WEIGHTS: Readonly<Record<keyof SearchText, number>> = { name: 10, tags: 4, purpose: 2, origin: 1 };

/** All that the index knows of a preset. `row` is its number in the store. */
export interface IndexEntry {
  readonly row: number;
  readonly text: SearchText;
  readonly values: Readonly<Partial<Record<Field, readonly string[]>>>;
  readonly folder: string | null;
  readonly sortName: string;
  /** Milliseconds since 1970. */
  readonly savedAt: number;
  readonly touchedAt: number;
}

export function searchText(card: Card, inside: Inside): SearchText {
  const { from: _, ...words } = card.origin;
  const origin = Object.values(words).filter((word) => word !== undefined);
  return {
    name: card.name,
    tags: [...new Set([...card.tags, ...measuredTags(card, inside)])].join(" "),
    purpose: `${card.purpose} ${inside.names.join(" ")}`,
    origin: origin.join(" "),
  };
}

/** Several of a kind in one line: "Copper Heron; Tidal Clocks". */
export const several = (text: string | undefined): readonly string[] =>
  (text ?? "").split(";").flatMap((one) => (one.trim() === "" ? [] : [one.trim()]));

/** What fields say of a preset. `folder`: the name of its folder and of those above. */
export function valuesOf(
  card: Card,
  inside: Inside,
  more: { kind: string; folder: readonly string[]; year: string; used: boolean; pack: string | null },
): IndexEntry["values"] {
  const { origin } = card;
  return {
    kind: [more.kind],
    name: [card.name],
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
    rating: card.rating > 0 ? [String(card.rating)] : [],
    year: [more.year],
    used: [more.used ? "yes" : "no"],
  };
}
