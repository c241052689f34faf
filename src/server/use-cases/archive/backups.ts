import { rmSync, statSync } from "node:fs";
import { join } from "node:path";
import type { ArchiveState, Job } from "@/contracts/archive";
import { isDue, thinnedOut } from "@/core/archive/thinning";
import { messageOf, ok } from "@/core/result";
import { writeArchive } from "../../archive/write-archive";
import { lastChange } from "../../data/changes";
import { findStorageFault } from "../../data/faults";
import { readSettings } from "../../repositories/settings";
import { failure } from "../../failure";
import type { Context } from "../../store/context";
import { startJob } from "../../store/jobs";
import { MADE_BY } from "../../version";
import { listFiles, placeFor } from "./files";

/** "backup 2026-11-30T06.38.00.000Z.zip", which says when it was made. */
const nameOf = (at: Date): string => `backup ${at.toISOString().replaceAll(":", ".")}.zip`;

function timeOf(name: string): Date | null {
  const time = /^backup (\d{4}-\d\d-\d\dT)(\d\d)\.(\d\d)\.(\d\d\.\d{3}Z)\.zip$/.exec(name);
  return time ? new Date(`${time[1]!}${time[2]!}:${time[3]!}:${time[4]!}`) : null;
}

const madeBackups = (context: Pick<Context, "folder">): readonly { readonly name: string; readonly at: Date }[] =>
  listFiles(context).flatMap(({ name, kind }) => {
    const at = kind === "backup" ? timeOf(name) : null;
    return at ? [{ name, at }] : [];
  });

/** When the last backup that came out whole was made, and how the last that was tried went. */
export function lastBackup(context: Pick<Context, "folder" | "backups">): ArchiveState["backups"]["last"] {
  const { last: tried } = context.backups;
  if (tried) return { at: tried.at, failed: tried.failed };
  const [newest] = madeBackups(context).toSorted((a, b) => b.at.getTime() - a.at.getTime());
  return newest ? { at: newest.at.toISOString(), failed: null } : null;
}

async function thin(context: Context): Promise<void> {
  const { settings } = await readSettings(context.db);
  const made = madeBackups(context);
  const gone = new Set(
    thinnedOut(
      made.map(({ at }) => at),
      settings.backups,
    ).map((at) => at.getTime()),
  );
  for (const { name, at } of made)
    if (gone.has(at.getTime())) rmSync(join(placeFor(context, "backup"), name), { force: true });
}

/** Makes a backup, and lets go of those that the plan does not keep. A failure is told, not thrown: the next one is tried all the same. */
export async function backUp(context: Context): Promise<void> {
  const at = context.now();
  const seq = await lastChange(context.db);
  try {
    const writing = {
      folder: context.folder,
      chosen: { presets: null, projects: null },
      scope: { kind: "all" as const },
      at,
      madeBy: MADE_BY,
    };
    const file = join(placeFor(context, "backup"), nameOf(at));
    await writeArchive(writing, file);
    statSync(file);
    context.backups.last = { at: at.toISOString(), failed: null, seq };
    await thin(context);
  } catch (error) {
    const failed = findStorageFault(error)?.message ?? messageOf(error);
    console.error(`The backup failed: ${failed}`);
    context.backups.last = { at: at.toISOString(), failed, seq: -1 };
  }
  context.events.emit("change", { seq, records: [{ kind: "settings", id: "backups" }] });
}

/** Makes a backup where one is due, and something was changed since the last. */
export async function backUpWhenDue(context: Context): Promise<boolean> {
  const { settings } = await readSettings(context.db);
  const { last } = context.backups;
  const made = lastBackup(context);
  // One that failed is tried again each time.
  const since = made === null || made.failed !== null ? null : new Date(made.at);
  if (!isDue(settings.backups, since, context.now())) return false;
  if (last && last.seq === (await lastChange(context.db))) return false;
  await backUp(context);
  return true;
}

/** Begins to make a backup now. */
export const beginBackup = (context: Context): Job =>
  startJob({ title: "Back up the library" }, async () => {
    await backUp(context);
    const last = lastBackup(context);
    if (last?.failed != null) return failure("storage", `The backup failed: ${last.failed}`);
    const [newest] = listFiles(context).filter(({ kind }) => kind === "backup");
    return ok({ kind: "wrote", file: newest?.name ?? "", bytes: newest?.bytes ?? 0, presets: 0, projects: 0 });
  });

/** How often it is looked whether one is due, in milliseconds. */
const LOOK = 10 * 60_000;
/** Not in the first moments, in which a library is opened. */
const FIRST = 30_000;

/** Looks again and again whether a backup is due; gives what ends that. */
export function keepBackups(context: Context): () => Promise<void> {
  let [isOver, timer] = [false, setTimeout(() => undefined, 0)];
  let running: Promise<unknown> = Promise.resolve();
  const look = (after: number) => {
    timer = setTimeout(() => {
      running = backUpWhenDue(context)
        .catch((error: unknown) => console.error(error))
        .finally(() => !isOver && look(LOOK));
    }, after);
    timer.unref();
  };
  look(FIRST);
  return async () => {
    isOver = true;
    clearTimeout(timer);
    await running;
  };
}
