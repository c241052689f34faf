import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { openContext } from "../../src/server/store/open";
import { inTransaction } from "../../src/server/store/transaction";
import { insertPreset } from "../../src/server/repositories/presets";
import { DEMO_PRESETS } from "../../src/demo/library";
import { insideOf } from "../../src/core/library/inside";
import { wordsOf } from "../../src/core/names/words";
import { fingerprint } from "../../src/core/presets/fingerprint";
import { type Content, emptyCard } from "../../src/core/presets/preset";
import { searchText } from "../../src/core/search/entry";
import { DATABASE_FILE } from "../../src/server/data/library-file";
import { type Figure, ratioOf } from "./figure";

/** Where a write costs nothing, a durable write cannot be measured. */
export function onMemory(folder: string): boolean {
  const mounts = readFileSync("/proc/mounts", "utf8")
    .split("\n")
    .map((line) => line.split(" "));
  const [mount] = mounts
    .filter(([, at]) => at !== undefined && folder.startsWith(at))
    .toSorted((a, b) => (b[1]?.length ?? 0) - (a[1]?.length ?? 0));
  return mount?.[2] === "tmpfs" || mount?.[2] === "ramfs";
}

/** The same rows by prepared statements in one durable transaction: document, card, version, words, and that something changed. */
function rawSaver(folder: string, content: Content): () => number {
  const db = new Database(join(folder, DATABASE_FILE));
  db.pragma("synchronous = FULL");
  const document = db.prepare("INSERT INTO documents (body) VALUES (?)");
  const preset = db.prepare(
    `INSERT INTO presets (id, kind, folder, sort_name, card, inside, card_revision, version, saved_at, touched_at)
     VALUES (?, ?, NULL, ?, ?, ?, 1, 1, ?, ?)`,
  );
  const version = db.prepare(
    "INSERT INTO preset_versions (preset, version, document, fingerprint, saved_at) VALUES (?, 1, ?, ?, ?)",
  );
  const words = db.prepare(
    "INSERT INTO preset_search (rowid, name, tags, purpose, origin, notes) VALUES (?, ?, ?, ?, ?, ?)",
  );
  const told = db.prepare("INSERT INTO changes (at, records) VALUES (?, ?)");
  const [body, card, at] = [JSON.stringify(content), emptyCard("Bench"), new Date().toISOString()];
  const inside = insideOf(content);
  const { name, tags, purpose, origin, notes } = searchText(card, inside);
  const texts = [name, tags, purpose, origin, notes].map((text) => wordsOf(text).join(" "));
  const [cardText, insideText, print] = [JSON.stringify(card), JSON.stringify(inside), fingerprint(content)];
  let n = 0;
  return () => {
    const begin = performance.now();
    db.transaction(() => {
      const id = `raw-${n++}`;
      const { lastInsertRowid } = document.run(body);
      const { lastInsertRowid: row } = preset.run(id, content.kind, "bench", cardText, insideText, at, at);
      version.run(id, lastInsertRowid, print, at);
      words.run(row, ...texts);
      told.run(at, JSON.stringify([{ kind: "preset", id }]));
    })();
    return performance.now() - begin;
  };
}

/** One preset through the repository, search index included, durable ÷ the same rows raw in one durable transaction. */
export async function save(): Promise<Figure> {
  const folder = mkdtempSync(join(process.cwd(), ".bench-"));
  const RUNS = 60;
  const shared = { name: "save", op: "<=", goal: 2.5, unit: "ratio", runs: RUNS } as const;
  try {
    if (onMemory(folder)) return { ...shared, value: null, note: "a memory file system: refused" };
    const context = await openContext(folder);
    const content = DEMO_PRESETS[0]!.versions.at(-1)!;
    const raw = rawSaver(folder, content);
    const ours = async (): Promise<number> => {
      const begin = performance.now();
      await inTransaction(context, async (tx, note) => {
        const id = context.mint();
        await insertPreset(tx, { id, content, card: emptyCard("Bench"), at: context.now().toISOString() });
        note({ kind: "preset", id });
      });
      return performance.now() - begin;
    };
    // A server that has been up for a while has met this path before.
    for (let warm = 0; warm < 200; warm++) await ours();
    const value = await ratioOf(RUNS, ours, raw);
    await context.close();
    return { ...shared, value };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
