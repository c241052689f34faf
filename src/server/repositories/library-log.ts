import type { FiledEntry } from "@/core/archive/documents";
import type { HistoryLink } from "@/core/documents/history";
import type { LibraryStep } from "@/core/library/step";
import type { Executor } from "../data/executor";
import { readLibrarySteps } from "../data/stored";
import type { LogTable } from "../data/tables";

export interface LogEntry {
  readonly at: string;
  readonly label: string;
  readonly steps: readonly LibraryStep[];
  readonly undoes?: number;
  readonly redoes?: number;
  readonly window: string | null;
  readonly about: About;
}

/** What a change concerned: how many things, and some of them as they were called then. */
export interface About {
  readonly count: number;
  readonly some: readonly {
    readonly kind: "preset" | "project" | "folder" | "search";
    readonly id: string;
    readonly name: string;
  }[];
}

/** Appends what was done; the log only grows. Its number there. */
export async function appendLog(db: Executor, { steps, about, undoes, redoes, ...said }: LogEntry): Promise<number> {
  const [n = 0] = await db("library_log").insert({
    ...said,
    steps: JSON.stringify(steps),
    about: JSON.stringify(about),
    undoes: undoes ?? null,
    redoes: redoes ?? null,
  });
  return n;
}

/** Writes an entry as another library has it, under its number there. */
export async function insertEntry(db: Executor, { steps, about, closed, ...said }: FiledEntry): Promise<void> {
  const told = about === null ? null : JSON.stringify(about);
  await db("library_log").insert({ ...said, steps: JSON.stringify(steps), about: told, closed: closed ? 1 : 0 });
}

export interface LogLink extends HistoryLink {
  readonly window: string | null;
}

/** From the first entry to the last. */
export async function listLinks(db: Executor): Promise<LogLink[]> {
  const rows = await db("library_log").orderBy("n").select("n", "label", "undoes", "redoes", "closed", "window");
  return rows.map(({ closed, ...link }) => ({ ...link, closed: closed === 1 }));
}

export interface ToldEntry extends Pick<LogTable, "n" | "at" | "label" | "undoes" | "redoes" | "window"> {
  readonly about: About | null;
}

/** What was done before an entry, the newest first, some at a time; null for the newest there is. */
export async function listTold(db: Executor, before: number | null, limit: number): Promise<readonly ToldEntry[]> {
  const rows = await db("library_log")
    .where("n", "<", before ?? Number.MAX_SAFE_INTEGER)
    .orderBy("n", "desc")
    .limit(limit)
    .select("n", "at", "label", "undoes", "redoes", "window", "about");
  return rows.map((row) => ({ ...row, about: row.about === null ? null : (JSON.parse(row.about) as About) }));
}

/** What was done last with an entry: by itself, by its last undo or its last redo. */
export async function lastSteps(db: Executor, n: number): Promise<readonly LibraryStep[]> {
  const row = await db("library_log")
    .where({ n })
    .orWhere({ undoes: n })
    .orWhere({ redoes: n })
    .orderBy("n", "desc")
    .first("steps");
  return row ? readLibrarySteps(row.steps) : [];
}

export const closeEntry = (db: Executor, n: number): Promise<unknown> =>
  db("library_log").where({ n }).update({ closed: 1 });

/** Closes the entries of which every step concerns a preset that is gone for good. */
export const closeGone = (db: Executor): Promise<unknown> =>
  db.raw(`
    UPDATE library_log SET closed = 1 WHERE closed = 0 AND NOT EXISTS (
      SELECT 1 FROM json_each(steps) AS step
      WHERE json_extract(step.value, '$.preset') IS NULL OR (
        EXISTS (SELECT 1 FROM presets WHERE id = json_extract(step.value, '$.preset')) AND (
          json_extract(step.value, '$.kind') <> 'merge' OR EXISTS (
            SELECT 1 FROM presets
            WHERE id = coalesce(json_extract(step.value, '$.to'), json_extract(step.value, '$.from'))
          )
        )
      )
    )
  `);
