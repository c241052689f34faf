import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Tables } from "knex/types/tables";
import { afterEach, beforeEach, expect, it } from "vitest";
import { openDatabase } from "./database";

let folder: string;

beforeEach(() => (folder = mkdtempSync(join(tmpdir(), "diathesis-tables-"))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

type RowOf<T> = T extends { readonly base: infer Row } ? Row : T;

/** Every column by its type, which the compiler holds complete; whether it may be null. */
type Columns = {
  readonly [T in keyof Tables]: {
    readonly [C in keyof RowOf<Tables[T]>]: null extends RowOf<Tables[T]>[C] ? "null" : "given";
  };
};

const COLUMNS: Omit<Columns, "knex_migrations"> = {
  documents: { id: "given", body: "given" },
  folders: { id: "given", name: "given", parent: "null", changed_at: "given" },
  presets: {
    row: "given",
    id: "given",
    kind: "given",
    folder: "null",
    sort_name: "given",
    card: "given",
    card_revision: "given",
    inside: "given",
    pack: "null",
    pack_card: "null",
    version: "given",
    saved_at: "given",
    used_at: "null",
    touched_at: "given",
    binned_at: "null",
    merged_into: "null",
    filed_at: "given",
  },
  preset_versions: {
    preset: "given",
    version: "given",
    document: "given",
    fingerprint: "given",
    saved_at: "given",
    name: "null",
    based_on: "null",
  },
  preset_holds: { held: "given", preset: "given" },
  preset_references: { folder: "given", preset: "given" },
  loudness: { fingerprint: "given", lufs: "null" },
  projects: {
    id: "given",
    kind: "given",
    name: "given",
    artist: "given",
    client: "given",
    song: "given",
    tempo: "given",
    sample_rate: "given",
    starter: "given",
    strips: "given",
    revision: "given",
    changed_at: "given",
    draft_preset: "null",
    draft_version: "null",
    document: "given",
    binned_at: "null",
    kept_size: "given",
    unkept: "given",
  },
  moments: { id: "given", project: "given", n: "given", packed: "given" },
  project_strips: { row: "given", project: "given", strip: "given", body: "given", face: "given" },
  revisions: {
    project: "given",
    n: "given",
    at: "given",
    label: "given",
    steps: "given",
    undoes: "null",
    redoes: "null",
    window: "null",
    about: "null",
  },
  uses: { project: "given", strip: "given", preset: "given", version: "given" },
  library_log: {
    n: "given",
    at: "given",
    label: "given",
    steps: "given",
    undoes: "null",
    redoes: "null",
    closed: "given",
    window: "null",
    about: "null",
  },
  wrap_ups: { id: "given", project: "given", at: "given", passed_over: "given", log: "null", revision: "null" },
  media: { hash: "given", name: "given", seconds: "given", added_at: "given", bytes: "given" },
  changes: { seq: "given", at: "given", records: "given" },
  settings: { id: "given", revision: "given", body: "given" },
};

interface Column {
  readonly name: string;
  readonly notnull: 0 | 1;
  readonly pk: number;
}

it("are typed as the migrations leave them, column by column", async () => {
  const db = await openDatabase(folder, new Date("2026-11-27T10:00:00Z"));
  for (const [table, columns] of Object.entries(COLUMNS)) {
    const found = await db.raw<Column[]>(`PRAGMA table_info(${table})`);
    const said = found.map(({ name, notnull, pk }) => [name, notnull === 1 || pk > 0 ? "given" : "null"]);
    expect(Object.fromEntries(said), table).toEqual(columns);
  }
  const all = await db.raw<{ name: string }[]>(
    "SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE 'knex_%' AND name NOT LIKE 'preset_search%'",
  );
  expect(all.map(({ name }) => name).toSorted()).toEqual(Object.keys(COLUMNS).toSorted());
  await db.destroy();
});
