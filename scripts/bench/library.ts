import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import type { OpenContext } from "../../src/server/store/context";
import { openContext } from "../../src/server/store/open";
import { DATABASE_FILE } from "../../src/server/data/library-file";
import { inTransaction } from "../../src/server/store/transaction";
import { insertFolder } from "../../src/server/repositories/folders";
import { insertPreset } from "../../src/server/repositories/presets";
import { searchDurably } from "../../src/server/repositories/preset-search";
import { findPresets } from "../../src/server/use-cases/find-presets";
import { bulkRows, treeRow } from "./filing";
import { type Figure, median, percentile } from "./figure";
import { manyPresets } from "./many";

/** Presets of the large library. */
export const MANY = 100_000;
const CHUNK = 500;
const TOP = 12;
/** A thousand, twelve deep. */
const FOLDERS = Array.from({ length: 1000 }, (_, n) => ({
  id: `f${n}`,
  name: `Folder ${n}`,
  parent: n < TOP ? null : `f${Math.floor(n * 0.67)}`,
}));
/** A quarter of all lies in it and below it. */
const LARGE = "f8";

/** So many presets and their folders, through the repository. */
export async function fill(context: OpenContext, count: number): Promise<void> {
  await inTransaction(context, async (tx) => {
    for (const folder of FOLDERS) await insertFolder(tx, folder, context.now().toISOString());
  });
  let chunk: Parameters<typeof insertPreset>[1][] = [];
  const write = async () => {
    const rows = chunk;
    chunk = [];
    await inTransaction(context, async (tx) => {
      for (const row of rows) await insertPreset(tx, row);
    });
  };
  for (const made of manyPresets(
    count,
    FOLDERS.map((f) => f.id),
  )) {
    chunk.push(made);
    if (chunk.length === CHUNK) await write();
  }
  await write();
}

/** What is typed: beginnings of one, two and three letters, and a word with two letters of the next. */
const TYPED = [
  "v",
  "c",
  "w",
  "ca",
  "vo",
  "ha",
  "cel",
  "war",
  "qua",
  "lor",
  "voice cl",
  "cello wa",
  "brass da",
  "room op",
];

const timed = async (work: () => unknown): Promise<number> => {
  const begin = performance.now();
  await work();
  return performance.now() - begin;
};

async function searchRows(context: OpenContext, raw: Database.Database): Promise<readonly Figure[]> {
  const durable = raw.prepare(
    `SELECT p.row FROM presets p JOIN preset_search s ON s.rowid = p.row
     WHERE preset_search MATCH ? AND p.binned_at IS NULL ORDER BY bm25(preset_search, 10, 4, 2, 1), p.row DESC LIMIT 60`,
  );
  const match = (q: string) =>
    q
      .split(" ")
      .map((word) => `"${word}"*`)
      .join(" ");
  const [ours, theirs, overlaps]: [number[], number[], number[]] = [[], [], []];
  for (let round = 0; round < 5; round++)
    for (const q of TYPED) {
      ours.push(await timed(() => findPresets(context, { q, limit: 60 })));
      theirs.push(await timed(() => durable.all(match(q))));
    }
  for (const q of TYPED) {
    const top = new Set(await searchDurably(context.db, q.split(" "), 20));
    const found = context.search.rowsOf(q, 20);
    overlaps.push(found.filter((row) => top.has(row)).length / Math.max(1, top.size));
  }
  const runs = ours.length;
  const p95 = percentile(ours, 0.95);
  return [
    { name: "search-100k", value: p95 / percentile(theirs, 0.95), op: "<=", goal: 0.2, unit: "ratio", runs },
    { name: "search-100k-ms", value: p95, op: "<=", goal: 15, unit: "ms", runs },
    {
      name: "search-overlap",
      value: overlaps.reduce((a, b) => a + b, 0) / overlaps.length,
      op: ">=",
      goal: 0.8,
      unit: "share",
      runs: overlaps.length,
    },
  ];
}

/** Counts of every facet with the page, ÷ five counts by SQL. */
async function facetRow(context: OpenContext, raw: Database.Database): Promise<Figure> {
  const counts = [
    "kind",
    "folder",
    "substr(saved_at, 1, 4)",
    "json_extract(card, '$.rating')",
    "json_extract(card, '$.origin.artist')",
  ].map((column) =>
    raw.prepare(
      `SELECT ${column} AS v, count(*) AS n FROM presets p JOIN preset_search s ON s.rowid = p.row
         WHERE preset_search MATCH ? AND p.binned_at IS NULL GROUP BY v`,
    ),
  );
  const ratios: number[] = [];
  for (const q of [...TYPED, ...TYPED]) {
    const ours = await timed(() => findPresets(context, { q, limit: 1 }));
    const theirs = await timed(() => counts.map((count) => count.all(`"${q.split(" ")[0]}"*`)));
    ratios.push(ours / theirs);
  }
  return { name: "facets-100k", value: median(ratios), op: "<=", goal: 0.1, unit: "ratio", runs: ratios.length };
}

/** A page of a folder with all below it ÷ the same by a raw prepared statement. */
async function pageRow(context: OpenContext, raw: Database.Database): Promise<Figure> {
  const ids = [...context.search.within(LARGE)];
  const page = raw.prepare(
    `SELECT p.row, p.id, p.kind, p.card, p.card_revision, p.version, p.saved_at, p.used_at, d.body FROM presets p
     JOIN preset_versions v ON v.preset = p.id AND v.version = p.version JOIN documents d ON d.id = v.document
     WHERE p.folder IN (${ids.map(() => "?").join(", ")}) AND p.binned_at IS NULL ORDER BY p.touched_at DESC, p.row DESC LIMIT 60`,
  );
  const ratios: number[] = [];
  for (let round = 0; round < 30; round++) {
    const ours = await timed(() => findPresets(context, { folder: LARGE, limit: 60 }));
    ratios.push(ours / (await timed(() => page.all(...ids))));
  }
  return { name: "page-100k", value: median(ratios), op: "<=", goal: 2, unit: "ratio", runs: ratios.length };
}

/** Everything that is measured with 100,000 presets, in one library that is thrown away afterwards. */
export async function largeLibrary(): Promise<readonly Figure[]> {
  const folder = mkdtempSync(join(process.cwd(), ".bench-"));
  try {
    let context = await openContext(folder);
    await fill(context, MANY);
    await context.close();
    // As it is found when it is opened: built from what is on disk.
    context = await openContext(folder);
    // SQLite's own search as fast as it can be: its index in one part.
    await context.writer.raw("INSERT INTO preset_search (preset_search) VALUES ('optimize')");
    const raw = new Database(join(folder, DATABASE_FILE), { readonly: true });
    const figures: Figure[] = [
      ...(await searchRows(context, raw)),
      await facetRow(context, raw),
      await pageRow(context, raw),
      {
        name: "memory-100k",
        value: process.memoryUsage().rss / 1e6,
        op: "<=",
        goal: 600,
        unit: "MB",
        runs: 1,
      } as const,
    ];
    raw.close();
    figures.push(await treeRow(context), ...(await bulkRows(context)));
    await context.close();
    return figures;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
