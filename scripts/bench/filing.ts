import Database from "better-sqlite3";
import { join } from "node:path";
import { MOST_AT_ONCE } from "../../src/core/documents/limits";
import { withFields } from "../../src/core/library/step";
import { searchText } from "../../src/core/search/entry";
import { fold, wordsOf } from "../../src/core/names/words";
import { DATABASE_FILE } from "../../src/server/data/library-file";
import { readCard, readInside } from "../../src/server/data/stored";
import type { PresetTable } from "../../src/server/data/tables";
import type { OpenContext } from "../../src/server/store/context";
import { patchCards } from "../../src/server/use-cases/filing/cards";
import { listFolders } from "../../src/server/use-cases/filing/folders";
import { walkLibrary } from "../../src/server/use-cases/filing/history";
import { type Figure, median } from "./figure";

const timed = async (work: () => unknown): Promise<number> => {
  const begin = performance.now();
  await work();
  return performance.now() - begin;
};

type Row = Pick<PresetTable, "row" | "id" | "card" | "card_revision" | "inside">;

const rowsIn = (db: Database.Database): Row[] =>
  db
    .prepare<[number], Row>(
      "SELECT row, id, card, card_revision, inside FROM presets WHERE pack IS NULL ORDER BY row LIMIT ?",
    )
    .all(MOST_AT_ONCE);

/** The rows that such a change leaves, written by prepared statements and nothing else, durable. */
function rawBulk(db: Database.Database, name: string): number {
  const rows = rowsIn(db);
  const begin = performance.now();
  const update = db.prepare(
    "UPDATE presets SET card = ?, folder = ?, sort_name = ?, card_revision = card_revision + 1 WHERE id = ?",
  );
  const unindex = db.prepare("DELETE FROM preset_search WHERE rowid = ?");
  const index = db.prepare(
    "INSERT INTO preset_search (rowid, name, tags, purpose, origin, notes) VALUES (?, ?, ?, ?, ?, ?)",
  );
  const log = db.prepare("INSERT INTO library_log (at, label, steps) VALUES (?, ?, ?)");
  const told = db.prepare("INSERT INTO changes (at, records) VALUES (?, ?)");
  const at = new Date().toISOString();
  db.transaction(() => {
    const cards = rows.map(({ card }) => withFields(readCard(card), { purpose: name }));
    for (const [n, card] of cards.entries())
      update.run(JSON.stringify(card), card.folder, fold(card.name), rows[n]!.id);
    for (const { row } of rows) unindex.run(row);
    for (const [n, card] of cards.entries()) {
      const text = searchText(card, readInside(rows[n]!.inside));
      const words = [text.name, text.tags, text.purpose, text.origin, text.notes].map((part) =>
        wordsOf(part).join(" "),
      );
      index.run(BigInt(rows[n]!.row), ...words);
    }
    const steps = rows.map(({ id, card }) => ({
      kind: "card",
      preset: id,
      from: { purpose: readCard(card).purpose },
      to: { purpose: name },
    }));
    log.run(at, "Change", JSON.stringify(steps));
    told.run(at, JSON.stringify(rows.map(({ id }) => ({ kind: "preset", id }))));
  })();
  return performance.now() - begin;
}

/** 5,000 cards changed in one step ÷ the same rows raw; and how long that and its undo take. */
export async function bulkRows(context: OpenContext): Promise<readonly Figure[]> {
  const RUNS = 5;
  const raw = new Database(join(context.folder, DATABASE_FILE));
  raw.pragma("synchronous = FULL");
  const ratios: number[] = [];
  const taken: number[] = [];
  const undone: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const changes = rowsIn(raw).map(({ id, card_revision }) => ({
      id,
      baseCard: card_revision,
      card: { purpose: `run ${run}` },
    }));
    const ours = await timed(async () => {
      const done = await patchCards(context, { changes });
      if (!done.ok) throw new Error(done.error.message);
    });
    undone.push(await timed(() => walkLibrary(context, "undo")));
    taken.push(ours);
    ratios.push(ours / rawBulk(raw, `raw ${run}`));
  }
  raw.close();
  return [
    { name: "bulk-5k", value: median(ratios), op: "<=", goal: 4, unit: "ratio", runs: RUNS },
    { name: "bulk-5k-ms", value: median(taken), op: "<=", goal: 3000, unit: "ms", runs: RUNS },
    { name: "bulk-5k-undo-ms", value: median(undone), op: "<=", goal: 3000, unit: "ms", runs: RUNS },
  ];
}

/** 1,000 folders, 12 deep, with the counts of all. */
export async function treeRow(context: OpenContext): Promise<Figure> {
  const RUNS = 30;
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) times.push(await timed(() => listFolders(context)));
  return { name: "tree-1k", value: median(times), op: "<=", goal: 50, unit: "ms", runs: RUNS };
}
