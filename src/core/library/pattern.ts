import { cutText } from "../names/cut";
import { type Card, type PresetKind, KIND_NAMES } from "../presets/preset";

import { measuredTags } from "./measured-tags";
import type { Inside } from "./inside";
import { LONGEST_NAME } from "../names/free";

/** What a pattern may hold between braces, and what stands there then. */
export const PATTERN_FIELDS = {
  name: "the name it has",
  song: "the song",
  artist: "the artist",
  client: "the client",
  project: "the project",
  strip: "the strip",
  purpose: "what it is for",
  model: "its plugins",
  character: "its first tag, else what was measured first",
  kind: "what kind it is",
  performer: "who played",
  instrument: "what was played",
  mic: "the microphone",
  date: "the date it comes from",
  take: "the take",
  number: "1, 2, 3… ; {number:2} is 01, 02, 03…",
} as const;

type PatternField = keyof typeof PATTERN_FIELDS;

/** A sound as a pattern sees it. */
export interface Named {
  readonly kind: PresetKind;
  readonly card: Card;
  readonly inside: Pick<Inside, "models" | "found">;
}

/** More plugins than these are not spelled out in a name. */
const MOST_MODELS = 2;

function modelsIn({ models }: Named["inside"]): string {
  const rest = models.length - MOST_MODELS;
  return models.slice(0, MOST_MODELS).join(" and ") + (rest > 0 ? ` and ${rest} more` : "");
}

function textOf(field: PatternField, { kind, card, inside }: Named, number: string): string {
  const { origin } = card;
  const texts: Record<PatternField, string | undefined> = {
    name: card.name,
    song: origin.song,
    artist: origin.artist,
    client: origin.client,
    project: origin.project,
    strip: origin.strip,
    purpose: card.purpose,
    model: modelsIn(inside),
    character: card.tags[0] ?? measuredTags(card, inside)[0],
    kind: KIND_NAMES[kind],
    performer: origin.performer,
    instrument: origin.instrument,
    mic: origin.microphone,
    date: origin.date,
    take: origin.take,
    number,
  };
  return texts[field] ?? "";
}

const FIELD = /\{(\w+)(?::(\d))?\}/g;
/** What holds words together: where one of them is missing, it goes too. */
const HOLDERS = String.raw`[\s,;:/·–—-]`;

const isField = (name: string): name is PatternField => Object.hasOwn(PATTERN_FIELDS, name);

/** Words in braces that no pattern knows. */
export const unknownFields = (pattern: string): readonly string[] =>
  [...pattern.matchAll(FIELD)].flatMap(([, name = ""]) => (isField(name) ? [] : [name]));

/** Stands for a field that says nothing, until what held it is taken out. */
const MISSING = "\u0000";

/** The name that a pattern gives a sound, the `at`th of its list from 1. What is not known leaves no gap. */
export function applyPattern(pattern: string, named: Named, at: number): string {
  const filled = pattern.replaceAll(FIELD, (whole, name: string, digits?: string) => {
    if (!isField(name)) return whole;
    return textOf(name, named, String(at).padStart(Number(digits ?? 1), "0")).trim() || MISSING;
  });
  const whole = filled
    .replaceAll(new RegExp(`[([]${MISSING}[)\\]]`, "g"), MISSING)
    .replaceAll(new RegExp(`^${HOLDERS}*(?:${MISSING}${HOLDERS}*)+`, "g"), "")
    .replaceAll(new RegExp(`${HOLDERS}*${MISSING}`, "g"), "")
    .replaceAll(/\s+/g, " ")
    .trim();
  return cutText(whole, LONGEST_NAME).trim();
}

/** Words that carry nothing in a name with few letters. */
const EMPTY = new Set(["a", "an", "and", "for", "in", "of", "on", "the", "to", "with"]);

/**
 * A name for a device that shows only `most` letters: words without weight go first, then vowels within words from the
 * last on, then letters at the ends of the longest words. Letters beyond ASCII lose their accents.
 */
export function shortName(name: string, most: number): string {
  const plain = name
    .normalize("NFKD")
    .replace(/[^\x20-\x7e]/g, "")
    .replace(/[^A-Za-z0-9]+/g, " ")
    .trim();
  let words = plain.split(" ");
  const length = () => words.join(" ").length;
  if (length() > most) {
    const heavy = words.filter((word) => !EMPTY.has(word.toLowerCase()));
    if (heavy.length > 0) words = heavy;
  }
  for (let at = words.length - 1; at >= 0 && length() > most; at--)
    words[at] = words[at]!.replace(/(?<=.)[aeiou](?=.)/gi, "");
  while (length() > most && words.some((word) => word.length > 2)) {
    const longest = words.reduce((best, word, at) => (word.length > words[best]!.length ? at : best), 0);
    words[longest] = words[longest]!.slice(0, -1);
  }
  return words.join(" ").slice(0, most).trim();
}
