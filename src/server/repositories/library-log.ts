import type { HistoryLink } from "@/core/documents/history";
import type { LibraryStep } from "@/core/library/step";
import type { Executor } from "../data/transaction";

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
export const listLinks = (db: Executor): Promise<HistoryLink[]> =>
  db<HistoryLink>("library_log").orderBy("n").select("n", "label", "undoes", "redoes");

export async function getSteps(db: Executor, n: number): Promise<readonly LibraryStep[]> {
  const row = await db<{ n: number; steps: string }>("library_log").where({ n }).first("steps");
  return row ? (JSON.parse(row.steps) as LibraryStep[]) : [];
}
