import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { NewPresetsSchema } from "../../src/contracts/library";
import { insideOf } from "../../src/core/library/inside";
import { wordsOf } from "../../src/core/names/words";
import { searchText } from "../../src/core/search/entry";
import { openContext } from "../../src/server/store/open";
import { DATABASE_FILE } from "../../src/server/data/library-file";
import { savePresets } from "../../src/server/use-cases/library";
import { type Figure, median } from "./figure";
import { manyPresets } from "./many";

const COUNT = 10_000;
const TABLES = ["documents", "presets", "preset_versions", "preset_holds", "changes"];

/** The rows of a table as they can be inserted again. */
function rowsOf(db: Database.Database, table: string): readonly (readonly unknown[])[] {
  return db.prepare(`SELECT * FROM ${table}`).raw().all() as unknown[][];
}

/** Seconds for the same rows, full text included, by prepared statements in one transaction. */
function insertRaw(
  folder: string,
  tables: ReadonlyMap<string, readonly (readonly unknown[])[]>,
  texts: readonly string[][],
): number {
  const db = new Database(join(folder, DATABASE_FILE));
  db.pragma("journal_mode = WAL");
  db.pragma("synchronous = FULL");
  const begin = performance.now();
  db.transaction(() => {
    for (const [table, rows] of tables) {
      const [first] = rows;
      if (!first) continue;
      const insert = db.prepare(`INSERT INTO ${table} VALUES (${first.map(() => "?").join(", ")})`);
      for (const row of rows) insert.run(...row);
    }
    const text = db.prepare(
      "INSERT INTO preset_search (rowid, name, tags, purpose, origin, notes) VALUES (?, ?, ?, ?, ?, ?)",
    );
    for (const [at, words] of texts.entries()) text.run(BigInt(at + 1), ...words);
  })();
  const taken = performance.now() - begin;
  db.close();
  return taken;
}

/** 10,000 presets through validation into the library, its index in memory included ÷ raw inserts of the same rows. */
export async function importMany(): Promise<Figure> {
  const RUNS = 3;
  const presets = [...manyPresets(COUNT, [])].map(({ card, content }) => ({ kind: content.kind, content, card }));
  const body = JSON.stringify({ presets });
  const ratios: number[] = [];
  for (let run = 0; run < RUNS; run++) {
    const folder = mkdtempSync(join(process.cwd(), ".bench-"));
    const empty = mkdtempSync(join(process.cwd(), ".bench-"));
    try {
      const context = await openContext(folder);
      const begin = performance.now();
      const read = NewPresetsSchema.parse(JSON.parse(body));
      const saved = await savePresets(context, read);
      const ours = performance.now() - begin;
      if (!saved.ok) throw new Error(saved.error.message);
      await context.close();
      const filled = new Database(join(folder, DATABASE_FILE), { readonly: true });
      const tables = new Map(TABLES.map((table) => [table, rowsOf(filled, table)]));
      filled.close();
      await (await openContext(empty)).close();
      const texts = presets.map(({ card, content }) => {
        const { name, tags, purpose, origin, notes } = searchText(card, insideOf(content));
        return [name, tags, purpose, origin, notes].map((text) => wordsOf(text).join(" "));
      });
      ratios.push(ours / insertRaw(empty, tables, texts));
    } finally {
      rmSync(folder, { recursive: true, force: true });
      rmSync(empty, { recursive: true, force: true });
    }
  }
  return { name: "import", value: median(ratios), op: "<=", goal: 4, unit: "ratio", runs: RUNS };
}
