import { firstOf } from "./first-of";
import { FIELD_NAMES, type Field } from "./fields";
import type { Term, TermValue } from "./query";
import type { Slots } from "./slots";
import type { Corrected } from "./text-table";
import { fold, isUnspaced, slipsAllowed, slipsToBegin, wordsOf } from "../names/words";
import { isWithin, measureOf } from "./spans";

/** Grows by doubling. */
function grown<T extends Int32Array | Uint8Array>(list: T, needed: number): T {
  if (needed <= list.length) return list;
  const larger = new (list.constructor as new (length: number) => T)(Math.max(needed, list.length * 2));
  larger.set(list);
  return larger;
}

/** What a text says, ready to be asked often. */
interface Said {
  readonly text: string;
  readonly folded: string;
  /** Its words, each with a space before it. */
  readonly words: string;
}

/** Whether a text says a value. */
function asking(value: TermValue): (said: Said) => boolean {
  switch (value.is) {
    case "exactly":
      return ({ folded }) => folded === value.text;
    case "words": {
      const sought = value.words.map((word) => ` ${word}`);
      return ({ words }) => sought.every((word) => words.includes(word));
    }
    case "phrase": {
      const phrase = value.words.map((word) => ` ${word}`).join("");
      // A pair of letters of a longer run is followed by another that begins with its last.
      const end = isUnspaced(value.words.at(-1) ?? "") ? "" : " ";
      return ({ words }) => `${words} `.includes(phrase + end);
    }
    case "within":
      return ({ text }) => isWithin(measureOf(text), value);
    case "any":
      return () => true;
  }
}

/** Whether a text has a word that begins with one of those sought: each of its words is held against those of its letter only. */
function askingAny(sought: readonly string[]): (said: Said) => boolean {
  const byLetter = new Map<string, string[]>();
  for (const word of sought) {
    const alike = byLetter.get(word[0] ?? "");
    if (alike) alike.push(word);
    else byLetter.set(word[0] ?? "", [word]);
  }
  return ({ words }) => {
    for (let at = 1; at > 0; at = words.indexOf(" ", at) + 1)
      if (byLetter.get(words[at] ?? "")?.some((word) => words.startsWith(word, at))) return true;
    return false;
  };
}

/** Whether a text says any of some values. */
function askingFor(values: readonly TermValue[]): (said: Said) => boolean {
  const single = values.flatMap((value) => (value.is === "words" && value.words.length === 1 ? value.words : []));
  const others = values.filter((value) => value.is !== "words" || value.words.length !== 1).map(asking);
  const any = askingAny(single);
  return (said) => any(said) || others.some((says) => says(said));
}

/** Fields of which every preset says something else: nobody chooses from such a list. */
const UNCOUNTED: readonly Field[] = ["name", "folder", "notes", "saved", "from", "in", "loudness", "decay", "tempo"];
/** Fields that are counted for a list. */
export const FACETS: readonly Field[] = FIELD_NAMES.filter((f) => !UNCOUNTED.includes(f));
const OTHERS: readonly Field[] = FIELD_NAMES.filter((f) => !FACETS.includes(f));

/** A field's values, each with how often it stands. */
export type Counts = readonly (readonly [value: string, n: number])[];
export type Facets = Readonly<Record<Field, Counts>>;

/** Which values of a field are wanted: those that have words beginning so, in an order, as many. */
export interface Wanted {
  readonly begun?: readonly string[];
  readonly order?: "count" | "name";
  readonly most: number;
}

/** A term, ready to be asked of many slots: 1 for each value that is wanted. */
export interface Asked {
  readonly marks: Uint8Array;
  readonly not: boolean;
  /** Words that were read as others, since no value of the field has one that begins so. */
  readonly corrected: readonly Corrected[];
}

/**
 * What the fields of each slot say. Values of all fields are numbered together, and a slot is a row of such numbers,
 * facets first, so that what is counted is read in one go. A slot is written once, behind the last; one that changes gets
 * a new slot.
 */
export class ValueTable {
  private readonly texts: string[] = [];
  private readonly said: Said[] = [];
  /** The numbers of each field's values. */
  private readonly fields: ReadonlyMap<Field, Map<string, number>> = new Map(FIELD_NAMES.map((f) => [f, new Map()]));
  /** Where the row of slot s begins, at 2s, and where its facets end, at 2s + 1. The row ends where the next begins. */
  private begins: Int32Array = new Int32Array(2048);
  private numbers: Int32Array = new Int32Array(4096);
  private slots = 0;
  /** 1 for each slot that counts. */
  private live: Uint8Array = new Uint8Array(1024);
  private size = 0;
  /** The words of each field's values, as of so many values. */
  private readonly vocabularies = new Map<Field, { readonly size: number; readonly words: ReadonlySet<string> }>();
  /** How often each value stands in the slots that count. */
  private totals: Int32Array = new Int32Array(1024);

  add(values: Readonly<Partial<Record<Field, readonly string[]>>>): void {
    this.begins = grown(this.begins, 2 * this.slots + 3);
    const begin = this.begins[2 * this.slots]!;
    const facetsEnd = this.write(FACETS, values, begin);
    this.begins[2 * this.slots + 1] = facetsEnd;
    this.begins[2 * this.slots + 2] = this.write(OTHERS, values, facetsEnd);
    this.totals = grown(this.totals, this.texts.length);
    this.live = grown(this.live, this.slots + 1);
    this.countIn(this.slots, this.totals, 2, 1);
    this.live[this.slots] = 1;
    this.size += 1;
    this.slots += 1;
  }

  /** A slot that no longer counts. */
  drop(slot: number): void {
    if (this.live[slot] !== 1) return;
    this.live[slot] = 0;
    this.size -= 1;
    this.countIn(slot, this.totals, 2, -1);
  }

