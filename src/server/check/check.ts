import { createHash } from "node:crypto";
import { join } from "node:path";
import Database from "better-sqlite3";
import equal from "fast-deep-equal";
import { parseWith } from "@/core/documents/problem";
import { readWav } from "@/core/formats/wav/wav";
import { insideOf } from "@/core/library/inside";
import { fingerprint } from "@/core/presets/fingerprint";
import { heldPresets } from "@/core/presets/holds";
import { liftContent } from "@/core/presets/migrations";
import type { Content } from "@/core/presets/preset";
import { CardSchema, ContentSchema } from "@/core/presets/schema";
import { findContentProblem } from "@/core/presets/whole";
import { findProjectProblem } from "@/core/projects/problems";
import type { Project } from "@/core/projects/project";
import { liftSteps } from "@/core/recall/migrations";
import { type Result, fail, messageOf, ok } from "@/core/result";
import { SettingsSchema } from "@/core/settings/schema";
import { NO_SETTINGS } from "@/core/settings/settings";
import { DATABASE_FILE } from "../data/library-file";
import { setPragmas } from "../data/pragmas";
import { readCard, readInside } from "../data/stored";
import type {
  DocumentTable,
  FolderTable,
  HoldTable,
  MediaTable,
  PresetTable,
  ProjectTable,
  ReferenceTable,
  RevisionTable,
  SettingsTable,
  UseTable,
  VersionTable,
} from "../data/tables";
import { usesOn } from "../repositories/project-strips";
import { liftWith } from "../repositories/projects";

/*
 * Whether everything in a library is as it should be: the file itself, every document, every reference, every sound file against its sum,
 * and all that is derived against what it was derived from. Nothing is changed.
 */

/** Something that is not as it should be. */
export interface Fault {
  readonly of: "database" | "sound" | "folder" | "project" | "media" | "settings" | "index";
  readonly id: string;
  /** What it is called; empty for what has no name. */
  readonly name: string;
  readonly what: string;
  /** How it is mended: what is derived is made anew; a document is taken from a backup. Null where only a person can. */
  readonly mend: "derive" | "backup" | null;
  /** Of a sound, which version. */
  readonly version?: number;
}

export interface Checked {
  readonly faults: readonly Fault[];
  readonly counts: {
    readonly sounds: number;
    readonly versions: number;
    readonly projects: number;
    readonly media: number;
  };
}

export interface CheckJob {
  /** The data folder. */
  readonly folder: string;
}

/** Faults beyond this are as good as none: more are not listed. */
const MOST_FAULTS = 1000;

type PresetColumns = Pick<
  PresetTable,
  "row" | "id" | "kind" | "card" | "folder" | "inside" | "version" | "merged_into" | "pack"
>;
type VersionColumns = Pick<VersionTable, "version" | "fingerprint" | "based_on"> & Partial<Pick<DocumentTable, "body">>;

/** One check, of one moment of a library. */
class Checking {
  readonly faults: Fault[] = [];
  readonly counts = { sounds: 0, versions: 0, projects: 0, media: 0 };
  private done = 0;
  private of = 1;

  constructor(
    private readonly db: Database.Database,
    private readonly onProgress: (done: number, of: number) => void,
  ) {}

  run(): void {
    this.of =
      this.all<{ n: number }>(
        "SELECT (SELECT count(*) FROM presets) + (SELECT count(*) FROM projects) + (SELECT count(*) FROM media) AS n",
      )[0]!.n + 1;
    this.file();
    this.folders();
    this.sounds();
    this.projects();
    this.media();
    this.settings();
    this.index();
  }

  private all<Row>(sql: string, ...values: readonly unknown[]): readonly Row[] {
    return this.db.prepare<unknown[], Row>(sql).all(...values);
  }

  private fault(fault: Fault): void {
    if (this.faults.length < MOST_FAULTS) this.faults.push(fault);
  }

