import { existsSync } from "node:fs";
import { open, readdir, rename, rm } from "node:fs/promises";
import { dirname, join } from "node:path";
import Database from "better-sqlite3";
import { FORM } from "@/core/archive/documents";
import { MANIFEST, type Manifest, README, type Scope } from "@/core/archive/manifest";
import { readMeOf } from "@/core/archive/read-me";
import { SCHEMAS } from "@/core/archive/schemas";
import { DATABASE_FILE } from "../data/library-file";
import { setPragmas } from "../data/pragmas";
import { takingTurns } from "../turns";
import {
  type Chosen,
  foldersUpTo,
  gatherChanges,
  gatherEntries,
  gatherFolders,
  gatherMedia,
  gatherPresets,
  gatherProjects,
  gatherSettings,
  gatherWrapUps,
  mediaBytes,
} from "./gather";
import { openArchive } from "./open-archive";
import { NotTaken } from "./zip-in";
import { type WrittenFile, ZipOut } from "./zip-out";

/** What is archived, and where from. */
export interface Writing {
  /** The data folder. */
  readonly folder: string;
  readonly chosen: Chosen;
  readonly scope: Scope;
  readonly at: Date;
  readonly madeBy: string;
}

/** Hears how far it is, and throws where it is no longer wanted. */
export type OnPart = (done: number, of: number) => void;

/** Sounds in one file of an archive. */
const PRESETS_A_FILE = 500;
/** Letters in one file of an archive, beyond which the next begins. */
const LETTERS_A_FILE = 8_000_000;

/** Names of files are shown, and read by whoever unpacks them. */
const slugOf = (name: string): string =>
  name
    .normalize("NFC")
    .replaceAll(/[^\p{L}\p{N}]+/gu, "-")
    .replaceAll(/^-+|-+$/g, "")
    .slice(0, 40) || "unnamed";

const numbered = (n: number): string => String(n).padStart(4, "0");

const HASH = /"hash":"([0-9a-f]{64})"/g;

/** One archive that is being written. */
class Archiving {
  private readonly files: WrittenFile[] = [];
  private readonly hashes = new Set<string>();
  private readonly folders = new Set<string>();
  private readonly turn = takingTurns();
  private counts = { presets: 0, versions: 0, folders: 0, projects: 0, drafts: 0, media: 0 };

  constructor(
    private readonly db: Database.Database,
    private readonly zip: ZipOut,
    private readonly writing: Writing,
    private readonly onPart: OnPart,
  ) {}

  async write(): Promise<void> {
    await this.presets();
    await this.projects();
    await this.text(
      "folders.json",
      JSON.stringify({ diathesis: "folders", form: FORM, folders: this.foldersNeeded() }),
    );
    if (this.isAll) await this.rest();
    await this.media();
    for (const [name, schema] of Object.entries(SCHEMAS))
      await this.text(`schemas/${name}.schema.json`, `${JSON.stringify(schema(), null, 2)}\n`);
    const { at, madeBy, scope } = this.writing;
    const head = {
      diathesis: "archive" as const,
      form: FORM,
      madeAt: at.toISOString(),
      madeBy,
      scope,
      counts: this.counts,
    };
    await this.text(README, readMeOf(head));
    const manifest: Manifest = { ...head, entries: this.files };
    await this.zip.add({ path: MANIFEST, bytes: Buffer.from(JSON.stringify(manifest, null, 1)), isPacked: true });
  }

  private get isAll(): boolean {
    return this.writing.scope.kind === "all";
  }

  private async add(path: string, bytes: Uint8Array, isPacked = true): Promise<void> {
    this.files.push(await this.zip.add({ path, bytes, isPacked }));
  }

  private text(path: string, text: string): Promise<void> {
    if (!this.isAll) for (const [, hash] of text.matchAll(HASH)) this.hashes.add(hash!);
    return this.add(path, Buffer.from(text));
  }

  private foldersNeeded() {
    const all = gatherFolders(this.db);
    const needed = this.isAll ? all : foldersUpTo(all, this.folders);
    this.counts = { ...this.counts, folders: needed.length };
    return needed;
  }

  private noteFolders(text: string): void {
    if (this.isAll) return;
    const { card } = JSON.parse(text) as { card: { folder: string | null; alsoIn?: readonly string[] } };
    for (const folder of [card.folder, ...(card.alsoIn ?? [])]) if (folder !== null) this.folders.add(folder);
  }

