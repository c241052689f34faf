import { cutText } from "../names/cut";
import { type Card, type PresetKind, KIND_NAMES } from "../presets/preset";

import { measuredTags } from "./measured-tags";
import type { Inside } from "./inside";
import { LONGEST_NAME } from "../names/free";
import { numberAt, readChanges, readNumbering } from "./pattern-options";

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
  number: "1, 2, 3…",
} as const;

export type PatternField = keyof typeof PATTERN_FIELDS;

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

const TEXTS: Readonly<Record<Exclude<PatternField, "number">, (named: Named) => string | undefined>> = {
  name: ({ card }) => card.name,
  song: ({ card }) => card.origin.song,
  artist: ({ card }) => card.origin.artist,
  client: ({ card }) => card.origin.client,
  project: ({ card }) => card.origin.project,
  strip: ({ card }) => card.origin.strip,
  purpose: ({ card }) => card.purpose,
  model: ({ inside }) => modelsIn(inside),
  character: ({ card, inside }) => card.tags[0] ?? measuredTags(card, inside)[0],
  kind: ({ kind }) => KIND_NAMES[kind],
  performer: ({ card }) => card.origin.performer,
  instrument: ({ card }) => card.origin.instrument,
  mic: ({ card }) => card.origin.microphone,
  date: ({ card }) => card.origin.date,
  take: ({ card }) => card.origin.take,
};

/** What stands in a pattern: words, or a field, with what it says of the `at`th sound of a list from 1. */
type Part = string | ((named: Named, at: number) => string);

const FIELD = /\{(\w+)(?::([^{}]*))?\}/g;
/** What holds words together: where one of them is missing, it goes too. */
const HOLDERS = String.raw`[\s,;:/·–—-]`;

const isField = (name: string): name is PatternField => Object.hasOwn(PATTERN_FIELDS, name);

/** A field with what it is asked to do; null where that is not understood. */
function readField(name: string, asked: string): Exclude<Part, string> | null {
  if (!isField(name)) return null;
  const options = asked
    .split(",")
    .map((option) => option.trim())
    .filter((option) => option !== "");
  if (name === "number") {
    const numbering = readNumbering(options);
    return numbering && ((_, at) => numberAt(numbering, at));
  }
  const change = readChanges(options);
  return change && ((named) => change(TEXTS[name](named) ?? ""));
}

/** The parts of a pattern; a field that is not understood stays as it stands, and is told in `unknown`. */
function readParts(pattern: string): { readonly parts: readonly Part[]; readonly unknown: readonly string[] } {
  const parts: Part[] = [];
  const unknown: string[] = [];
  let end = 0;
  for (const found of pattern.matchAll(FIELD)) {
    const [whole, name = "", asked = ""] = found;
    const field = readField(name, asked);
    if (!field) unknown.push(whole);
    parts.push(pattern.slice(end, found.index), field ?? whole);
    end = found.index + whole.length;
  }
  const rest = pattern.slice(end);
  parts.push(rest);
  // A field that is begun and not closed is none yet.
  const begun = /\{\w*(?::[^{}]*)?$/.exec(rest);
  return { parts, unknown: begun ? [...unknown, begun[0]] : unknown };
}

/** What stands between braces and is not understood, braces included. */
export const unknownFields = (pattern: string): readonly string[] => readParts(pattern).unknown;

/** Stands for a field that says nothing, until what held it is taken out. */
const MISSING = "\u0000";
const IN_BRACKETS = new RegExp(`[([]${MISSING}[)\\]]`, "g");
const AT_THE_BEGINNING = new RegExp(`^${HOLDERS}*(?:${MISSING}${HOLDERS}*)+`, "g");
const BEHIND = new RegExp(`${HOLDERS}*${MISSING}`, "g");

/** Where a name has more than one plain space. */
const WIDE = /\s{2,}|[^ \S]/g;

function withoutGaps(filled: string): string {
  const held = filled.includes(MISSING)
    ? filled.replaceAll(IN_BRACKETS, MISSING).replaceAll(AT_THE_BEGINNING, "").replaceAll(BEHIND, "")
    : filled;
  return cutText(held.replaceAll(WIDE, " ").trim(), LONGEST_NAME).trim();
}

/** Gives names by a pattern: to the `at`th sound of a list, from 1. What is not known of a sound leaves no gap. */
export function namer(pattern: string): (named: Named, at: number) => string {
  const { parts } = readParts(pattern);
  return (named, at) =>
    withoutGaps(parts.map((part) => (typeof part === "string" ? part : part(named, at).trim() || MISSING)).join(""));
}

/** The name that a pattern gives one sound. */
export const applyPattern = (pattern: string, named: Named, at: number): string => namer(pattern)(named, at);
