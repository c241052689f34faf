import type { RevisionRow } from "@/contracts/records";
import type { About } from "@/core/history/about";
import { liftSteps } from "@/core/recall/migrations";
import type { Step } from "@/core/recall/steps";
import type { Executor } from "../data/executor";
import type { RevisionTable } from "../data/tables";

/* The log of a project: what was done, in steps. It only grows. */

export interface NewRevision {
  readonly label: string;
  readonly steps: readonly Step[];
  readonly at: string;
  readonly undoes?: number;
  readonly redoes?: number;
  readonly window: string | null;
}

interface Numbered extends NewRevision {
  readonly project: string;
  readonly n: number;
  readonly about: About;
}

/** Returns how much room its steps take, in letters. */
export async function insertRevision(
  db: Executor,
  { steps, about, undoes, redoes, ...said }: Numbered,
): Promise<number> {
  const written = JSON.stringify(steps);
  await db("revisions").insert({
    ...said,
    steps: written,
    about: JSON.stringify(about),
    undoes: undoes ?? null,
    redoes: redoes ?? null,
  });
  return written.length;
}

/** Numbers only, for finding what an undo undoes. */
export type RevisionLink = Pick<RevisionTable, "n" | "label" | "undoes" | "redoes" | "window">;

export const listLinks = (db: Executor, project: string): Promise<RevisionLink[]> =>
  db("revisions").where({ project }).orderBy("n").select("n", "label", "undoes", "redoes", "window");

const stepsIn = (written: string): readonly Step[] => liftSteps(JSON.parse(written));

/** Newest first. */
export async function listRevisions(db: Executor, project: string): Promise<readonly RevisionRow[]> {
  const rows = await db("revisions")
    .where({ project })
    .orderBy("n", "desc")
    .select("n", "at", "label", "undoes", "redoes", "steps");
  return rows.map((row) => ({ ...row, steps: [...stepsIn(row.steps)] }));
}

export async function getSteps(db: Executor, project: string, n: number): Promise<readonly Step[]> {
  const row = await db("revisions").where({ project, n }).first("steps");
  if (!row) throw new Error(`${project} has no revision ${n}`);
  return stepsIn(row.steps);
}

/** The steps of some revisions, by their numbers. */
export async function stepsByNumber(
  db: Executor,
  project: string,
  numbers: readonly number[],
): Promise<ReadonlyMap<number, readonly Step[]>> {
  const rows = await db("revisions")
    .where({ project })
    .whereIn("n", [...numbers])
    .select("n", "steps");
  return new Map(rows.map(({ n, steps }) => [n, stepsIn(steps)]));
}

/** The steps of each revision behind `after`, up to `to`, oldest first. */
export async function stepsBehind(
  db: Executor,
  project: string,
  { after, to }: { readonly after: number; readonly to: number },
): Promise<readonly { readonly n: number; readonly steps: readonly Step[] }[]> {
  const rows = await db("revisions")
    .where({ project })
    .whereBetween("n", [after + 1, to])
    .orderBy("n")
    .select("n", "steps");
  return rows.map(({ n, steps }) => ({ n, steps: stepsIn(steps) }));
}

export interface ToldRevision extends Pick<RevisionTable, "n" | "at" | "label" | "undoes" | "redoes" | "window"> {
  /** Null of what was done before that was kept. */
  readonly about: About | null;
}

/** What was done before a revision, the newest first, some at a time; null for the newest there is. */
export async function listTold(
  db: Executor,
  project: string,
  before: number | null,
  limit: number,
): Promise<readonly ToldRevision[]> {
  const rows = await db("revisions")
    .where({ project })
    .where("n", "<", before ?? Number.MAX_SAFE_INTEGER)
    .orderBy("n", "desc")
    .limit(limit)
    .select("n", "at", "label", "undoes", "redoes", "window", "about");
  return rows.map((row) => ({ ...row, about: row.about === null ? null : (JSON.parse(row.about) as About) }));
}

/** What each revision behind `after`, up to `to`, concerned, oldest first; of those from before that was kept, nothing. */
export async function aboutsBehind(
  db: Executor,
  project: string,
  { after, to }: { readonly after: number; readonly to: number },
): Promise<readonly About[]> {
  const rows = await db("revisions")
    .where({ project })
    .whereBetween("n", [after + 1, to])
    .whereNotNull("about")
    .orderBy("n")
    .select("about");
  return rows.map(({ about }) => JSON.parse(about ?? "") as About);
}
