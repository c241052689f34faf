import type { Card, Origin } from "../presets/preset";
import { fold } from "../names/words";

/** What a card can be filled in with before a person has written anything. */
export interface Proposal {
  readonly folder: string | null;
  readonly purpose: string;
  readonly tags: readonly string[];
  readonly played: Pick<Origin, "performer" | "instrument" | "microphone">;
}

/** What is known of the thing in hand. */
export interface Known {
  readonly artist: string;
  /** The strip's name; "" for a sound that is of no strip. */
  readonly strip: string;
}

const isSame = (a: string | undefined, b: string): boolean => b !== "" && fold(a ?? "") === fold(b);

const PLAYED = ["performer", "instrument", "microphone"] as const;

const saysWhoPlayed = (origin: Origin): boolean => PLAYED.some((field) => origin[field] !== undefined);

const playedOf = (origin: Origin): Proposal["played"] =>
  Object.fromEntries(PLAYED.flatMap((field) => (origin[field] === undefined ? [] : [[field, origin[field]]])));

/**
 * Proposes how to file a sound from cards of others. `loaded` is the card of the preset that it was loaded from, `others` are
 * more cards, the best known first. A card of the same artist's strip of that name tells most, then one of any strip of
 * that name; who played what is taken only from the same artist's.
 */
export function proposeCard({ artist, strip }: Known, loaded: Card | null, others: readonly Card[]): Proposal {
  const ofStrip = others.filter((card) => isSame(card.origin.strip, strip));
  const ofBoth = ofStrip.filter((card) => isSame(card.origin.artist, artist));
  const ranked = [...(loaded ? [loaded] : []), ...ofBoth, ...ofStrip];
  const played = ranked.find(
    ({ origin }) => isSame(origin.artist, artist) && isSame(origin.strip, strip) && saysWhoPlayed(origin),
  );
  return {
    folder: ranked.find((card) => card.folder !== null)?.folder ?? null,
    purpose: ranked.find((card) => card.purpose !== "")?.purpose ?? strip,
    tags: loaded?.tags ?? sharedTags(ofBoth),
    played: played ? playedOf(played.origin) : {},
  };
}

/** Tags that more than half of the cards have, where there are at least two. */
function sharedTags(cards: readonly Card[]): readonly string[] {
  if (cards.length < 2) return [];
  const counts = new Map<string, number>();
  for (const tag of cards.flatMap((card) => [...new Set(card.tags)])) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  return [...counts].filter(([, n]) => n > cards.length / 2).map(([tag]) => tag);
}
