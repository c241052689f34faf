import type { Card } from "../presets/preset";
import { several } from "../names/several";
import type { CardFields } from "./step";

/* The words that cards are filed by, as lists that are kept in order: renamed, merged, taken away everywhere at once. */

type Said = "tag" | "for" | "artist" | "client" | "performer" | "instrument" | "mic";

/** Each list, and the fields of the search that say its words. People may stand in several. */
export const WORD_LISTS = {
  tags: { title: "Tags", one: "tag", fields: ["tag"] },
  people: { title: "People", one: "name", fields: ["artist", "client", "performer"] },
  instruments: { title: "Instruments", one: "instrument", fields: ["instrument"] },
  microphones: { title: "Microphones", one: "microphone", fields: ["mic"] },
  purposes: { title: "Purposes", one: "purpose", fields: ["for"] },
} as const satisfies Record<string, { title: string; one: string; fields: readonly Said[] }>;

export type WordList = keyof typeof WORD_LISTS;
export const WORD_LIST_NAMES = Object.keys(WORD_LISTS) as readonly WordList[];

/** Letters of a word, as a card takes it. */
export const longestWord = (list: WordList): number => (list === "tags" ? 60 : 200);

const ORIGINS = {
  artist: "artist",
  client: "client",
  performer: "performer",
  instrument: "instrument",
  mic: "microphone",
} as const;

const joined = (words: readonly string[]): string => words.join("; ");

/** The words with some of them in the place of others, or away: in their order, none twice. */
function replaced(words: readonly string[], from: ReadonlySet<string>, to: string | null): readonly string[] {
  const next = words.flatMap((word) => (from.has(word) ? (to === null ? [] : [to]) : [word]));
  return [...new Set(next)];
}

/**
 * What of a card is another once some words of a list are one word, or none (`to` null); null where it has none of them. All else of the
 * card stays. Laws: doing it again changes nothing; no word stands twice.
 */
export function withWords(card: Card, list: WordList, from: ReadonlySet<string>, to: string | null): CardFields | null {
  const has = (words: readonly string[]) => words.some((word) => from.has(word) && word !== to);
  if (list === "tags") return has(card.tags) ? { tags: [...replaced(card.tags, from, to)] } : null;
  if (list === "purposes")
    return has(several(card.purpose)) ? { purpose: joined(replaced(several(card.purpose), from, to)) } : null;
  const changed = WORD_LISTS[list].fields.flatMap((field) => {
    const key = ORIGINS[field];
    const words = several(card.origin[key]);
    return has(words) ? [[key, joined(replaced(words, from, to))] as const] : [];
  });
  if (changed.length === 0) return null;
  const origin = Object.entries({ ...card.origin, ...Object.fromEntries(changed) }).filter(([, word]) => word !== "");
  return { origin: Object.fromEntries(origin) };
}
