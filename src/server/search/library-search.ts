import type { Knex } from "knex";
import { type IndexEntry, searchText, valuesOf, orderedBy } from "@/core/search/entry";
import type { Counts, Wanted } from "@/core/search/values";
import { type Found, LibraryIndex, type Request } from "@/core/search/library-index";
import type { Field } from "@/core/search/fields";
import { type Query, parseQuery } from "@/core/search/query";
import type { ChangedRecord } from "../data/changes";
import { type Statements, statementsOf } from "../data/statements";
import { readCard, readInside } from "../data/stored";
import type { FolderRecord } from "@/core/library/step";
import type { LoudnessTable, PresetTable, ProjectTable, UseTable } from "../data/tables";
import { messageOf } from "@/core/result";
import type { Executor } from "../data/executor";
import { takingTurns } from "../turns";

type IndexRow = Omit<PresetTable, "card_revision" | "version" | "merged_into"> &
  Pick<LoudnessTable, "lufs"> & {
    /** The names of the projects that use it, as JSON. */
    readonly projects: string;
    /** The pack of the sound that it was made out of. */
    readonly from_pack: string | null;
  };

const COLUMNS = `p.row, p.id, p.kind, p.card, p.inside, p.pack, p.folder, p.sort_name, p.saved_at, p.used_at, p.touched_at,
  p.binned_at,
  (SELECT json_group_array(DISTINCT j.name) FROM uses u JOIN projects j ON j.id = u.project WHERE u.preset = p.id) AS projects,
  (SELECT o.pack FROM presets o WHERE o.id = json_extract(p.card, '$.origin.from.preset')) AS from_pack,
  (SELECT l.lufs FROM preset_versions v JOIN loudness l ON l.fingerprint = v.fingerprint
   WHERE v.preset = p.id AND v.version = p.version) AS lufs`;

/** Rows read in one go. */
const CHUNK = 500;
/** Dead slots beyond this share are swept out by building anew. */
const MOST_WASTE = 0.5;

/** What a transaction changes in the index, read within it and taken once it is on disk. */
export interface Staged {
  readonly rows: readonly IndexRow[];
  readonly folders: readonly FolderRecord[] | null;
  readonly uses: ReadonlyMap<string, Uses>;
}

/** A project's name, and which presets it uses, by id. */
interface Uses {
  readonly name: string;
  readonly presets: ReadonlySet<string>;
}

/**
 * The library's index, kept beside the database by the one process that writes it. It holds nothing that the database does
 * not: it is built when the store opens, and hears of every transaction.
 */
export class LibrarySearch {
  private index = new LibraryIndex();
  /** The one that is to take its place, while it is being built. */
  private next: { readonly index: LibraryIndex; readonly changed: Set<number> } | null = null;
  private folders: ReadonlyMap<string, FolderRecord> = new Map();
  /** What each project used when last looked at. */
  private usesOf = new Map<string, Uses>();
  /** What was staged is taken in the order in which it was committed. */
  private taking: Promise<void> = Promise.resolve();
  private tidying: Promise<void> | null = null;

  /** Builds the index from what is on disk, in turns with others. What is taken meanwhile goes into it too. */
  async build(db: Knex): Promise<void> {
    this.folders = byId(await db("folders").select("id", "name", "parent"));
    this.usesOf = usesByProject(
      await db("uses as u").join("projects as j", "j.id", "u.project").distinct("u.project", "j.name", "u.preset"),
    );
    await this.fill(db);
  }

  private async fill(db: Knex): Promise<void> {
    const index = new LibraryIndex();
    const changed = new Set<number>();
    const turn = takingTurns();
    this.next = { index, changed };
    for (let after = 0; ; ) {
      const rows = await db.raw<IndexRow[]>(
        `SELECT ${COLUMNS} FROM presets p WHERE p.row > ? AND p.binned_at IS NULL ORDER BY p.row LIMIT ?`,
        [after, CHUNK],
      );
      for (const row of rows) {
        // What was taken since the row was read is newer than the row.
        if (!changed.has(row.row)) this.put(index, row);
        await turn();
      }
      after = rows.at(-1)?.row ?? 0;
      if (rows.length < CHUNK) break;
    }
    this.index = index;
    this.next = null;
  }

