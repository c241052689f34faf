import { stat } from "node:fs/promises";
import { resolve } from "node:path";
import type { Wish } from "@/contracts/archive";
import { INCLUDED } from "@/core/packs/included";
import { counted } from "@/core/names/count";
import { messageOf } from "@/core/result";
import { writeArchive } from "../archive/write-archive";
import { NotTaken } from "../archive/zip-in";
import { TooMuchForAZip } from "../archive/zip-out";
import { openReader } from "../data/database";
import { DatabaseRefused, findStorageFault } from "../data/faults";
import { FolderInUse } from "../data/lock";
import { readingAside } from "../data/statements";
import { LibrarySearch } from "../search/library-search";
import { openContext } from "../store/open";
import { choosePart } from "../use-cases/archive/choose";
import { namedFolder, namedPreset, namedProject } from "../use-cases/archive/named";
import { checkFile, takeFile } from "../use-cases/archive/take-file";
import { installPack } from "../use-cases/packs";
import { MADE_BY } from "../version";

/*
 * write FILE [--folder PATH | --client NAME | --search WORDS | --preset NAME | --project NAME]   also while it serves
 * check FILE     whether an archive is whole, down to every document
 * bring FILE     into the library; it must not be serving
 *
 * Ends with 0 done, 1 refused with nothing changed, 2 not understood, 3 done but for what is told.
 */

const USAGE = `npm run -s archive -- write FILE [--folder PATH | --client NAME | --search WORDS | --preset NAME | --project NAME]
npm run -s archive -- check FILE
npm run -s archive -- bring FILE`;

const FOLDER = resolve(process.env.DIATHESIS_DATA ?? ".data/library");

class NotUnderstood extends Error {}
class Refused extends Error {}

const found = <T>(value: T | null, words: string): T => {
  if (value === null) throw new Refused(words);
  return value;
};

/** The part of the library that is meant, by the names that a person would use. */
function wishOf(option: string | undefined, given: string | undefined): Wish {
  if (option === undefined) return { kind: "all" };
  if (given === undefined) throw new NotUnderstood(`Say what ${option} is.`);
  const { statement, close } = readingAside(FOLDER);
  try {
    switch (option) {
      case "--folder":
        return { kind: "folder", id: found(namedFolder(statement, given), `There is no folder “${given}”.`) };
      case "--preset":
        return { kind: "preset", id: found(namedPreset(statement, given), `There is no one sound “${given}”.`) };
      case "--project":
        return { kind: "project", id: found(namedProject(statement, given), `There is no one project “${given}”.`) };
      case "--client":
        return { kind: "client", name: given };
      case "--search":
        return { kind: "search", q: given };
      default:
        throw new NotUnderstood(`${option} is not known.`);
    }
  } finally {
    close();
  }
}

async function write(file: string, [option, given, ...more]: readonly string[]): Promise<number> {
  if (more.length > 0) throw new NotUnderstood("Say one part of the library at a time.");
  const wish = wishOf(option, given);
  const search = new LibrarySearch();
  if (wish.kind !== "all") {
    const db = openReader(FOLDER);
    await search.build(db).finally(() => db.destroy());
  }
  const part = choosePart({ search, folder: FOLDER }, wish);
  if (!part.ok) throw new Refused(part.error.message);
  const { counts } = await writeArchive({ folder: FOLDER, ...part.value, at: new Date(), madeBy: MADE_BY }, file);
  const { size } = await stat(file);
  console.log(
    `${file}: ${counted(counts.presets, "sound")}, ${counted(counts.projects, "project")}, ${size} bytes, read back and whole.`,
  );
  return 0;
}

async function check(file: string): Promise<number> {
  const { manifest, problems } = await checkFile(file);
  for (const problem of problems) console.error(problem);
  const what = manifest
    ? `${counted(manifest.counts.presets, "sound")}, ${counted(manifest.counts.projects, "project")}`
    : "a sound";
  if (problems.length === 0) console.log(`${file} is whole: ${what}.`);
  return problems.length > 0 ? 3 : 0;
}

async function bring(file: string): Promise<number> {
  const context = await openContext(FOLDER);
  try {
    await installPack(context, INCLUDED);
    const taken = await takeFile(context, file, { called: `“${file.split("/").at(-1) ?? file}”` });
    if (!taken.ok) throw new Refused(taken.error.message);
    const { presets, projects, problems } = taken.value;
    for (const problem of problems) console.error(problem);
    console.log(`${counted(presets, "sound")} and ${counted(projects, "project")} came in from ${file}.`);
    return problems.length > 0 ? 3 : 0;
  } finally {
    await context.close();
  }
}

function run([command, file, ...more]: readonly string[]): Promise<number> {
  if (file === undefined || file.startsWith("-")) throw new NotUnderstood("Say which file.");
  if (command === "write") return write(file, more);
  if (more.length > 0) throw new NotUnderstood(`${more[0] ?? ""} is not known.`);
  if (command === "check") return check(file);
  if (command === "bring") return bring(file);
  throw new NotUnderstood(`${command ?? ""} is not known.`);
}

/** What went wrong in words, where it is known what it is. */
function wordsOf(error: unknown): string | null {
  if (error instanceof FolderInUse)
    return `${error.message} While Diathesis serves this library, archives are brought in on its archive screen.`;
  const known = [NotUnderstood, Refused, NotTaken, TooMuchForAZip, DatabaseRefused].some(
    (kind) => error instanceof kind,
  );
  if (known) return messageOf(error);
  if ((error as NodeJS.ErrnoException).code === "ENOENT") return `${messageOf(error)}.`;
  return findStorageFault(error)?.message ?? null;
}

try {
  process.exitCode = await Promise.resolve().then(() => run(process.argv.slice(2)));
} catch (error) {
  const words = wordsOf(error);
  console.error(words ?? error);
  if (error instanceof NotUnderstood) console.error(USAGE);
  process.exitCode = error instanceof NotUnderstood ? 2 : 1;
}
