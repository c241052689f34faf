import type { Knex } from "knex";
import type { Card } from "@/core/presets/preset";
import { type IndexEntry, type Inside, searchText, valuesOf } from "@/core/search/entry";
import { type Found, LibraryIndex, type Request } from "@/core/search/library-index";
import { type Field, type Query, parseQuery } from "@/core/search/query";
import type { ChangedRecord } from "../data/context";
import { statementsOf } from "../data/statements";
import type { Executor } from "../data/transaction";

interface IndexRow {
  readonly row: number;
  readonly id: string;
  readonly kind: string;
  readonly card: string;
  readonly inside: string;
  readonly pack: string | null;
  readonly folder: string | null;
  readonly sort_name: string;
  readonly saved_at: string;
  readonly touched_at: string;
  readonly binned_at: string | null;
  readonly used: number;
}

interface FolderRow {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
}

const COLUMNS = `p.row, p.id, p.kind, p.card, p.inside, p.pack, p.folder, p.sort_name, p.saved_at, p.touched_at, p.binned_at,
  EXISTS (SELECT 1 FROM uses u WHERE u.preset = p.id) AS used`;

/** Rows read in one go while the index is built: others get their turn between. */
const CHUNK = 2000;
/** Dead slots beyond this share are swept out by building anew. */
const MOST_WASTE = 0.5;

/** What a transaction changes in the index, read within it and taken once it is on disk. */
export interface Staged {
  readonly rows: readonly IndexRow[];
  readonly folders: readonly FolderRow[] | null;
  readonly uses: ReadonlyMap<string, ReadonlySet<string>>;
}

/**
 * The library's index, kept beside the database by the one process that writes it. It holds nothing that the database does
 * not: it is built when the store opens, and hears of every transaction.
 */
export class LibrarySearch {
  private index = new LibraryIndex();
  private folders: ReadonlyMap<string, FolderRow> = new Map();
  /** Which presets each project used when last looked at, by id. */
  private usesOf = new Map<string, ReadonlySet<string>>();

  async build(db: Knex): Promise<void> {
    const index = new LibraryIndex();
    this.folders = byId(await db<FolderRow>("folders").select("id", "name", "parent"));
    this.usesOf = usesByProject(await db<UseRow>("uses").distinct<UseRow[]>("project", "preset"));
    for (let after = 0; ; ) {
      const rows = await db.raw<IndexRow[]>(
        `SELECT ${COLUMNS} FROM presets p WHERE p.row > ? AND p.binned_at IS NULL ORDER BY p.row LIMIT ?`,
        [after, CHUNK],
      );
      for (const row of rows) index.put(this.entryOf(row));
      after = rows.at(-1)?.row ?? 0;
      if (rows.length < CHUNK) break;
    }
    this.index = index;
  }

  /** Reads what some records have become, within their transaction. */
  async stage(tx: Executor, records: readonly ChangedRecord[]): Promise<Staged> {
    const statement = await statementsOf(tx);
    const ids = new Set(records.filter((r) => r.kind === "preset").map((r) => r.id));
    const uses = new Map<string, ReadonlySet<string>>();
    for (const { kind, id } of records) {
      if (kind !== "project") continue;
      const before = this.usesOf.get(id) ?? new Set<string>();
      const now = new Set(
        (statement("SELECT DISTINCT preset FROM uses WHERE project = ?").all(id) as { preset: string }[]).map(
          (row) => row.preset,
        ),
      );
      uses.set(id, now);
      for (const preset of [...before, ...now]) if (before.has(preset) !== now.has(preset)) ids.add(preset);
    }
    const hasFolders = records.some((r) => r.kind === "folder");
    const folders = hasFolders ? (statement("SELECT id, name, parent FROM folders").all() as FolderRow[]) : null;
    // The name of a folder stands in the entries of all that is in it and below.
    const below = hasFolders ? statement(`SELECT ${COLUMNS} FROM presets p WHERE p.folder IS NOT NULL`).all() : [];
    const one = statement(`SELECT ${COLUMNS} FROM presets p WHERE p.id = ?`);
    const rows = [...ids].flatMap((id) => (one.get(id) as IndexRow | undefined) ?? []);
    return { rows: [...(below as IndexRow[]), ...rows], folders, uses };
  }

  take({ rows, folders, uses }: Staged): void {
    if (folders) this.folders = byId(folders);
    for (const [project, presets] of uses) this.usesOf.set(project, presets);
    for (const row of rows) {
      if (row.binned_at === null) this.index.put(this.entryOf(row));
      else this.index.remove(row.row);
    }
  }

  /** Builds anew in the background when too much of the index is dead. */
  get isWasteful(): boolean {
    return this.index.waste > MOST_WASTE && this.index.size > CHUNK;
  }

  find(request: Request): Found {
    return this.index.find(request);
  }

  /** Row numbers of the best hits for some words. */
  rowsOf(words: string, limit: number): readonly number[] {
    return this.find({ query: parseQuery(words), folders: null, sort: "rank", after: null, limit }).rows;
  }

  countAll(query: Query, field: Field): readonly (readonly [value: string, n: number])[] {
    return this.index.countAll(query, field);
  }

  /** A folder and all below it. */
  within(folder: string): ReadonlySet<string> {
    const found = new Set([folder]);
    for (let size = 0; size < found.size; ) {
      size = found.size;
      for (const { id, parent } of this.folders.values()) if (parent !== null && found.has(parent)) found.add(id);
    }
    return found;
  }

  private pathOf(folder: string | null): readonly string[] {
    const names: string[] = [];
    for (let at = this.folders.get(folder ?? ""); at; at = this.folders.get(at.parent ?? "")) names.push(at.name);
    return names;
  }

  private entryOf(row: IndexRow): IndexEntry {
    const card = JSON.parse(row.card) as Card;
    const inside = JSON.parse(row.inside) as Inside;
    return {
      row: row.row,
      text: searchText(card, inside),
      values: valuesOf(card, inside, {
        kind: row.kind,
        folder: this.pathOf(row.folder),
        year: row.saved_at.slice(0, 4),
        used: row.used === 1,
        pack: row.pack,
      }),
      folder: row.folder,
      sortName: row.sort_name,
      savedAt: Date.parse(row.saved_at),
      touchedAt: Date.parse(row.touched_at),
    };
  }
}

interface UseRow {
  readonly project: string;
  readonly preset: string;
}

const byId = (rows: readonly FolderRow[]): ReadonlyMap<string, FolderRow> => new Map(rows.map((row) => [row.id, row]));

function usesByProject(rows: readonly UseRow[]): Map<string, ReadonlySet<string>> {
  const uses = new Map<string, Set<string>>();
  for (const { project, preset } of rows) uses.set(project, (uses.get(project) ?? new Set()).add(preset));
  return uses;
}
