import { open, readFile, stat } from "node:fs/promises";
import { basename } from "node:path";
import type { Choices, Comparison } from "@/core/archive/comparison";
import { wordsOfProblem } from "@/core/documents/problem";
import type { Manifest } from "@/core/archive/manifest";
import { type Incoming, type Read, incomingFrom, incomingPreset } from "../../archive/incoming";
import { openArchive } from "../../archive/open-archive";
import { NotTaken } from "../../archive/zip-in";
import { readingAside } from "../../data/statements";
import type { Outcome } from "../../failure";
import type { Context } from "../../store/context";
import { type Brought, bringIn } from "./bring";
import { takingTurns } from "../../turns";
import { compareIncoming } from "./compare";

/** A document by itself is not larger than this, in bytes. */
const MOST_DOCUMENT = 64 * 2 ** 20;

/** A file that is open to be taken in. */
export interface OpenedFile {
  readonly incoming: Incoming;
  /** Null for a document by itself. */
  readonly manifest: Manifest | null;
  verify(onBytes: (bytes: number) => void): Promise<void>;
  close(): void;
}

async function openDocument(file: string): Promise<OpenedFile> {
  if ((await stat(file)).size > MOST_DOCUMENT) throw new NotTaken("This is no archive, and larger than any document.");
  const json = parse(await readFile(file));
  return { incoming: incomingPreset(json), manifest: null, verify: () => Promise.resolve(), close: () => undefined };
}

function parse(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch {
    throw new NotTaken("This is neither an archive of Diathesis nor one of its documents.");
  }
}

const isZip = (begins: Uint8Array): boolean => begins[0] === 0x50 && begins[1] === 0x4b;

/** Opens an archive, or a document by itself. Throws `NotTaken`, in words, for what is neither. */
export async function openFile(file: string): Promise<OpenedFile> {
  const handle = await open(file, "r").catch((error: NodeJS.ErrnoException) => {
    // A backup may have been thinned out since it was listed.
    throw error.code === "ENOENT" ? new NotTaken(`There is no file ${basename(file)} any more.`) : error;
  });
  const { buffer } = await handle.read(Buffer.alloc(2), 0, 2, 0).finally(() => handle.close());
  if (!isZip(buffer)) return openDocument(file);
  const archive = await openArchive(file);
  return {
    incoming: incomingFrom(archive),
    manifest: archive.manifest,
    verify: (onBytes) => archive.verify(onBytes),
    close: () => archive.close(),
  };
}

/** Holds a file against the library, from a connection of its own. */
export async function compareFile(folder: string, opened: OpenedFile, onItem?: () => void): Promise<Comparison> {
  const reading = readingAside(folder);
  try {
    return await compareIncoming(reading.statement, opened.incoming, onItem);
  } finally {
    reading.close();
  }
}

export const USUAL: Choices = { items: {}, groups: {} };

/** Brings in a file, checked and compared beforehand. Throws `NotTaken`. */
export async function takeFile(
  context: Context,
  file: string,
  { choices = USUAL, called }: { readonly choices?: Choices; readonly called: string },
): Promise<Outcome<Brought>> {
  const opened = await openFile(file);
  try {
    await opened.verify(() => undefined);
    const { items } = await compareFile(context.folder, opened);
    return await bringIn(context, opened.incoming, { items, choices, called });
  } finally {
    opened.close();
  }
}

/** Reads a file down to every document: what is not as it should be, each with its place. Throws `NotTaken` where it is no whole archive. */
export async function checkFile(
  file: string,
  onBytes: (bytes: number) => void = () => undefined,
): Promise<{ readonly manifest: Manifest | null; readonly problems: readonly string[] }> {
  const opened = await openFile(file);
  try {
    await opened.verify(onBytes);
    return { manifest: opened.manifest, problems: await problemsIn(opened.incoming) };
  } finally {
    opened.close();
  }
}

async function problemsIn(incoming: Incoming): Promise<readonly string[]> {
  const turn = takingTurns();
  const problems: string[] = [];
  const look = ({ where, document }: Pick<Read<unknown>, "where" | "document">) => {
    if (!document.ok) problems.push(wordsOfProblem(where, document.error));
  };
  for await (const read of incoming.presets()) {
    look(read);
    await turn();
  }
  for await (const read of incoming.projects()) {
    look(read);
    look({ where: `${read.where}, its past`, document: await read.changes() });
    await turn();
  }
  await incoming.folders();
  await incoming.settings();
  await incoming.media();
  for await (const _ of incoming.entries()) await turn();
  return problems;
}