  private step(): void {
    this.onProgress(++this.done, this.of);
  }

  private file(): void {
    for (const row of this.db.pragma("integrity_check(20)") as readonly { integrity_check: string }[])
      if (row.integrity_check !== "ok")
        this.fault({
          of: "database",
          id: "",
          name: "",
          what: `The library's file: ${row.integrity_check}.`,
          mend: null,
        });
    for (const row of this.db.pragma("foreign_key_check") as readonly { table: string; parent: string }[])
      this.fault({
        of: "database",
        id: "",
        name: "",
        what: `A row of ${row.table} leads to one of ${row.parent} that is not there.`,
        mend: null,
      });
    this.step();
  }

  private folders(): void {
    const folders = this.all<FolderTable>("SELECT id, name, parent, changed_at FROM folders");
    const byId = new Map(folders.map((folder) => [folder.id, folder]));
    for (const { id, name } of folders) {
      const seen = new Set<string>();
      let at = byId.get(id);
      while (at && !seen.has(at.id)) {
        seen.add(at.id);
        at = at.parent === null ? undefined : byId.get(at.parent);
      }
      if (at) this.fault({ of: "folder", id, name, what: "It stands within itself.", mend: null });
    }
  }

  private sounds(): void {
    const some = this.db.prepare<unknown[], PresetColumns>(
      `SELECT row, id, kind, card, folder, inside, version, merged_into, pack FROM presets WHERE row > ? ORDER BY row LIMIT 200`,
    );
    for (let after = 0, rows: PresetColumns[]; (rows = some.all(after)).length > 0; after = rows.at(-1)!.row)
      for (const row of rows) {
        this.counts.sounds += 1;
        this.sound(row);
        this.step();
      }
  }

  private sound(row: PresetColumns): void {
    const card = readAs(() => readCard(row.card));
    const name = card.ok ? card.value.name : row.id;
    const said = { of: "sound" as const, id: row.id, name };
    const checked = card.ok ? parseWith(CardSchema, card.value) : card;
    if (!checked.ok) this.fault({ ...said, what: `Its card: ${wordsOf(checked.error)}`, mend: null });
    else this.filed(row, checked.value, said);
    const host = row.merged_into;
    if (host !== null && this.all("SELECT 1 FROM presets WHERE id = ?", host).length === 0)
      this.fault({ ...said, what: "It was put into a sound that is not there.", mend: null });
    this.versions(row, said);
  }

  /** Where it lies, by its card and by what is derived from it. */
  private filed(
    row: PresetColumns,
    card: { readonly folder: string | null; readonly alsoIn?: readonly string[] | undefined },
    said: Pick<Fault, "of" | "id" | "name">,
  ): void {
    if (card.folder !== row.folder)
      this.fault({ ...said, what: "It lies elsewhere than its card says.", mend: "derive" });
    const known = this.all<ReferenceTable>("SELECT folder, preset FROM preset_references WHERE preset = ?", row.row);
    const wanted = [...(card.alsoIn ?? [])].sort();
    if (!equal(known.map(({ folder }) => folder).sort(), wanted))
      this.fault({ ...said, what: "Other folders refer to it than its card says.", mend: "derive" });
    for (const folder of [card.folder, ...wanted])
      if (folder !== null && this.all("SELECT 1 FROM folders WHERE id = ?", folder).length === 0)
        this.fault({ ...said, what: "A folder that it lies in is not there.", mend: null });
  }

