import type { Knex } from "knex";
import type { ChangedRecord, Note } from "../data/changes";
import { statementsOf } from "../data/statements";
import { indexWaiting } from "../repositories/preset-search";
import type { Staged } from "../search/library-search";
import type { StagedStrips } from "../search/strip-search";
import type { Context } from "./context";

/** Where more than so many things change at once, windows hear of their kinds only, and the index is built anew. */
const MOST_TOLD = 20_000;

function toldOf(records: readonly ChangedRecord[]): readonly ChangedRecord[] {
  if (records.length <= MOST_TOLD) return records;
  return [...new Set(records.map(({ kind }) => kind))].map((kind) => ({ kind, id: "" }));
}

/**
 * Does work in one transaction, which also gets its row in the change sequence. What the work notes is told to the other
 * windows once it is on disk. When the work throws, nothing has happened.
 */
export async function inTransaction<T>(
  context: Context,
  work: (tx: Knex.Transaction, note: Note) => Promise<T>,
): Promise<T> {
  const records: ChangedRecord[] = [];
  let seq = 0;
  let staged: Staged | null = null;
  let stagedStrips: StagedStrips = new Map();
  context.file.check();
  // A full disk ends a transaction by itself, and what is thrown for that it cannot be ended again hides why.
  let why: unknown = null;
  const result = await context.writer
    .transaction(async (tx) => {
      try {
        const value = await work(tx, (record) => records.push(record));
        await indexWaiting(tx);
        if (records.length > 0) {
          const insert = (await statementsOf(tx))("INSERT INTO changes (at, records) VALUES (?, ?)");
          seq = Number(insert.run(context.now().toISOString(), JSON.stringify(toldOf(records))).lastInsertRowid);
          if (records.length <= MOST_TOLD) staged = await context.search.stage(tx, records);
          stagedStrips = await context.strips.stage(tx, records);
        }
        return value;
      } catch (error) {
        why = error;
        throw error;
      }
    })
    .catch((error: unknown) => {
      throw why ?? error;
    });
  if (records.length === 0) return result;
  context.file.check();
  context.settle();
  // It is on disk by now: whatever happens here must not say that nothing was changed.
  if (staged) await takeIn(context, staged);
  else context.search.rebuild(context.db);
  context.strips.take(stagedStrips);
  context.events.emit("change", { seq, records: toldOf(records) });
  context.search.tidy(context.db);
  return result;
}

/** The index takes in what is on disk; where it cannot, it is built anew in the background, from there. */
async function takeIn({ search, db }: Context, staged: Staged): Promise<void> {
  try {
    await search.take(staged);
  } catch (error) {
    console.error(error);
    search.rebuild(db);
  }
}
