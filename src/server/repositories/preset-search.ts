import type { Knex } from "knex";
import type { Card, Content } from "@/core/presets/preset";
import { heldPresets } from "@/core/presets/holds";
import { WEIGHTS, searchText } from "@/core/search/entry";
import type { Inside } from "@/core/library/inside";
import { wordsOf } from "@/core/names/words";
import { type Statements, statementsOf } from "../data/statements";
import type { Executor } from "../data/executor";
import type { PresetTable } from "../data/tables";
import { takingTurns } from "../turns";

/** Notes which presets one has inside. */
export function insertHeld(statement: Statements, row: number | bigint, content: Content): void {
  for (const held of heldPresets(content))
    statement("INSERT INTO preset_holds (held, preset) VALUES (?, ?)").run(held, row);
}

/** Notes anew which folders refer to a preset. */
export function referAgain(statement: Statements, row: number | bigint, { alsoIn = [] }: Pick<Card, "alsoIn">): void {
  statement("DELETE FROM preset_references WHERE preset = ?").run(row);
  for (const folder of alsoIn)
    statement("INSERT INTO preset_references (folder, preset) VALUES (?, ?)").run(folder, row);
}

const UNINDEX = "DELETE FROM preset_search WHERE rowid = ?";

/** Notes anew which presets one has inside. */
export function holdAgain(statement: Statements, row: number, content: Content): void {
  statement("DELETE FROM preset_holds WHERE preset = ?").run(row);
  insertHeld(statement, row, content);
}

const WAITING = new WeakMap<Executor, Map<number, { readonly card: Card; readonly inside: Inside }>>();

/**
 * Has the words of a card indexed at the end of the transaction. FTS5 writes down what it holds back whenever a statement sets
 * a savepoint, as its own deletes and updates with a foreign key do; one card at a time that is a segment each, and merging
 * thousands of them takes longer than all the rest. So everything is taken out first, and then put in, in the order of the
 * rows: one that comes before the last is written down at once, too.
 */
export function indexLater(tx: Executor, row: number, card: Card, inside: Inside): void {
  const waiting = WAITING.get(tx) ?? new Map<number, { card: Card; inside: Inside }>();
  WAITING.set(tx, waiting.set(row, { card, inside }));
}

/** Indexes what waits for it: the last act of a transaction. */
export async function indexWaiting(tx: Executor): Promise<void> {
  const waiting = WAITING.get(tx);
  if (!waiting) return;
  WAITING.delete(tx);
  const statement = await statementsOf(tx);
  const turn = takingTurns();
  const rows = [...waiting.keys()].toSorted((a, b) => a - b);
  for (const row of rows) {
    statement(UNINDEX).run(row);
    await turn();
  }
  for (const row of rows) {
    const { card, inside } = waiting.get(row)!;
    insertIndex(statement, row, card, inside);
    await turn();
  }
}

/** Pages that are merged in one go: some ten milliseconds' work. */
const MERGED_AT_ONCE = 16;

/**
 * Merges a little of what transactions have added to the durable index each by itself; false when nothing is left to do. FTS5
 * would do it in the middle of an insert, whenever enough has come together: of a large library for more than a second.
 */
export function mergeSome(db: Knex): Promise<boolean> {
  return db.transaction(async (tx) => {
    const statement = await statementsOf(tx);
    const changes = () => statement<{ n: number }>("SELECT total_changes() AS n").get()?.n ?? 0;
    const before = changes();
    statement(`INSERT INTO preset_search (preset_search, rank) VALUES ('merge', ${MERGED_AT_ONCE})`).run();
    return changes() - before > 1;
  });
}

export function insertIndex(statement: Statements, row: number | bigint, card: Card, inside: Inside): void {
  const { name, tags, purpose, origin, notes } = searchText(card, inside);
  statement("INSERT INTO preset_search (rowid, name, tags, purpose, origin, notes) VALUES (?, ?, ?, ?, ?, ?)").run(
    BigInt(row),
    ...[name, tags, purpose, origin, notes].map(asWords),
  );
}

/** The words as the search takes them: which letters are one, and what is a word, is decided in one place. */
const asWords = (text: string): string => wordsOf(text).join(" ");

/** Every word of the search must begin a word of the card; null for a search without words. */
export function matchExpression(words: readonly string[]): string | null {
  return words.length === 0 ? null : words.map((word) => `"${word}"*`).join(" ");
}

/** Rows by the durable text index, best first: what the index in memory is held against. The weights are its own. */
export async function searchDurably(db: Executor, words: readonly string[], limit: number): Promise<readonly number[]> {
  const match = matchExpression(words);
  if (match === null) return [];
  const rows = await db("presets as p")
    .whereNull("p.binned_at")
    .joinRaw("JOIN preset_search s ON s.rowid = p.row")
    .whereRaw("preset_search MATCH ?", [match])
    .orderByRaw(`bm25(preset_search, ${Object.values(WEIGHTS).join(", ")}), p.row DESC`)
    .limit(limit)
    .select<Pick<PresetTable, "row">[]>("p.row");
  return rows.map(({ row }) => row);
}
