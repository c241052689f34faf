import type { IndexEntry, OrderedBy } from "./entry";
import { firstOf } from "./first-of";
import type { Field } from "./fields";
import type { Query } from "./query";
import type { Slots } from "./slots";
import { type Corrected, MOST_CORRECTED, TextTable } from "./text-table";
import { type Asked, type Counts, type Facets, ValueTable, type Wanted } from "./values";

export type Sort = "rank" | "used" | "saved" | "name" | keyof OrderedBy;

/** The last one of a page, behind which the next begins. */
export type Cursor = readonly [value: number | string, row: number];

export interface Request {
  readonly query: Query;
  /** Only these folders; null for all. */
  readonly folders: ReadonlySet<string> | null;
  readonly sort: Sort;
  readonly after: Cursor | null;
  /** Instead of a cursor: how many come before the page, for a list that is scrolled anywhere. */
  readonly offset?: number;
  readonly limit: number;
  /** False where nobody asks how many have which values: of long lists it is half the work. */
  readonly counted?: boolean;
}

export interface Found {
  /** Row numbers of the page, in order. */
  readonly rows: readonly number[];
  readonly total: number;
  readonly next: Cursor | null;
  /** Counted for a first page only, where that is asked for; later ones have the same. */
  readonly facets: Facets | null;
  /** Words that were read as others, because nothing begins with them. */
  readonly corrected: readonly Corrected[];
}

/** Behind every word, and before every time: what is not known stands last. */
const LAST = "\u{10ffff}";
const NOWHEN = Number.MIN_SAFE_INTEGER;
/** Values shown for each. */
const MOST_VALUES = 40;
/** Lists that are kept in order while they are scrolled. */
const KEPT_ORDERS = 4;

/**
 * All presets of a library in memory, to be searched, filtered, counted and paged. Entries are kept in slots: one that
 * changes gets a new slot, and the old one is dead until the index is made anew.
 */
export class LibraryIndex {
  private readonly text = new TextTable();
  private readonly values = new ValueTable();
  private readonly rows: number[] = [];
  private readonly names: string[] = [];
  private readonly folders: (string | null)[] = [];
  /** By slot, of those that lie in several. */
  private readonly alsoIn = new Map<number, readonly string[]>();
  private readonly saved: number[] = [];
  private readonly touched: number[] = [];
  private readonly by: (OrderedBy | undefined)[] = [];
  private readonly slotOf = new Map<number, number>();
  /** Whole lists in order, by what was asked; they hold until anything changes. */
  private readonly orders = new Map<string, Int32Array>();

  /** Presets in it. */
  get size(): number {
    return this.slotOf.size;
  }

  /** The share of slots that are dead, 0 to 1. */
  get waste(): number {
    return this.rows.length === 0 ? 0 : 1 - this.size / this.rows.length;
  }

  /** Adds a preset, or puts it in the place of what the index had of it. */
  put(entry: IndexEntry): void {
    this.orders.clear();
    this.remove(entry.row);
    this.slotOf.set(entry.row, this.rows.length);
    this.rows.push(entry.row);
    this.names.push(entry.sortName);
    if (entry.alsoIn && entry.alsoIn.length > 0) this.alsoIn.set(this.folders.length, entry.alsoIn);
    this.folders.push(entry.folder);
    this.saved.push(entry.savedAt);
    this.touched.push(entry.touchedAt);
    this.by.push(entry.by);
    this.text.add(entry.text);
    this.values.add(entry.values);
  }

  remove(row: number): void {
    this.orders.clear();
    const slot = this.slotOf.get(row);
    if (slot === undefined) return;
    this.slotOf.delete(row);
    this.text.drop(slot);
    this.values.drop(slot);
  }

  find(request: Request): Found {
    const { query, folders, sort, after, offset = 0, limit, counted = true } = request;
    if (offset > 0) return this.findAt(request, offset);
    const { slots, count, rankOf, corrected } = this.matching(query, folders);
    const order = this.orderBy(sort, rankOf);
    const page = pageOf({ slots, count }, order, after, limit);
    const last = page.at(-1);
    return {
      rows: page.map((slot) => this.rows[slot]!),
      total: count,
      next:
        last !== undefined && page.length === limit && page.length < count
          ? [order.value(last), this.rows[last]!]
          : null,
      facets: after || !counted ? null : this.values.facets({ slots, count }, MOST_VALUES),
      corrected,
    };
  }

  /** A page from anywhere in a list. The whole of it is put in order once, and kept for the pages around. */
  private findAt({ query, folders, sort, limit }: Request, offset: number): Found {
    const asked = JSON.stringify([query, folders && [...folders], sort]);
    const ordered = this.orders.get(asked) ?? this.inOrder(query, folders, sort);
    if (this.orders.size >= KEPT_ORDERS && !this.orders.has(asked)) this.orders.delete([...this.orders.keys()][0]!);
    this.orders.set(asked, ordered);
    const page = ordered.subarray(offset, offset + limit);
    return {
      rows: [...page].map((slot) => this.rows[slot]!),
      total: ordered.length,
      next: null,
      facets: null,
      corrected: [],
    };
  }

