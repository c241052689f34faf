import type Database from "better-sqlite3";
import { FORM, type FiledFolder } from "@/core/archive/documents";
import { readCard } from "../data/stored";
import type {
  DocumentTable,
  FolderTable,
  LogTable,
  MediaTable,
  PresetTable,
  ProjectTable,
  RevisionTable,
  SettingsTable,
  VersionTable,
  WrapUpTable,
} from "../data/tables";
import { withStrips } from "../repositories/project-strips";

/*
 * What a library holds, as the documents of an archive: texts, read a few at a time from one moment of the file. What cannot be read is
 * handed on as it lies there, so that somebody can still make something of it.
 */

/** What of a library: null for all of a kind. */
export interface Chosen {
  readonly presets: ReadonlySet<string> | null;
  readonly projects: ReadonlySet<string> | null;
}

const CHUNK = 200;

/** Rows that are asked for some at a time, each time those behind a key. */
function* rowsBehind<Row, Key>(
  first: Key,
  some: (key: Key) => readonly Row[],
  keyOf: (row: Row) => Key,
): Generator<Row> {
  for (let key = first, rows = some(key); rows.length > 0; rows = some(key)) {
    yield* rows;
    key = keyOf(rows.at(-1)!);
  }
}

/** A document's text as it is; what is no JSON any more as a text within one. `isJson`: as the database says. */
const asJson = (body: string, isJson: number): string => (isJson === 1 ? body : JSON.stringify({ unreadable: body }));

/** An object's text with one more field, whose value is text already. */
const withField = (object: object, name: string, json: string): string =>
  `${JSON.stringify(object).slice(0, -1)},${JSON.stringify(name)}:${json}}`;

type PresetColumns = Pick<
  PresetTable,
  "row" | "id" | "pack" | "card" | "filed_at" | "binned_at" | "merged_into" | "used_at"
>;
type VersionColumns = Pick<VersionTable, "version" | "saved_at" | "name" | "based_on"> &
  Pick<DocumentTable, "body"> & { readonly isJson: number };

export interface GatheredPreset {
  readonly text: string;
  readonly versions: number;
}

const versionText = ({ version, saved_at, name, based_on, body, isJson }: VersionColumns): string =>
  withField({ version, savedAt: saved_at, name, basedOn: based_on }, "content", asJson(body, isJson));

const presetText = (row: PresetColumns, versions: readonly VersionColumns[], more: object): string =>
  withField(
    {
      diathesis: "preset",
      form: FORM,
      id: row.id,
      pack: row.pack,
      card: readCard(row.card),
      filedAt: row.filed_at,
      binnedAt: row.binned_at,
      mergedInto: row.merged_into,
      usedAt: row.used_at,
      ...more,
    },
    "versions",
    `[${versions.map(versionText).join(",")}]`,
  );

const PRESET = "SELECT row, id, pack, card, filed_at, binned_at, merged_into, used_at FROM presets";

const versionsOf = (db: Database.Database) =>
  db.prepare<[string], VersionColumns>(
    `SELECT v.version, v.saved_at, v.name, v.based_on, d.body, json_valid(d.body) AS isJson FROM preset_versions v
     JOIN documents d ON d.id = v.document WHERE v.preset = ? ORDER BY v.version`,
  );

/** Every chosen preset as one line of JSON, in the order in which they came. */
export function* gatherPresets(db: Database.Database, { presets }: Chosen): Generator<GatheredPreset> {
  const some = db.prepare<unknown[], PresetColumns>(`${PRESET} WHERE row > ? ORDER BY row LIMIT ?`);
  const versions = versionsOf(db);
  for (const row of rowsBehind(
    0,
    (key) => some.all(key, CHUNK),
    ({ row: key }) => key,
  )) {
    if (presets && !presets.has(row.id)) continue;
    const all = versions.all(row.id);
    yield { text: presetText(row, all, {}), versions: all.length };
  }
}

/** One preset as a file of its own, with the folders on the way to it; null where there is none. */
export function gatherPreset(db: Database.Database, id: string): string | null {
  const row = db.prepare<[string], PresetColumns>(`${PRESET} WHERE id = ?`).get(id);
  if (!row) return null;
  const card = readCard(row.card);
  const folders = foldersUpTo(gatherFolders(db), [card.folder, ...(card.alsoIn ?? [])]);
  return presetText(row, versionsOf(db).all(id), folders.length > 0 ? { folders } : {});
}

/** The folders that lead to some, the topmost first. */
export function foldersUpTo(all: readonly FiledFolder[], wanted: Iterable<string | null>): readonly FiledFolder[] {
  const byId = new Map(all.map((folder) => [folder.id, folder]));
  const way = new Set<FiledFolder>();
  for (const id of wanted) {
    const up: FiledFolder[] = [];
    for (let at = byId.get(id ?? ""); at && !way.has(at); at = byId.get(at.parent ?? "")) up.push(at);
    for (const folder of up.toReversed()) way.add(folder);
  }
  return [...way];
}

