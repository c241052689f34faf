import { type SearchText, WEIGHTS } from "./entry";
import type { SoughtWord } from "./query";
import type { Slots } from "./slots";
import { slipsAllowed, slipsToBegin, wordsOf } from "../names/words";

/** Where a word stands: slots in the order in which they came, and the sum of its weights in each. */
interface Posting {
  readonly slots: number[];
  readonly weights: number[];
}

/** Constants of the ranking; see `rank`. */
const K1 = 1.2;
const B = 0.75;
/** What a word that nearly every preset has still counts for. */
const LEAST_IDF = 1e-6;

/** Words of one search whose slips are forgiven: each is held against every word that there is. */
export const MOST_CORRECTED = 4;

/** Which letters a word has, as bits; several letters share one. */
function lettersOf(word: string): number {
  let bits = 0;
  for (let at = 0; at < word.length; at++) bits |= 1 << (word.charCodeAt(at) & 31);
  return bits;
}

function bitsOf(bits: number): number {
  let count = 0;
  for (let left = bits; left !== 0; left &= left - 1) count += 1;
  return count;
}

const PARTS = Object.keys(WEIGHTS) as readonly (keyof SearchText)[];

export interface Corrected {
  readonly typed: string;
  readonly read: string;
}

/** An inverted index over the words of presets, with weights by where a word stands. */
export class TextTable {
  private readonly postings = new Map<string, Posting>();
  /** All words in order, for beginnings; sorted when next asked after a new one came. */
  private readonly words: string[] = [];
  private isSorted = true;
  /** Of each of the words, which letters it has: see `lettersOf`. */
  private letters = new Int32Array(0);
  /** Words of each slot; of a dead one, −1. */
  private lengths = new Int32Array(1024);
  private slots = 0;
  private live = 0;
  private total = 0;
  /** Of the word that is being weighed, where `stamps` has its number. */
  private weights = new Float64Array(1024);
  private stamps = new Int32Array(1024);
  private stamp = 0;
  /** Of the search that is under way, where `seen` counts its words from `base` on. */
  private ranks = new Float64Array(1024);
  private seen = new Int32Array(1024);
  private base = 0;

  /** Adds the words of the next slot. */
  add(text: SearchText): void {
    if (this.slots === this.lengths.length) this.grow();
    const slot = this.slots++;
    let length = 0;
    for (const part of PARTS)
      for (const word of wordsOf(text[part])) {
        length += 1;
        this.note(word, slot, WEIGHTS[part]);
      }
    this.lengths[slot] = length;
    this.total += length;
    this.live += 1;
  }

  /** A slot that no longer counts; its words stay until the table is made anew. */
  drop(slot: number): void {
    this.total -= this.lengths[slot]!;
    this.lengths[slot] = -1;
    this.live -= 1;
  }

  isLive(slot: number): boolean {
    return this.lengths[slot]! >= 0;
  }

  private grow(): void {
    const lengths = new Int32Array(this.lengths.length * 2);
    lengths.set(this.lengths);
    this.lengths = lengths;
    this.weights = new Float64Array(lengths.length);
    this.stamps = new Int32Array(lengths.length);
    this.ranks = new Float64Array(lengths.length);
    this.seen = new Int32Array(lengths.length);
    this.stamp = this.base = 0;
  }

  private note(word: string, slot: number, weight: number): void {
    const posting = this.postings.get(word);
    if (!posting) {
      this.postings.set(word, { slots: [slot], weights: [weight] });
      this.words.push(word);
      this.isSorted = false;
      return;
    }
    const last = posting.slots.length - 1;
    if (posting.slots[last] === slot) posting.weights[last]! += weight;
    else {
      posting.slots.push(slot);
      posting.weights.push(weight);
    }
  }

  /** The words of the table that a sought one means. */
  private meant({ word, whole }: SoughtWord): readonly string[] {
    if (whole) return this.postings.has(word) ? [word] : [];
    this.sortWords();
    const from = this.firstFrom(word);
    let to = from;
    while (to < this.words.length && this.words[to]!.startsWith(word)) to += 1;
    return this.words.slice(from, to);
  }

  private sortWords(): void {
    if (this.isSorted) return;
    this.words.sort();
    this.letters = Int32Array.from(this.words, lettersOf);
    this.isSorted = true;
  }

