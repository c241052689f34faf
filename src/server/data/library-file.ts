import { existsSync, readdirSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { DatabaseRefused, LibraryGone } from "./faults";

export const DATABASE_FILE = "diathesis.db";

/** Tells whoever looks into the folder what is what; where it stands, a library has stood. */
const MARK = "READ ME.txt";
const MARK_TEXT = `This folder is the library of Diathesis.

${DATABASE_FILE} is all of it; what ends in -wal and -shm belongs to it while it is open.
copies/ holds what was laid aside before the library was brought up to a newer Diathesis.

To put a backup in its place: end Diathesis, take the three files away, and call the backup ${DATABASE_FILE}.
`;

const sizeOf = (path: string): number => (existsSync(path) ? statSync(path).size : -1);

/** "1.2 MB". */
const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(bytes < 1e6 ? 2 : 1)} MB`;

/** What tells that a library has stood in a folder, each with what is to be known of it. */
function tracesIn(folder: string): readonly string[] {
  const wal = sizeOf(join(folder, `${DATABASE_FILE}-wal`));
  const copies = join(folder, "copies");
  const kept = existsSync(copies) ? readdirSync(copies).filter((name) => name.endsWith(".db")) : [];
  return [
    ...(existsSync(join(folder, MARK)) ? [`“${MARK}”`] : []),
    ...(wal > 0 ? [`${DATABASE_FILE}-wal (${megabytes(wal)} of changes that were not yet in the library's file)`] : []),
    ...kept.map((name) => `copies/${name} (${megabytes(sizeOf(join(copies, name)))})`),
  ];
}

/**
 * Refuses to begin with an empty library where one has stood: to go on would throw away what is left of it. Throws
 * `DatabaseRefused`; nothing is touched.
 */
export function refuseWhereOneStood(folder: string): void {
  const size = sizeOf(join(folder, DATABASE_FILE));
  if (size > 0) return;
  const traces = tracesIn(folder);
  if (traces.length === 0) return;
  const state = size === 0 ? "is empty" : "is missing";
  throw new DatabaseRefused(
    `A library has stood in ${folder}, but its file ${DATABASE_FILE} ${state}. There ${traces.length === 1 ? "is" : "are"} still ${traces.join(", ")}. ` +
      `Put ${DATABASE_FILE} back, or a backup or a copy in its place; for a new library choose an empty folder (DIATHESIS_DATA). Nothing was changed.`,
  );
}

/** Refuses a database without tables where a library has stood. */
export function refuseHollow(folder: string): void {
  if (tracesIn(folder).length > 0)
    throw new DatabaseRefused(
      `A library has stood in ${folder}, but ${DATABASE_FILE} holds nothing of it. Put a backup or a copy in its place. Nothing was changed.`,
    );
}

export const markFolder = (folder: string): void => {
  if (!existsSync(join(folder, MARK))) writeFileSync(join(folder, MARK), MARK_TEXT);
};

type Identity = `${number} ${number}`;

function identityOf(path: string): Identity | null {
  try {
    const { dev, ino } = statSync(path);
    return `${dev} ${ino}`;
  } catch {
    return null;
  }
}

/**
 * The files that were opened, by what the system knows them by. A file that is deleted or replaced while it is open is written
 * to all the same, and what is written is lost: so they are looked for before anything is acknowledged.
 */
export class LibraryFile {
  private readonly opened: ReadonlyMap<string, Identity | null>;

  constructor(private readonly folder: string) {
    const paths = [DATABASE_FILE, `${DATABASE_FILE}-wal`].map((name) => join(folder, name));
    this.opened = new Map(paths.map((path) => [path, identityOf(path)]));
  }

  /** Throws `LibraryGone` where one of the files is not the one that was opened. */
  check(): void {
    for (const [path, identity] of this.opened)
      if (identityOf(path) !== identity)
        throw new LibraryGone(
          `The library's file ${path} was taken away or replaced while Diathesis was using it. What was asked last is not kept. ` +
            `Put it back and start Diathesis again, or start from a backup; this one goes on reading from ${this.folder} until it ends.`,
        );
  }
}
