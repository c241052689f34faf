import { mkdirSync, readdirSync, rmSync } from "node:fs";
import { type FileHandle, open, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import type { BringRequest, IncomingRecord, ItemPage, ItemsQuery, Job, NewIncoming } from "@/contracts/archive";
import type { ComparedItem, Comparison } from "@/core/archive/comparison";
import type { Manifest } from "@/core/archive/manifest";
import { areBegun, wordsOf } from "@/core/names/words";
import { ok } from "@/core/result";
import { type Outcome, failure } from "../../failure";
import type { Context } from "../../store/context";
import { type OnProgress, startJob } from "../../store/jobs";
import { bringIn } from "./bring";
import { pathOf } from "./files";
import { type OpenedFile, compareFile, openFile } from "./take-file";

/*
 * Files on their way in: sent in pieces into a folder of their own, held against the library, and brought in. None of them is of the library
 * before that, and none is left once it is let go of, or Diathesis begins anew.
 */

interface Incoming {
  readonly id: string;
  readonly name: string;
  readonly path: string;
  readonly bytes: number;
  /** It lies with the archives, and stays there. */
  readonly isOurs: boolean;
  received: number;
  opened: OpenedFile | null;
  comparison: Comparison | null;
}

/** Files that wait at once; the oldest goes. */
const MOST_WAITING = 4;

const WAITING = new WeakMap<Context["writer"], Map<string, Incoming>>();

function waitingIn({ writer, folder }: Pick<Context, "writer" | "folder">): Map<string, Incoming> {
  const known = WAITING.get(writer);
  if (known) return known;
  // What was on its way when the last one ended is of nobody.
  const place = join(folder, "incoming");
  mkdirSync(place, { recursive: true });
  for (const name of readdirSync(place)) rmSync(join(place, name), { force: true });
  const waiting = new Map<string, Incoming>();
  WAITING.set(writer, waiting);
  return waiting;
}

const countedBy = (items: readonly ComparedItem[]) => {
  const counts: Partial<Record<ComparedItem["standing"], number>> = {};
  for (const { standing } of items) counts[standing] = (counts[standing] ?? 0) + 1;
  return counts;
};

const archiveOf = (manifest: Manifest | null) =>
  manifest && {
    madeAt: manifest.madeAt,
    madeBy: manifest.madeBy,
    words: manifest.scope.kind === "all" ? "the whole library" : manifest.scope.words,
  };

function toRecord({ id, name, bytes, received, opened, comparison }: Incoming): IncomingRecord {
  const head = comparison && {
    archive: archiveOf(opened?.manifest ?? null),
    isRestore: comparison.isRestore,
    counts: countedBy(comparison.items),
    rest: comparison.rest,
  };
  return { id, name, bytes, received, head };
}

const gone = () => failure("notFound", "This file is not on its way any more. Drop it here once more.");

async function letGoOf(context: Context, incoming: Incoming): Promise<void> {
  waitingIn(context).delete(incoming.id);
  incoming.opened?.close();
  if (!incoming.isOurs) await rm(incoming.path, { force: true });
}

/** Makes ready for a file to come in. */
export async function beginIncoming(
  context: Context,
  asked: NewIncoming,
): Promise<Outcome<{ incoming: IncomingRecord }>> {
  const waiting = waitingIn(context);
  const id = context.mint();
  const ours = "file" in asked ? pathOf(context, asked.file) : null;
  if ("file" in asked && ours === null) return failure("notFound", "There is no such file here.", { path: "file" });
  const path = ours ?? join(context.folder, "incoming", id);
  if (ours === null) await open(path, "wx").then((handle) => handle.close());
  const bytes = "file" in asked ? (await stat(path)).size : asked.bytes;
  const name = "file" in asked ? asked.file : asked.name;
  const incoming: Incoming = {
    id,
    name,
    path,
    bytes,
    isOurs: ours !== null,
    received: ours === null ? 0 : bytes,
    opened: null,
    comparison: null,
  };
  waiting.set(id, incoming);
  for (const old of [...waiting.values()].slice(0, -MOST_WAITING)) await letGoOf(context, old);
  return ok({ incoming: toRecord(incoming) });
}

/** Writes all of it, or fails: on a disk that is nearly full a system writes a part, and says only how much. */
async function writeWhole(handle: FileHandle, bytes: Uint8Array, at: number): Promise<void> {
  for (let done = 0; done < bytes.length; )
    done += (await handle.write(bytes, done, bytes.length - done, at + done)).bytesWritten;
}

/** Takes a piece of a file; each begins where the one before it ended. */
export async function takePiece(
  context: Context,
  id: string,
  at: number,
  read: () => Promise<Outcome<Uint8Array>>,
): Promise<Outcome<{ incoming: IncomingRecord }>> {
  const incoming = waitingIn(context).get(id);
  if (!incoming || incoming.isOurs) return gone();
  const body = await read();
  if (!body.ok) return body;
  const piece = body.value;
  if (at !== incoming.received || at + piece.length > incoming.bytes)
    return failure("refused", `The next piece begins at ${incoming.received}, of ${incoming.bytes} bytes.`, {
      path: "at",
    });
  const handle = await open(incoming.path, "r+");
  await writeWhole(handle, piece, at).finally(() => handle.close());
  incoming.received += piece.length;
  return ok({ incoming: toRecord(incoming) });
}

export async function letGo(context: Context, id: string): Promise<Outcome<{ gone: boolean }>> {
  const incoming = waitingIn(context).get(id);
  if (!incoming) return gone();
  await letGoOf(context, incoming);
  return ok({ gone: true });
}

/** Begins to check a file and to hold it against the library. */
export function beginComparison(context: Context, id: string): Outcome<{ job: Job }> {
  const incoming = waitingIn(context).get(id);
  if (!incoming) return gone();
  if (incoming.received < incoming.bytes) return failure("refused", "It has not come whole yet.");
  const job = startJob({ title: `Look at ${incoming.name}`, about: id }, async (onProgress) => {
    incoming.opened ??= await openFile(incoming.path);
    const { opened } = incoming;
    incoming.comparison = await comparisonOf(context, opened, onProgress);
    return ok({ kind: "compared" });
  });
  return ok({ job });
}

async function comparisonOf(context: Context, opened: OpenedFile, onProgress: OnProgress): Promise<Comparison> {
  const bytes = opened.manifest?.entries.reduce((sum, entry) => sum + entry.bytes, 0) ?? 0;
  let [read, items] = [0, 0];
  await opened.verify((more) => onProgress((read += more), 2 * bytes));
  const { count } = opened.incoming;
  return compareFile(context.folder, opened, () => onProgress(count + ++items, 2 * count));
}

/** How a file stands to the library, and some of the things in it. */
export function lookAt(
  context: Context,
  id: string,
  { standing, q = "", offset = 0, limit = 100 }: ItemsQuery,
): Outcome<{ incoming: IncomingRecord } & ItemPage> {
  const incoming = waitingIn(context).get(id);
  if (!incoming) return gone();
  const words = wordsOf(q);
  const items = (incoming.comparison?.items ?? []).filter(
    (item) =>
      (standing === undefined || item.standing === standing) &&
      (words.length === 0 || areBegun(words, wordsOf(`${item.name} ${item.place}`))),
  );
  return ok({ incoming: toRecord(incoming), items: items.slice(offset, offset + limit), total: items.length });
}

/** Begins to bring in what was chosen of a file. */
export function beginBringing(context: Context, id: string, choices: BringRequest): Outcome<{ job: Job }> {
  const incoming = waitingIn(context).get(id);
  if (!incoming) return gone();
  const { opened, comparison, name } = incoming;
  if (!opened || !comparison) return failure("refused", "It was not held against the library yet.");
  const job = startJob({ title: `Bring in ${name}`, about: id }, async (onProgress) => {
    const { count } = opened.incoming;
    let done = 0;
    const wanted = { items: comparison.items, choices, called: `“${name}”` };
    const brought = await bringIn(context, opened.incoming, wanted, () => onProgress(++done, count));
    if (!brought.ok) return brought;
    await letGoOf(context, incoming);
    return ok({ kind: "brought", brought: { ...brought.value, problems: brought.value.problems.slice(0, 200) } });
  });
  return ok({ job });
}