  private inOrder(query: Query, folders: Request["folders"], sort: Sort): Int32Array {
    const { slots, count, rankOf } = this.matching(query, folders);
    const before = beforeIn(this.orderBy(sort, rankOf));
    return slots.slice(0, count).sort(before);
  }

  /** Values of a field among what is asked for, each with how many have it. */
  countValues({ query, folders }: Pick<Request, "query" | "folders">, field: Field, wanted: Wanted): Counts {
    return this.values.count(this.matching(query, folders), field, wanted);
  }

  private matching({ words, not, terms }: Query, folders: ReadonlySet<string> | null) {
    const ranked = words.length > 0 ? this.text.rank(words) : null;
    const { slots, count: all } = ranked ?? this.all();
    let count = all;
    const read = ranked?.corrected ?? [];
    const asked = this.asking(terms, MOST_CORRECTED - read.length);
    for (const fits of this.fitting(asked, not, folders)) {
      let kept = 0;
      for (let i = 0; i < count; i++) if (fits(slots[i]!)) slots[kept++] = slots[i]!;
      count = kept;
    }
    return { slots, count, rankOf: ranked?.rankOf ?? null, corrected: [...read, ...asked.flatMap((a) => a.corrected)] };
  }

  /** Terms, ready to be asked; so many words of them may be read as others. What must not be there is taken as it is written. */
  private asking(terms: Query["terms"], forgive: number): readonly Asked[] {
    let left = forgive;
    return terms.map((term) => {
      const asked = this.values.ask(term, term.not ? 0 : left);
      left -= asked.corrected.length;
      return asked;
    });
  }

  /** What must hold for a slot: it is in one of the folders, says what is asked, and has none of the words. */
  private fitting(asked: readonly Asked[], not: Query["not"], folders: ReadonlySet<string> | null) {
    const without = not.length > 0 ? this.text.havingAny(not) : null;
    return [
      ...(folders
        ? [
            (slot: number) =>
              folders.has(this.folders[slot] ?? "") ||
              (this.alsoIn.get(slot)?.some((one) => folders.has(one)) ?? false),
          ]
        : []),
      ...asked.map((a) => (slot: number) => this.values.says(slot, a)),
      ...(without ? [(slot: number) => without[slot] !== 1] : []),
    ];
  }

  private all(): Slots {
    const slots = new Int32Array(this.size);
    let count = 0;
    for (let slot = 0; slot < this.rows.length; slot++) if (this.text.isLive(slot)) slots[count++] = slot;
    return { slots, count };
  }

  private orderBy(sort: Sort, rankOf: ((slot: number) => number) | null): Order {
    const rowOf = (slot: number) => this.rows[slot]!;
    const greatestFirst = (value: (slot: number) => number): Order => ({
      rowOf,
      value,
      compare: (a, b) => (b as number) - (a as number),
      rows: -1,
    });
    const newestFirst = (list: readonly number[]): Order => greatestFirst((slot) => list[slot]!);
    const byLetters = (value: (slot: number) => string): Order => ({
      rowOf,
      value,
      compare: (a, b) => (a < b ? -1 : a > b ? 1 : 0),
      rows: 1,
    });
    switch (sort) {
      case "saved":
        return newestFirst(this.saved);
      case "name":
        return byLetters((slot) => this.names[slot]!);
      case "folder":
        return byLetters((slot) => this.by[slot]?.folder ?? LAST);
      case "rating":
      case "origin":
      case "length":
      case "loudness":
        return greatestFirst((slot) => this.by[slot]?.[sort] ?? NOWHEN);
      case "used":
        return newestFirst(this.touched);
      case "rank":
        return rankOf ? greatestFirst(rankOf) : newestFirst(this.touched);
    }
  }
}

interface Order {
  readonly rowOf: (slot: number) => number;
  readonly value: (slot: number) => number | string;
  readonly compare: (a: number | string, b: number | string) => number;
  /** 1 where rows of one value stand from the oldest to the newest, −1 the other way round. */
  readonly rows: 1 | -1;
}

const beforeIn =
  ({ rowOf, value, compare, rows }: Order) =>
  (a: number, b: number): number =>
    compare(value(a), value(b)) || rows * (rowOf(a) - rowOf(b));

/** The first `limit` slots behind `after`, in order. */
function pageOf({ slots, count }: Slots, order: Order, after: Cursor | null, limit: number): readonly number[] {
  const { rowOf, value, compare, rows } = order;
  const isBehind = ([from, row]: Cursor, slot: number): boolean =>
    (compare(value(slot), from) || rows * (rowOf(slot) - row)) > 0;
  const all = slots.subarray(0, count);
  return firstOf(after ? all.filter((slot) => isBehind(after, slot)) : all, limit, beforeIn(order));
}
