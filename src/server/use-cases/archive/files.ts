import { existsSync, mkdirSync, readdirSync, statSync } from "node:fs";
import { rm } from "node:fs/promises";
import { join } from "node:path";
import type { ArchiveFile, Job, Wish } from "@/contracts/archive";
import { ok } from "@/core/result";
import { writeArchive } from "../../archive/write-archive";
import { type Outcome, failure } from "../../failure";
import type { Context } from "../../store/context";
import { startJob } from "../../store/jobs";
import { MADE_BY } from "../../version";
import { choosePart } from "./choose";

/** Where files lie, by their kind, within the data folder. */
const PLACES: Readonly<Record<ArchiveFile["kind"], { readonly folder: string; readonly ending: string }>> = {
  archive: { folder: "archives", ending: ".zip" },
  backup: { folder: "backups", ending: ".zip" },
  copy: { folder: "copies", ending: ".db" },
};

const KINDS = Object.keys(PLACES) as readonly ArchiveFile["kind"][];

/** What is being written stands under a name of its own. */
const isWhole = (name: string): boolean => !name.includes(".part-");

export function placeFor({ folder }: Pick<Context, "folder">, kind: ArchiveFile["kind"]): string {
  const place = join(folder, PLACES[kind].folder);
  mkdirSync(place, { recursive: true });
  return place;
}

const namesIn = (place: string): readonly string[] =>
  statSync(place, { throwIfNoEntry: false })?.isDirectory() ? readdirSync(place) : [];

/** Every archive, backup and copy here, the newest first. */
export function listFiles({ folder }: Pick<Context, "folder">): readonly ArchiveFile[] {
  const files = KINDS.flatMap((kind) => {
    const place = join(folder, PLACES[kind].folder);
    return namesIn(place)
      .filter((name) => name.endsWith(PLACES[kind].ending) && isWhole(name))
      .flatMap((name): readonly ArchiveFile[] => {
        const found = statSync(join(place, name), { throwIfNoEntry: false });
        return found ? [{ name, kind, bytes: found.size, at: found.mtime.toISOString() }] : [];
      });
  });
  return files.toSorted((a, b) => (a.at < b.at ? 1 : -1));
}

/** Where a file lies that the list names; null for what it does not name. */
export function pathOf(context: Pick<Context, "folder">, name: string): string | null {
  const file = listFiles(context).find((one) => one.name === name);
  return file ? join(context.folder, PLACES[file.kind].folder, name) : null;
}

/** Takes a file away for good. */
export async function removeFile(context: Context, name: string): Promise<Outcome<{ gone: boolean }>> {
  const path = pathOf(context, name);
  if (path === null) return failure("notFound", "There is no such file here.");
  await rm(path, { force: true });
  return ok({ gone: true });
}

/** A name that no file has yet: of what is in it, and of the day. */
export function freeName(place: string, what: string, now: Date): string {
  const stem = `${what} ${now.toISOString().slice(0, 10)}`.replaceAll(/[^\p{L}\p{N} ._-]+/gu, "").slice(0, 120);
  for (let n = 1; ; n++) {
    const name = n === 1 ? `${stem}.zip` : `${stem} ${n}.zip`;
    if (!existsSync(join(place, name))) return name;
  }
}

/** Begins to write an archive of the library, or of a part of it. */
export function beginArchive(context: Context, wish: Wish): Outcome<{ job: Job }> {
  const part = choosePart(context, wish);
  if (!part.ok) return part;
  const { scope } = part.value;
  const at = context.now();
  const place = placeFor(context, "archive");
  const name = freeName(place, scope.kind === "all" ? "Library" : scope.words, at);
  const title = scope.kind === "all" ? "Archive the library" : `Archive ${scope.words}`;
  const job = startJob({ title }, async (onProgress) => {
    const writing = { folder: context.folder, ...part.value, at, madeBy: MADE_BY };
    const { counts } = await writeArchive(writing, join(place, name), onProgress);
    const { size } = statSync(join(place, name));
    return ok({ kind: "wrote", file: name, bytes: size, presets: counts.presets, projects: counts.projects });
  });
  return ok({ job });
}