  private firstFrom(word: string): number {
    let [low, high] = [0, this.words.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.words[middle]! < word) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** The words that begin with the fewest slips as a sought one, where it has none of its own. */
  private nearest({ word }: SoughtWord): readonly string[] {
    let most = slipsAllowed(word);
    let nearest: string[] = [];
    if (most === 0) return nearest;
    this.sortWords();
    const letters = lettersOf(word);
    for (const [at, other] of this.words.entries()) {
      // A letter that the other has not is a slip by itself: most words are told by that alone.
      if (bitsOf(letters & ~this.letters[at]!) > most) continue;
      const slips = slipsToBegin(word, other, most);
      if (slips > most) continue;
      if (slips < most) nearest = [];
      most = slips;
      nearest.push(other);
    }
    return nearest;
  }

  /**
   * Every slot that has all sought words, and how well it has them: BM25 after S. Robertson and others, "Okapi at TREC-3"
   * (1994), each word's weights in the place of its count; higher is better. `rankOf` holds until the next search.
   */
  rank(sought: readonly SoughtWord[]): Slots & { rankOf: (slot: number) => number; corrected: readonly Corrected[] } {
    const { lists, corrected } = this.read(sought);
    let found: Slots = { slots: new Int32Array(0), count: 0 };
    for (const [at, words] of lists.entries()) {
      if (at > 0 && found.count === 0) break;
      found = this.addUp(this.weigh(words), at);
    }
    this.base += sought.length + 1;
    const list = this.ranks;
    return { ...found, rankOf: (slot) => list[slot]!, corrected };
  }

  /**
   * The words of the table that each sought one means, and which of those had slips. The rarest come first: where many
   * are sought, most slots are out before the words that all have are weighed, and where one means nothing, all are.
   */
  private read(sought: readonly SoughtWord[]) {
    const corrected: Corrected[] = [];
    const lists: (readonly string[])[] = [];
    for (const word of sought) {
      let meant = this.meant(word);
      if (meant.length === 0 && !word.whole && corrected.length < MOST_CORRECTED) {
        meant = this.nearest(word);
        const [read] = meant;
        if (read !== undefined) corrected.push({ typed: word.word, read });
      }
      if (meant.length === 0) return { lists: [meant], corrected };
      lists.push(meant);
    }
    const counts = new Map(lists.map((words) => [words, this.standing(words)]));
    return { lists: lists.toSorted((a, b) => counts.get(a)! - counts.get(b)!), corrected };
  }

  /** How often some words stand, in dead slots too. */
  private standing(words: readonly string[]): number {
    let count = 0;
    for (const word of words) count += this.postings.get(word)!.slots.length;
    return count;
  }

  /** 1 for each slot that has any of the words. */
  havingAny(sought: readonly SoughtWord[]): Uint8Array {
    const marks = new Uint8Array(this.slots);
    for (const one of sought)
      for (const word of this.meant(one)) for (const slot of this.postings.get(word)!.slots) marks[slot] = 1;
    return marks;
  }

  private weigh(words: readonly string[]): Slots {
    const stamp = ++this.stamp;
    const { weights, stamps, lengths } = this;
    const slots = new Int32Array(this.live);
    let count = 0;
    for (const word of words) {
      const posting = this.postings.get(word)!;
      for (let i = 0; i < posting.slots.length; i++) {
        const slot = posting.slots[i]!;
        if (lengths[slot]! < 0) continue;
        if (stamps[slot] === stamp) {
          weights[slot]! += posting.weights[i]!;
          continue;
        }
        stamps[slot] = stamp;
        weights[slot] = posting.weights[i]!;
        slots[count++] = slot;
      }
    }
    return { slots, count };
  }

  /** Ranks the hits of the word of number `at`, and keeps those that have all words before it too. */
  private addUp({ slots, count }: Slots, at: number): Slots {
    const idf = Math.max(LEAST_IDF, Math.log((this.live - count + 0.5) / (count + 0.5)));
    const mean = this.total / Math.max(1, this.live);
    const { weights, lengths, seen, base } = this;
    const list = this.ranks;
    let kept = 0;
    for (let i = 0; i < count; i++) {
      const slot = slots[i]!;
      if (at > 0 && seen[slot] !== base + at) continue;
      const weight = weights[slot]!;
      const score = (idf * weight * (K1 + 1)) / (weight + K1 * (1 - B + (B * lengths[slot]!) / mean));
      list[slot] = at === 0 ? score : list[slot]! + score;
      seen[slot] = base + at + 1;
      slots[kept++] = slot;
    }
    return { slots, count: kept };
  }
}