export const gatherFolders = (db: Database.Database): readonly FiledFolder[] =>
  db
    .prepare<[], FolderTable>("SELECT id, name, parent, changed_at FROM folders ORDER BY id")
    .all()
    .map(({ changed_at, ...folder }) => ({ ...folder, changedAt: changed_at }));

type ProjectColumns = Pick<
  ProjectTable,
  "id" | "kind" | "name" | "revision" | "changed_at" | "binned_at" | "draft_preset" | "draft_version"
> &
  Pick<DocumentTable, "body"> & { readonly strips: string | null };

export interface GatheredProject {
  readonly id: string;
  readonly name: string;
  readonly isDraft: boolean;
  readonly text: string;
}

function projectJson({ body, strips }: ProjectColumns): string {
  try {
    return JSON.stringify(withStrips(JSON.parse(body), JSON.parse(`[${strips ?? ""}]`)));
  } catch {
    return JSON.stringify({ unreadable: body, strips });
  }
}

/** Every chosen project; drafts only where all is chosen. */
export function* gatherProjects(db: Database.Database, { projects }: Chosen): Generator<GatheredProject> {
  const some = db.prepare<unknown[], ProjectColumns>(
    `SELECT p.id, p.kind, p.name, p.revision, p.changed_at, p.binned_at, p.draft_preset, p.draft_version, d.body,
       (SELECT group_concat(s.body) FROM project_strips s WHERE s.project = p.id) AS strips
     FROM projects p JOIN documents d ON d.id = p.document WHERE p.id > ? ORDER BY p.id LIMIT ?`,
  );
  for (const row of rowsBehind(
    "",
    (key) => some.all(key, CHUNK),
    ({ id }) => id,
  )) {
    const isDraft = row.kind === "draft";
    if (projects && (isDraft || !projects.has(row.id))) continue;
    const head = {
      diathesis: "project",
      form: FORM,
      revision: row.revision,
      changedAt: row.changed_at,
      binnedAt: row.binned_at,
      draft: isDraft ? { preset: row.draft_preset, version: row.draft_version } : null,
    };
    yield { id: row.id, name: row.name, isDraft, text: withField(head, "project", projectJson(row)) };
  }
}

/** The past of a project, a change in a line, the first one first. */
export function* gatherChanges(db: Database.Database, project: string): Generator<string> {
  const some = db.prepare<unknown[], Omit<RevisionTable, "project" | "about"> & { readonly isJson: number }>(
    `SELECT n, at, label, undoes, redoes, window, steps, json_valid(steps) AS isJson FROM revisions
     WHERE project = ? AND n > ? ORDER BY n LIMIT ?`,
  );
  const behind = (key: number) => some.all(project, key, CHUNK);
  for (const { steps, isJson, ...said } of rowsBehind(0, behind, ({ n }) => n))
    yield withField(said, "steps", asJson(steps, isJson));
}

/** The past of the library, an entry in a line, the first one first. */
export function* gatherEntries(db: Database.Database): Generator<string> {
  const some = db.prepare<unknown[], LogTable & { readonly isJson: number }>(
    "SELECT *, json_valid(steps) AS isJson FROM library_log WHERE n > ? ORDER BY n LIMIT ?",
  );
  for (const { steps, isJson, about, closed, ...said } of rowsBehind(
    0,
    (key) => some.all(key, CHUNK),
    ({ n }) => n,
  )) {
    const told = { ...said, closed: closed === 1, about: about === null ? null : (JSON.parse(about) as unknown) };
    yield withField(told, "steps", asJson(steps, isJson));
  }
}

export function* gatherWrapUps(db: Database.Database): Generator<string> {
  for (const row of db.prepare<[], WrapUpTable>("SELECT * FROM wrap_ups ORDER BY id").all()) {
    const { project, at, passed_over, log, revision } = row;
    yield JSON.stringify({ project, at, passedOver: JSON.parse(passed_over) as unknown, log, revision });
  }
}

export function gatherSettings(db: Database.Database): string {
  const row = db
    .prepare<[], Pick<SettingsTable, "revision" | "body"> & { readonly isJson: number }>(
      "SELECT revision, body, json_valid(body) AS isJson FROM settings",
    )
    .get();
  const head = { diathesis: "settings", form: FORM, revision: row?.revision ?? 0 };
  return withField(head, "settings", row ? asJson(row.body, row.isJson) : "{}");
}

export type MediaHead = Omit<MediaTable, "bytes">;

export const gatherMedia = (db: Database.Database): readonly MediaHead[] =>
  db.prepare<[], MediaHead>("SELECT hash, name, seconds, added_at FROM media ORDER BY hash").all();

export const mediaBytes = (db: Database.Database, hash: string): Buffer =>
  db.prepare<[string], Pick<MediaTable, "bytes">>("SELECT bytes FROM media WHERE hash = ?").get(hash)!.bytes;