  private versions(row: PresetColumns, said: Pick<Fault, "of" | "id" | "name">): void {
    const versions = this.all<VersionColumns>(
      `SELECT v.version, v.fingerprint, v.based_on, d.body FROM preset_versions v
       LEFT JOIN documents d ON d.id = v.document WHERE v.preset = ? ORDER BY v.version`,
      row.id,
    );
    this.counts.versions += versions.length;
    if (versions.at(-1)?.version !== row.version || versions.some(({ version }, at) => version !== at + 1))
      this.fault({ ...said, what: "Its versions are not numbered from 1 to its newest.", mend: null });
    let newest: Content | null = null;
    for (const { version, fingerprint: print, body = "" } of versions) {
      const content = contentIn(body);
      if (!content.ok) {
        this.fault({ ...said, what: `Version ${version} cannot be read: ${content.error}`, mend: "backup", version });
        continue;
      }
      if (content.value.kind !== row.kind)
        this.fault({ ...said, what: `Version ${version} is of another kind.`, mend: null, version });
      if (fingerprint(content.value) !== print)
        this.fault({
          ...said,
          what: `The fingerprint of version ${version} is not that of its sound.`,
          mend: "derive",
          version,
        });
      newest = version === row.version ? content.value : newest;
    }
    if (newest) this.derived(row, newest, said);
  }

  private derived(row: PresetColumns, newest: Content, said: Pick<Fault, "of" | "id" | "name">): void {
    const inside = readAs(() => readInside(row.inside));
    const held = this.all<HoldTable>("SELECT held, preset FROM preset_holds WHERE preset = ?", row.row);
    const isInside = inside.ok && equal(inside.value, JSON.parse(JSON.stringify(insideOf(newest))));
    if (!isInside || !equal(held.map((one) => one.held).sort(), [...heldPresets(newest)].sort()))
      this.fault({ ...said, of: "index", what: "It is found by something else than what is in it.", mend: "derive" });
  }

  private projects(): void {
    const ids = this.all<Pick<ProjectTable, "id">>("SELECT id FROM projects ORDER BY id");
    for (const { id } of ids) {
      this.counts.projects += 1;
      this.project(id);
      this.step();
    }
  }

  private project(id: string): void {
    const [row] = this.all<
      Pick<ProjectTable, "name" | "revision" | "kind"> & {
        readonly body: string | null;
        readonly strips: string | null;
      }
    >(
      `SELECT p.name, p.revision, p.kind, d.body,
         (SELECT group_concat(s.body) FROM project_strips s WHERE s.project = p.id) AS strips
       FROM projects p LEFT JOIN documents d ON d.id = p.document WHERE p.id = ?`,
      id,
    );
    if (!row) return;
    const said = { of: "project" as const, id, name: row.name };
    const project = readAs(() => liftWith(row.strips)(JSON.parse(row.body ?? "")));
    if (!project.ok) return this.fault({ ...said, what: `It cannot be read: ${project.error}`, mend: null });
    const problem = findProjectProblem(project.value);
    if (problem) this.fault({ ...said, what: wordsOf(problem), mend: null });
    if (row.kind === "project") this.uses(project.value, said);
    const changes = this.all<Pick<RevisionTable, "n" | "steps">>(
      "SELECT n, steps FROM revisions WHERE project = ? ORDER BY n",
      id,
    );
    if (changes.length !== row.revision || changes.some(({ n }, at) => n !== at + 1))
      this.fault({
        ...said,
        what: `It speaks of ${row.revision} changes, and its past has ${changes.length}.`,
        mend: null,
      });
    const unread = changes.find(({ steps }) => !readAs(() => liftSteps(JSON.parse(steps))).ok);
    if (unread) this.fault({ ...said, what: `Change ${unread.n} of its past cannot be read.`, mend: null });
  }

  /** Which strips use which sounds, as it is kept and as they say themselves. */
  private uses(project: Project, said: Pick<Fault, "of" | "id" | "name">): void {
    const text = ({ strip, preset, version }: UseTable) => `${strip} ${preset} ${version}`;
    const kept = this.all<UseTable>("SELECT project, strip, preset, version FROM uses WHERE project = ?", said.id);
    const meant = project.strips.flatMap((strip) => usesOn(project.id, strip));
    if (!equal(kept.map(text).sort(), meant.map(text).sort()))
      this.fault({ ...said, of: "index", what: "It is kept to use other sounds than its strips say.", mend: "derive" });
  }

