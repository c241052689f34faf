import { firstOf } from "./first-of";
import { FIELD_NAMES, type Field, type Term, type TermValue } from "./query";
import type { Slots } from "./slots";
import { fold, wordsOf } from "../names/words";

/** Grows by doubling. */
function grown<T extends Int32Array | Uint8Array>(list: T, needed: number): T {
  if (needed <= list.length) return list;
  const larger = new (list.constructor as new (length: number) => T)(Math.max(needed, list.length * 2));
  larger.set(list);
  return larger;
}

/** What a text says, ready to be asked often. */
interface Said {
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
    case "from":
      return ({ folded }) => Number(folded) >= value.least && Number(folded) <= value.most;
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

/** Facets that are counted for a list; names and folders of every preset would only be long. */
export const FACETS: readonly Field[] = FIELD_NAMES.filter((f) => f !== "name" && f !== "folder");
const OTHERS: readonly Field[] = FIELD_NAMES.filter((f) => !FACETS.includes(f));

/** A field's values, each with how often it stands. */
export type Counts = readonly (readonly [value: string, n: number])[];
export type Facets = Readonly<Record<Field, Counts>>;

/** A term, ready to be asked of many slots: 1 for each value that is wanted. */
export interface Asked {
  readonly marks: Uint8Array;
  readonly not: boolean;
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
      folded,
      words: wordsOf(text)
        .map((word) => ` ${word}`)
        .join(""),
    });
    return number;
  }

  ask({ field, not, values }: Term): Asked {
    const marks = new Uint8Array(this.texts.length);
    const says = askingFor(values);
    for (const number of this.fields.get(field)!.values()) if (says(this.said[number]!)) marks[number] = 1;
    return { marks, not };
  }

  says(slot: number, { marks, not }: Asked): boolean {
    const end = this.begins[2 * slot + 2]!;
    for (let i = this.begins[2 * slot]!; i < end; i++) if (marks[this.numbers[i]!] === 1) return !not;
    return not;
  }

  /** How often each value of one field stands in some slots: the most frequent first, texts in their order where they tie. */
  count(slots: Slots, field: Field, most: number): Counts {
    return this.mostFrequent(this.tally(slots, FACETS.includes(field) ? 1 : 2), field, most);
  }

  /** The most frequent values of every facet in some slots. */
  facets(slots: Slots, most: number): Facets {
    const counts = this.tally(slots, 1);
    return Object.fromEntries(FACETS.map((field) => [field, this.mostFrequent(counts, field, most)])) as Facets;
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

  private mostFrequent(counts: Int32Array, field: Field, most: number): Counts {
    const { texts } = this;
    const numbers: number[] = [];
    for (const number of this.fields.get(field)!.values()) if (counts[number]! > 0) numbers.push(number);
    const first = firstOf(numbers, most, (a, b) => counts[b]! - counts[a]! || (texts[a]! < texts[b]! ? -1 : 1));
    return first.map((number) => [texts[number]!, counts[number]!]);
  }
}