  /** Reads what some records have become, within their transaction. */
  async stage(tx: Executor, records: readonly ChangedRecord[]): Promise<Staged> {
    const statement = await statementsOf(tx);
    const of = (kind: ChangedRecord["kind"]) => new Set(records.filter((r) => r.kind === kind).map((r) => r.id));
    const uses = usesNow(statement, of("project"));
    const ids = new Set([...of("preset"), ...[...uses].flatMap(([project, now]) => this.usedOtherwise(project, now))]);
    const changed = of("folder");
    const folders = changed.size > 0 ? statement<FolderRecord>("SELECT id, name, parent FROM folders").all() : null;
    const rows = new Map<number, IndexRow>();
    const one = statement<IndexRow>(`SELECT ${COLUMNS} FROM presets p WHERE p.id = ?`);
    const turn = takingTurns();
    for (const id of ids) {
      const row = one.get(id);
      if (row) rows.set(row.row, row);
      await turn();
    }
    // The name of a folder stands in the entries of all that is in it and below.
    for (const folder of folders ? this.renamed(folders, changed) : [])
      for await (const row of rowsIn(statement, folder)) rows.set(row.row, row);
    return { rows: [...rows.values()], folders, uses };
  }

  /** Presets that a project uses now and did not, or the other way round; all of them where it is called otherwise. */
  private usedOtherwise(project: string, now: Uses): readonly string[] {
    const before = this.usesOf.get(project);
    const [was, is] = [before?.presets ?? new Set<string>(), now.presets];
    if (before && before.name !== now.name) return [...was, ...is];
    return [...was, ...is].filter((preset) => was.has(preset) !== is.has(preset));
  }

  /** Folders whose path is another by now: those of which one on the way up has a new name or stands elsewhere. */
  private renamed(rows: readonly FolderRecord[], changed: ReadonlySet<string>): readonly string[] {
    const now = byId(rows);
    const moved = new Set([...changed].filter((id) => this.folders.has(id) && now.has(id)));
    const onTheWay = (id: string | null): boolean => {
      for (let at = id; at !== null; at = now.get(at)?.parent ?? null) if (moved.has(at)) return true;
      return false;
    };
    return moved.size === 0 ? [] : rows.map((row) => row.id).filter(onTheWay);
  }

  /** Takes in what a transaction has changed, once it is on disk; resolves when it can be found. */
  take(staged: Staged): Promise<void> {
    const taken = this.taking.then(() => this.takeNow(staged));
    // One that fails does not keep those behind it from being taken.
    this.taking = taken.catch(() => undefined);
    return taken;
  }

  private async takeNow({ rows, folders, uses }: Staged): Promise<void> {
    const turn = takingTurns();
    if (folders) this.folders = byId(folders);
    for (const [project, now] of uses) this.usesOf.set(project, now);
    for (const row of rows) {
      for (const index of this.next ? [this.index, this.next.index] : [this.index])
        if (row.binned_at === null) this.put(index, row);
        else index.remove(row.row);
      this.next?.changed.add(row.row);
      await turn();
    }
  }

  /** Builds anew in the background when too much of the index is dead; nobody waits for it. */
  tidy(db: Knex): void {
    if (!this.tidying && this.index.waste > MOST_WASTE && this.index.size > CHUNK) this.rebuild(db);
  }

  /** Builds anew in the background, from what is on disk by then: behind a rebuilding that is under way. */
  rebuild(db: Knex): void {
    const built = (this.tidying ?? Promise.resolve())
      .then(() => this.build(db))
      .catch((error: unknown) => console.error(error))
      .finally(() => {
        if (this.tidying === built) this.tidying = null;
      });
    this.tidying = built;
  }

