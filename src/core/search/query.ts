import { cutText } from "../names/cut";
import { fold, wordsOf } from "../names/words";

/** What the field on top can be asked for by name, and how each is told to a person. */
export const FIELDS = {
  kind: "what is kept: plugin, chain, strip, set, mix",
  name: "words of the name",
  for: "what it is for",
  family: "a family of plugins inside",
  has: "a plugin inside",
  maker: "the maker of a plugin inside",
  artist: "the artist it was made for",
  client: "the client it was made for",
  song: "the song it comes from",
  project: "the project it comes from",
  performer: "who played",
  instrument: "what was played",
  mic: "the microphone",
  tag: "a tag",
  measured: "what was measured: warm, gentle, long tail",
  folder: "the name of its folder",
  pack: "the pack it came with, or own",
  rating: "stars: 4, or 4+ for at least four",
  year: "the year it was saved: 2026, or 2024+ for since then",
  used: "yes or no: whether a project uses it",
} as const;

export type Field = keyof typeof FIELDS;
export const FIELD_NAMES = Object.keys(FIELDS) as readonly Field[];

/** A word that must be found; a whole one stood in quotes, another may be the beginning of one. */
export interface SoughtWord {
  readonly word: string;
  readonly whole: boolean;
}

/** What one field must say: any of the values. */
export interface Term {
  readonly field: Field;
  readonly not: boolean;
  readonly values: readonly TermValue[];
}

export type TermValue =
  | { readonly is: "exactly"; readonly text: string }
  | { readonly is: "words"; readonly words: readonly string[] }
  | { readonly is: "from"; readonly least: number; readonly most: number };

export interface Query {
  readonly words: readonly SoughtWord[];
  readonly not: readonly SoughtWord[];
  readonly terms: readonly Term[];
  /** What was not understood, each with why; its words were looked for instead. */
  readonly unclear: readonly string[];
}

export const NOTHING_SOUGHT: Query = { words: [], not: [], terms: [], unclear: [] };

/** An optional minus, an optional field, and one value or several with commas, any of them in quotes. */
const PIECE = /(-?)(?:(\p{L}+):)?((?:"[^"]*"?|[^\s",]+|,)+)?/gu;
const VALUE = /"([^"]*)"?|([^,"]+)/gu;

const NUMERIC: readonly Field[] = ["rating", "year"];

const isField = (name: string): name is Field => Object.hasOwn(FIELDS, name);

/** "4", "4+"; null for what is no number. */
function readNumber(text: string): TermValue | null {
  const found = /^(\d{1,4})(\+?)$/.exec(text.trim());
  if (!found) return null;
  const least = Number(found[1]);
  return { is: "from", least, most: found[2] === "+" ? Number.POSITIVE_INFINITY : least };
}

function readValue(field: Field, quoted: string | undefined, bare: string | undefined): TermValue | null {
  if (NUMERIC.includes(field)) return readNumber(quoted ?? bare ?? "");
  if (quoted !== undefined) return quoted.trim() === "" ? null : { is: "exactly", text: fold(quoted.trim()) };
  const words = wordsOf(bare ?? "");
  return words.length === 0 ? null : { is: "words", words };
}

type Part = { readonly term: Term } | { readonly words: readonly SoughtWord[]; readonly not: boolean };

interface Read {
  readonly part: Part;
  readonly unclear?: string;
}

const soughtIn = (text: string): readonly SoughtWord[] =>
  [...text.matchAll(VALUE)].flatMap(([, quoted, bare]) =>
    wordsOf(quoted ?? bare ?? "").map((word) => ({ word, whole: quoted !== undefined })),
  );

function readPiece(minus: string, name: string | undefined, rest: string): Read {
  const not = minus === "-";
  const field = name?.toLowerCase();
  if (field === undefined) return { part: { words: soughtIn(rest), not } };
  const asWords: Part = { words: [...soughtIn(name ?? ""), ...soughtIn(rest)], not };
  if (!isField(field)) return { part: asWords, unclear: `“${name}:” is no field; its words were looked for.` };
  const read = [...rest.matchAll(VALUE)].map(([, quoted, bare]) => readValue(field, quoted, bare));
  const values = read.filter((v) => v !== null);
  if (values.length > 0 && values.length === read.length) return { part: { term: { field, not, values } } };
  // While it is being typed it is not yet wrong.
  if (rest === "") return { part: { words: [], not } };
  return {
    part: asWords,
    unclear: `“${name}:${rest}” asks for ${FIELDS[field]}; its words were looked for.`,
  };
}

/**
 * Reads what stands in the field: words, each the beginning of one that must be found, whole in quotes; `field:value`,
 * several values with commas; a minus before what must not be there. Never fails: what is no query is words.
 */