  /** Adds `by` for each value of a slot. `upTo`: 1 for its facets, 2 for all of it. */
  private countIn(slot: number, counts: Int32Array, upTo: 1 | 2, by: 1 | -1): void {
    const { begins, numbers } = this;
    const end = begins[2 * slot + upTo]!;
    for (let i = begins[2 * slot]!; i < end; i++) counts[numbers[i]!]! += by;
  }

  private write(fields: readonly Field[], values: Parameters<ValueTable["add"]>[0], from: number): number {
    let at = from;
    for (const field of fields) {
      const texts = values[field] ?? [];
      this.numbers = grown(this.numbers, at + texts.length);
      for (const text of texts) this.numbers[at++] = this.numberOf(field, text);
    }
    return at;
  }

  private numberOf(field: Field, text: string): number {
    const known = this.fields.get(field)!;
    const found = known.get(text);
    if (found !== undefined) return found;
    const number = this.texts.length;
    known.set(text, number);
    this.texts.push(text);
    const folded = fold(text);
    this.said.push({
      text,
      folded,
      words: wordsOf(text)
        .map((word) => ` ${word}`)
        .join(""),
    });
    return number;
  }

  /** `forgive`: how many words may be read as others, where no value of the field has one that begins so. */
  ask({ field, not, values }: Term, forgive = 0): Asked {
    const corrected: Corrected[] = [];
    const read = values.map((value) => {
      if (value.is !== "words" || forgive === 0) return value;
      const words = value.words.map((word) => {
        const other = corrected.length < forgive ? this.nearest(field, word) : null;
        if (other !== null) corrected.push({ typed: word, read: other });
        return other ?? word;
      });
      return { ...value, words };
    });
    const marks = new Uint8Array(this.texts.length);
    const says = askingFor(read);
    for (const number of this.fields.get(field)!.values()) if (says(this.said[number]!)) marks[number] = 1;
    return { marks, not, corrected };
  }

  /** The word of a field that another begins with the fewest slips; null where one begins so as it is, and where none is near. */
  private nearest(field: Field, word: string): string | null {
    let most = slipsAllowed(word);
    let nearest: string | null = null;
    if (most === 0) return null;
    for (const other of this.wordsIn(field)) {
      if (other.startsWith(word)) return null;
      const slips = slipsToBegin(word, other, most);
      if (slips > most || (nearest !== null && slips === most)) continue;
      most = slips;
      nearest = other;
    }
    return nearest;
  }

  /** Every word of a field's values, once; kept until the field has another value. */
  private wordsIn(field: Field): ReadonlySet<string> {
    const { size } = this.fields.get(field)!;
    const known = this.vocabularies.get(field);
    if (known?.size === size) return known.words;
    const words = new Set<string>();
    for (const number of this.fields.get(field)!.values())
      for (const word of this.said[number]!.words.split(" ")) if (word !== "") words.add(word);
    this.vocabularies.set(field, { size, words });
    return words;
  }

  says(slot: number, { marks, not }: Pick<Asked, "marks" | "not">): boolean {
    const end = this.begins[2 * slot + 2]!;
    for (let i = this.begins[2 * slot]!; i < end; i++) if (marks[this.numbers[i]!] === 1) return !not;
    return not;
  }

  /** How often each value of one field stands in some slots: the most frequent first, texts in their order where they tie, or by their names. */
  count(slots: Slots, field: Field, wanted: Wanted): Counts {
    return this.firstValues(this.tally(slots, FACETS.includes(field) ? 1 : 2), field, wanted);
  }

  /** The most frequent values of every facet in some slots. */
  facets(slots: Slots, most: number): Facets {
    const counts = this.tally(slots, 1);
    return Object.fromEntries(FACETS.map((field) => [field, this.firstValues(counts, field, { most })])) as Facets;
  }

  /**
   * Counts by number of value in some of the slots that count; of other fields than `upTo` says, 1 for the facets, 2 for all,
   * they mean nothing. Of more than half of them the rest is counted off the totals, and nothing may change the list.
   */
  private tally({ slots, count }: Slots, upTo: 1 | 2): Int32Array {
    if (count === this.size) return this.totals;
    if (2 * count > this.size) return this.tallyRest({ slots, count }, upTo);
    const counts = new Int32Array(this.texts.length);
    for (let s = 0; s < count; s++) this.countIn(slots[s]!, counts, upTo, 1);
    return counts;
  }

  private tallyRest({ slots, count }: Slots, upTo: 1 | 2): Int32Array {
    const isRest = this.live.slice(0, this.slots);
    for (let s = 0; s < count; s++) isRest[slots[s]!] = 0;
    const counts = this.totals.slice();
    for (let slot = 0; slot < this.slots; slot++) if (isRest[slot] === 1) this.countIn(slot, counts, upTo, -1);
    return counts;
  }

  private firstValues(counts: Int32Array, field: Field, { begun = [], order = "count", most }: Wanted): Counts {
    const { texts, said } = this;
    const sought = begun.map((word) => ` ${word}`);
    const numbers: number[] = [];
    for (const number of this.fields.get(field)!.values())
      if (counts[number]! > 0 && sought.every((word) => said[number]!.words.includes(word))) numbers.push(number);
    const byName = (a: number, b: number) => {
      const [one, other] = order === "name" ? [said[a]!.folded, said[b]!.folded] : [texts[a]!, texts[b]!];
      return one < other ? -1 : one > other ? 1 : a - b;
    };
    const before = (a: number, b: number) => (order === "name" ? 0 : counts[b]! - counts[a]!) || byName(a, b);
    return firstOf(numbers, most, before).map((number) => [texts[number]!, counts[number]!]);
  }
}