  private async presets(): Promise<void> {
    const of = this.writing.chosen.presets?.size ?? this.count("presets");
    let [lines, letters, file] = [[] as string[], 0, 0];
    const write = async () => {
      if (lines.length > 0) await this.text(`presets/${numbered(++file)}.jsonl`, `${lines.join("\n")}\n`);
      this.onPart(this.counts.presets, of);
      [lines, letters] = [[], 0];
    };
    for (const { text, versions } of gatherPresets(this.db, this.writing.chosen)) {
      lines.push(text);
      letters += text.length;
      this.counts.presets += 1;
      this.counts.versions += versions;
      this.noteFolders(text);
      if (lines.length === PRESETS_A_FILE || letters > LETTERS_A_FILE) await write();
      await this.turn();
    }
    await write();
  }

  private async projects(): Promise<void> {
    for (const { id, name, isDraft, text } of gatherProjects(this.db, this.writing.chosen)) {
      const n = isDraft ? ++this.counts.drafts : ++this.counts.projects;
      const path = `${isDraft ? "drafts" : "projects"}/${numbered(n)}-${slugOf(name)}`;
      await this.text(`${path}.json`, text);
      await this.lines(`${path}.history.jsonl`, gatherChanges(this.db, id));
      this.onPart(this.counts.presets, this.counts.presets);
    }
  }

  private async lines(path: string, lines: Iterable<string>): Promise<void> {
    const all: string[] = [];
    for (const line of lines) {
      all.push(line);
      await this.turn();
    }
    if (all.length > 0) await this.text(path, `${all.join("\n")}\n`);
  }

  /** What only the whole has. */
  private async rest(): Promise<void> {
    await this.text("settings.json", gatherSettings(this.db));
    await this.lines("history/library.jsonl", gatherEntries(this.db));
    await this.lines("history/wrap-ups.jsonl", gatherWrapUps(this.db));
  }

  private async media(): Promise<void> {
    const media = gatherMedia(this.db).filter(({ hash }) => this.isAll || this.hashes.has(hash));
    this.counts.media = media.length;
    const said = media.map(({ added_at, ...head }) => ({ ...head, addedAt: added_at }));
    await this.text("media.json", JSON.stringify({ diathesis: "media", form: FORM, media: said }));
    for (const { hash } of media) {
      await this.add(`media/${hash}.wav`, mediaBytes(this.db, hash), false);
      this.onPart(this.counts.presets, this.counts.presets);
    }
  }

  private count(table: "presets"): number {
    return this.db.prepare<[], { n: number }>(`SELECT count(*) AS n FROM ${table}`).get()!.n;
  }
}

/** A folder's own list of files is on the disk by then. */
async function flushFolder(folder: string): Promise<void> {
  const handle = await open(folder, "r");
  await handle.sync().finally(() => handle.close());
}

/** Whether a process is there. */
function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EPERM";
  }
}

/** What was being written when its process ended is of nobody. */
async function sweep(folder: string): Promise<void> {
  for (const name of await readdir(folder)) {
    const pid = /\.zip\.part-(\d+)$/.exec(name)?.[1];
    if (pid !== undefined && !isAlive(Number(pid))) await rm(join(folder, name), { force: true });
  }
}

/**
 * Archives a moment of a library, which may be open and written to: under another name first, read back and held against its sums, and
 * only then under its own. Gives its manifest. Throws `NotTaken` where a file of the name is there, or it does not come out whole.
 */
export async function writeArchive(writing: Writing, to: string, onPart: OnPart = () => undefined): Promise<Manifest> {
  if (existsSync(to)) throw new NotTaken(`There is a file ${to} already; it stays. Choose another name.`);
  await sweep(dirname(to));
  const part = `${to}.part-${process.pid}`;
  await rm(part, { force: true });
  const db = new Database(join(writing.folder, DATABASE_FILE), { readonly: true, fileMustExist: true });
  let zip: ZipOut | null = null;
  try {
    setPragmas(db);
    db.exec("BEGIN");
    zip = await ZipOut.begin(part, writing.at);
    await new Archiving(db, zip, writing, onPart).write();
    await zip.end();
    const archive = await openArchive(part);
    await archive.verify(() => onPart(1, 1)).finally(() => archive.close());
    if (existsSync(to)) throw new NotTaken(`There is a file ${to} by now; it stays. Choose another name.`);
    await rename(part, to);
    await flushFolder(dirname(to));
    return archive.manifest;
  } finally {
    await zip?.giveUp();
    db.close();
    await rm(part, { force: true });
  }
}