export function parseQuery(text: string): Query {
  const words: SoughtWord[] = [];
  const without: SoughtWord[] = [];
  const terms: Term[] = [];
  const unclear: string[] = [];
  for (const [piece, minus = "", name, rest = ""] of text.normalize("NFC").matchAll(PIECE)) {
    if (piece.trim() === "") continue;
    const read = readPiece(minus, name, rest);
    if (read.unclear !== undefined) unclear.push(read.unclear);
    if ("term" in read.part) terms.push(read.part.term);
    else (read.part.not ? without : words).push(...read.part.words);
  }
  return limited({ words, not: without, terms, unclear });
}

/** Different words that one search looks for; more would only hold up whoever searches next. */
export const MOST_WORDS = 64;

/** Letters of the field that are read. */
export const MOST_LETTERS = 4000;

/** What was typed, as far as it is read. */
export const cutQuery = (text: string): string => cutText(text, MOST_LETTERS);

const wordsIn = (value: TermValue): readonly string[] => (value.is === "words" ? value.words : [""]);

/** No word twice, and no more than are looked for; how many were left out is said. */
function limited({ words, not, terms, unclear }: Query): Query {
  const seen = new Set<string>();
  const over = new Set<string>();
  const isTaken = (name: string): boolean => {
    if (seen.has(name)) return false;
    (seen.size < MOST_WORDS ? seen : over).add(name);
    return seen.has(name);
  };
  const sought = words.filter(({ word, whole }) => isTaken(`${whole ? "=" : ""}${word}`));
  const without = not.filter(({ word, whole }) => isTaken(`-${whole ? "=" : ""}${word}`));
  const kept = terms.flatMap((term, at) => {
    const values = term.values.filter((value) => {
      const names = wordsIn(value).map((word, n) => `${at}:${JSON.stringify(value)}${n}${word}`);
      return names.map(isTaken).every(Boolean);
    });
    return values.length === 0 ? [] : [{ ...term, values }];
  });
  const told = unclear.slice(0, MOST_WORDS);
  if (over.size > 0)
    told.push(
      `Only the first ${MOST_WORDS} different words are looked for; ${over.size} more ${over.size === 1 ? "was" : "were"} left out.`,
    );
  return { words: sought, not: without, terms: kept, unclear: told };
}

/** A value as it must be typed to be found exactly. */
export const quoteValue = (value: string): string => `"${value.replaceAll('"', "")}"`;

/**
 * Chosen values of fields, beside the field on top: any of the values of one field, and all fields. Each value stands as it
 * is written: in quotes as it is chosen from a list, bare as a hand may write it into an address.
 */
export type Filters = ReadonlyMap<Field, readonly string[]>;

const FILTER = /(\p{L}+):((?:(?:"[^"]*"|[^\s",]+),?)+)/gu;

const unquoted = (written: string): string => written.replaceAll('"', "");

/** The values of a field that are chosen, without their quotes. */
export const chosenOf = (filters: Filters, field: Field): readonly string[] => (filters.get(field) ?? []).map(unquoted);

/** Filters as they stand in an address; what is no filter is passed over. */
export function readFilters(text: string): Filters {
  const filters = new Map<Field, readonly string[]>();
  for (const [, name = "", list = ""] of text.matchAll(FILTER))
    if (isField(name))
      filters.set(
        name,
        [...list.matchAll(VALUE)].map(([, quoted, bare = ""]) => (quoted === undefined ? bare : quoteValue(quoted))),
      );
  return filters;
}

export const writeFilters = (filters: Filters): string =>
  [...filters]
    .filter(([, values]) => values.length > 0)
    .map(([field, values]) => `${field}:${values.join(",")}`)
    .join(" ");

/** Switches one value of a field on or off. */
export function toggleFilter(filters: Filters, field: Field, value: string): Filters {
  const before = filters.get(field) ?? [];
  const others = before.filter((written) => unquoted(written) !== value);
  const after = others.length < before.length ? others : [...before, quoteValue(value)];
  return new Map([...filters, [field, after]]);
}

/** The part of the text that is being typed at its end, where a field's value is: for completing it. */
export function openField(
  text: string,
): { readonly field: Field; readonly begun: string; readonly from: number } | null {
  const found = /(?:^|\s)-?(\p{L}+):(?:(?:"[^"]*"|[^\s",]+),)*("?)([^",\s]*|[^",]*)$/u.exec(text);
  const field = found?.[1]?.toLowerCase();
  if (!found || field === undefined || !isField(field)) return null;
  const [quote, begun] = [found[2] ?? "", found[3] ?? ""];
  if (quote === "" && /\s/.test(begun)) return null;
  return { field, begun, from: text.length - begun.length - quote.length };
}