  private media(): void {
    for (const { hash, name } of this.all<Pick<MediaTable, "hash" | "name">>("SELECT hash, name FROM media")) {
      this.counts.media += 1;
      const [row] = this.all<Pick<MediaTable, "bytes">>("SELECT bytes FROM media WHERE hash = ?", hash);
      const said = { of: "media" as const, id: hash, name };
      const sum = createHash("sha256").update(row!.bytes).digest("hex");
      if (sum !== hash) this.fault({ ...said, what: "It is not the sound that it is kept as.", mend: "backup" });
      else if (!readWav(row!.bytes).ok) this.fault({ ...said, what: "It is no sound that can be played.", mend: null });
      this.step();
    }
    const used = this.all<{ hash: string }>(
      `SELECT DISTINCT json_extract(j.value, '$.hash') AS hash
       FROM (SELECT body FROM documents WHERE instr(body, '"hash":"') > 0 UNION ALL
             SELECT body FROM project_strips WHERE instr(body, '"hash":"') > 0) t, json_tree(t.body) j
       WHERE json_valid(t.body) AND j.type = 'object' AND json_extract(j.value, '$.hash') IS NOT NULL`,
    );
    for (const { hash } of used)
      if (this.all("SELECT 1 FROM media WHERE hash = ?", hash).length === 0)
        this.fault({
          of: "media",
          id: hash,
          name: "",
          what: "A sound file that something plays is not there.",
          mend: "backup",
        });
  }

  private settings(): void {
    const [row] = this.all<Pick<SettingsTable, "body">>("SELECT body FROM settings");
    if (!row) return;
    const stored = readAs(() => JSON.parse(row.body) as object);
    const parsed = stored.ok ? parseWith(SettingsSchema, { ...NO_SETTINGS, ...stored.value }) : stored;
    if (!parsed.ok)
      this.fault({ of: "settings", id: "", name: "", what: `What was set up: ${wordsOf(parsed.error)}`, mend: null });
  }

  private index(): void {
    const [count] = this.all<{ presets: number; indexed: number }>(
      "SELECT (SELECT count(*) FROM presets) AS presets, (SELECT count(*) FROM preset_search_docsize) AS indexed",
    );
    if (count && count.presets !== count.indexed)
      this.fault({
        of: "index",
        id: "",
        name: "",
        what: `${count.indexed} of ${count.presets} sounds are in the index of words.`,
        mend: "derive",
      });
  }
}

function readAs<T>(read: () => T): Result<T, string> {
  try {
    return ok(read());
  } catch (error) {
    return fail(error instanceof SyntaxError ? "it is no whole document any more." : messageOf(error));
  }
}

const wordsOf = (problem: string | { readonly path: string; readonly message: string }): string =>
  typeof problem === "string" ? problem : `${problem.path}: ${problem.message}`;

/** What a stored version holds; why it cannot be read. */
export function contentIn(body: string): Result<Content, string> {
  const lifted = readAs(() => liftContent(JSON.parse(body)));
  if (!lifted.ok) return lifted;
  const parsed = parseWith(ContentSchema, lifted.value);
  if (!parsed.ok) return fail(wordsOf(parsed.error));
  const problem = findContentProblem(parsed.value);
  return problem ? fail(wordsOf(problem)) : ok(parsed.value);
}

/** Checks a library by a connection of its own. It takes as long as it takes, without giving way: in a thread, where others wait. */
export function checkLibrary({ folder }: CheckJob, onProgress: (done: number, of: number) => void): Checked {
  const db = new Database(join(folder, DATABASE_FILE), { readonly: true, fileMustExist: true });
  try {
    setPragmas(db);
    db.exec("BEGIN");
    const checking = new Checking(db, onProgress);
    checking.run();
    return { faults: checking.faults, counts: checking.counts };
  } finally {
    db.close();
  }
}
