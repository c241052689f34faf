import { type Card, emptyCard } from "@/core/presets/preset";
import { splitTags } from "../kit/split-tags";
import { type Subject, originOf } from "./proposal";
import type { Known } from "./use-proposals";

export interface SaveFields {
  readonly name: string;
  readonly pattern: string;
  /** An id, "" for none, or one of the two below. */
  readonly folder: string;
  readonly newFolder: string;
  /** The folder that the new one is made in; "" at the top. */
  readonly newFolderIn: string;
  readonly purpose: string;
  readonly tags: string;
  readonly performer: string;
  readonly instrument: string;
  readonly microphone: string;
}

/** Choices of folder that are no folder yet: one to be named, and one that is named after the artist. */
export const NEW_FOLDER = "+";
export const ARTISTS_FOLDER = "+artist";

export const EMPTY: SaveFields = {
  name: "",
  pattern: "",
  folder: "",
  newFolder: "",
  newFolderIn: "",
  purpose: "",
  tags: "",
  performer: "",
  instrument: "",
  microphone: "",
};

/** What all have in common; "" where they differ. */
const common = (values: readonly string[]): string => (new Set(values).size === 1 ? (values[0] ?? "") : "");

/** What is proposed for things, as it is filled in. */
export const fieldsOf = (known: readonly Known[]): Partial<SaveFields> => {
  const of = (read: (known: Known) => string | undefined) => common(known.map((k) => read(k) ?? ""));
  return {
    folder: of((k) => k.proposal.folder ?? ""),
    purpose: of((k) => k.proposal.purpose),
    tags: of((k) => k.proposal.tags.join(", ")),
    performer: of((k) => k.proposal.played.performer),
    instrument: of((k) => k.proposal.played.instrument),
    microphone: of((k) => k.proposal.played.microphone),
  };
};

type Touched = Partial<Readonly<Record<keyof SaveFields, boolean | undefined>>>;

/** The card of a thing: what is typed is for all, what is not touched is each one's own. */
export function cardOf(
  subject: Subject,
  known: Known | undefined,
  { fields, touched }: { readonly fields: SaveFields; readonly touched: Touched },
): Card {
  const own = known?.proposal;
  const played = (["performer", "instrument", "microphone"] as const).flatMap((field) => {
    const word = (touched[field] || !own ? fields[field] : (own.played[field] ?? "")).trim();
    return word === "" ? [] : [[field, word] as const];
  });
  return {
    ...emptyCard(""),
    tags: [...new Set(touched.tags || !own ? splitTags(fields.tags) : own.tags)],
    purpose: (touched.purpose || !own ? fields.purpose : own.purpose).trim(),
    origin: { ...originOf(subject), ...Object.fromEntries(played) },
  };
}
