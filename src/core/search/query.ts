import { FIELDS, type Field, isField } from "./fields";
import { fold, isUnspaced, phraseOf, wordsOf } from "../names/words";
import { type Span, isMeasured, readSpan } from "./spans";
import { VALUE } from "./written";

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
  /** Whole words beside each other. */
  | { readonly is: "phrase"; readonly words: readonly string[] }
  | { readonly is: "words"; readonly words: readonly string[] }
  | Span
  /** Whatever it says. */
  | { readonly is: "any" };

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
const exactly = (text: string): TermValue => ({ is: "exactly", text: fold(text.trim()) });

/** `*`: it says anything. What no project uses, and what is not rated, says so, too. */
function anyOf(field: Field): TermValue {
  if (field === "used") return exactly("yes");
  return field === "rating" ? { is: "within", least: 1, most: Number.POSITIVE_INFINITY } : { is: "any" };
}

function readValue(field: Field, [, exact, quoted, bare]: RegExpExecArray): TermValue | null {
  const written = (quoted ?? bare ?? "").trim();
  if (quoted === undefined && written === "*") return anyOf(field);
  if (isMeasured(field)) return readSpan(field, written);
  if (quoted === undefined) {
    const words = wordsOf(written);
    return words.length === 0 ? null : { is: "words", words };
  }
  if (exact === "=") return written === "" ? null : exactly(written);
  const words = phraseOf(written);
  // Of signs alone there are no words to be found.
  return words.length > 0 ? { is: "phrase", words } : written === "" ? null : exactly(written);
}

type Part = { readonly term: Term } | { readonly words: readonly SoughtWord[]; readonly not: boolean };

interface Read {
  readonly part: Part;
  readonly unclear?: string;
}

const soughtIn = (text: string): readonly SoughtWord[] =>
  [...text.matchAll(VALUE)].flatMap(([, , quoted, bare]) =>
    wordsOf(quoted ?? bare ?? "").map((word) => ({ word, whole: quoted !== undefined && !isUnspaced(word) })),
  );

function readPiece(minus: string, name: string | undefined, rest: string): Read {
  const not = minus === "-";
  const field = name?.toLowerCase();
  if (field === undefined) return { part: { words: soughtIn(rest), not } };
  const asWords: Part = { words: [...soughtIn(name ?? ""), ...soughtIn(rest)], not };
  if (!isField(field)) return { part: asWords, unclear: `“${name}:” is no field; its words were looked for.` };
  const read = [...rest.matchAll(VALUE)].map((found) => readValue(field, found));
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

const wordsIn = (value: TermValue): readonly string[] => ("words" in value ? value.words : [""]);

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