  /** Resolves when no rebuilding is under way. */
  async settled(): Promise<void> {
    await this.taking;
    await this.tidying;
  }

  find(request: Request): Found {
    return this.index.find(request);
  }

  /** Row numbers of the best hits for some words. */
  rowsOf(words: string, limit: number): readonly number[] {
    return this.find({ query: parseQuery(words), folders: null, sort: "rank", after: null, limit }).rows;
  }

  /** All values of a field among what is asked for, each with how many have it. */
  countAll(query: Query, field: Field): Counts {
    return this.index.countValues({ query, folders: null }, field, { most: Number.POSITIVE_INFINITY });
  }

  countValues(asked: Pick<Request, "query" | "folders">, field: Field, wanted: Wanted): Counts {
    return this.index.countValues(asked, field, wanted);
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

  /** One row that cannot be read is left out, and said where the server is watched; all others are found. */
  private put(index: LibraryIndex, row: IndexRow): void {
    try {
      index.put(this.entryOf(row));
    } catch (error) {
      console.error(`The card of the preset ${row.id} cannot be read: ${messageOf(error)}`);
    }
  }

  private entryOf(row: IndexRow): IndexEntry {
    const card = readCard(row.card);
    const inside = readInside(row.inside);
    const path = this.pathOf(row.folder);
    const also = card.alsoIn ?? [];
    return {
      row: row.row,
      text: searchText(card, inside),
      values: valuesOf(card, inside, {
        kind: row.kind,
        folder: also.length === 0 ? path : [...new Set([path, ...also.map((one) => this.pathOf(one))].flat())],
        pack: row.pack,
        fromPack: row.from_pack,
        projects: JSON.parse(row.projects) as string[],
        savedOn: row.saved_at.slice(0, 10),
        loudness: row.lufs,
        isChanged: row.used_at !== null && row.saved_at > row.used_at,
      }),
      folder: row.folder,
      alsoIn: also,
      sortName: row.sort_name,
      savedAt: Date.parse(row.saved_at),
      touchedAt: Date.parse(row.touched_at),
      by: orderedBy(card, inside, { path, loudness: row.lufs }),
    };
  }
}

function usesNow(statement: Statements, projects: ReadonlySet<string>): ReadonlyMap<string, Uses> {
  const used = statement<Pick<UseTable, "preset">>("SELECT DISTINCT preset FROM uses WHERE project = ?");
  const called = statement<Pick<ProjectTable, "name">>("SELECT name FROM projects WHERE id = ?");
  return new Map(
    [...projects].map((id) => [
      id,
      { name: called.get(id)?.name ?? "", presets: new Set(used.all(id).map((row) => row.preset)) },
    ]),
  );
}

/** What is in a folder, or referred to by it, in turns with others. */
async function* rowsIn(statement: Statements, folder: string): AsyncGenerator<IndexRow> {
  const inside = statement<IndexRow>(
    `SELECT ${COLUMNS} FROM presets p
     WHERE (p.folder = ? OR p.row IN (SELECT preset FROM preset_references WHERE folder = ?)) AND p.row > ?
     ORDER BY p.row LIMIT ?`,
  );
  const turn = takingTurns();
  for (let after = 0; ; await turn()) {
    const some = inside.all(folder, folder, after, CHUNK);
    yield* some;
    after = some.at(-1)?.row ?? 0;
    if (some.length < CHUNK) return;
  }
}

const byId = (rows: readonly FolderRecord[]): ReadonlyMap<string, FolderRecord> =>
  new Map(rows.map((row) => [row.id, row]));

function usesByProject(
  rows: readonly (Pick<UseTable, "project" | "preset"> & Pick<ProjectTable, "name">)[],
): Map<string, Uses> {
  const uses = new Map<string, { readonly name: string; readonly presets: Set<string> }>();
  for (const { project, name, preset } of rows) {
    const known = uses.get(project) ?? { name, presets: new Set() };
    known.presets.add(preset);
    uses.set(project, known);
  }
  return uses;
}
