import type { HistoryLink } from "@/core/documents/history";
import type { LibraryStep } from "@/core/library/step";
import type { Executor } from "../data/executor";
import { readLibrarySteps } from "../data/stored";

export interface LogEntry {
  readonly at: string;
  readonly label: string;
  readonly steps: readonly LibraryStep[];
  readonly undoes?: number;
  readonly redoes?: number;
}

/** Appends what was done; the log only grows. */
export const appendLog = (db: Executor, { at, label, steps, undoes, redoes }: LogEntry): Promise<unknown> =>
  db("library_log").insert({
    at,
    label,
    steps: JSON.stringify(steps),
    undoes: undoes ?? null,
    redoes: redoes ?? null,
  });

/** From the first entry to the last. */
export async function listLinks(db: Executor): Promise<HistoryLink[]> {
  const rows = await db("library_log").orderBy("n").select("n", "label", "undoes", "redoes", "closed");
  return rows.map(({ closed, ...link }) => ({ ...link, closed: closed === 1 }));
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
      WHERE json_extract(step.value, '$.kind') = 'folder' OR (
        EXISTS (SELECT 1 FROM presets WHERE id = json_extract(step.value, '$.preset')) AND (
          json_extract(step.value, '$.kind') <> 'merge' OR EXISTS (
            SELECT 1 FROM presets
            WHERE id = coalesce(json_extract(step.value, '$.to'), json_extract(step.value, '$.from'))
          )
        )
      )
    )
  `);
