import type { Project } from "@/core/projects/project";
import { liftProject } from "@/core/projects/migrations";
import type { Executor } from "../data/executor";
import type { MomentTable } from "../data/tables";
import { readDocument } from "./documents";

/*
 * Moments of a project that are kept whole, so that every other is a few steps away. Between two of them the steps take
 * at least three times the room of one: all of them together add no more than a third to the log.
 */

const LOG_PER_MOMENT = 3;

export interface Moment {
  readonly n: number;
  readonly project: Project;
}

/** How much has been written since a moment was kept last, and how large that is, both in letters; a size of 0 where none is. */
export interface Unkept {
  readonly size: number;
  readonly written: number;
}

async function keepMoment(db: Executor, { n, project }: Moment): Promise<number> {
  const body = JSON.stringify(project);
  await db("moments").insert({ project: project.id, n, body });
  return body.length;
}

interface Change {
  readonly before: Moment;
  readonly after: Moment;
  /** How much room its steps take, in letters. */
  readonly written: number;
}

/** Keeps what is to be kept of a change: what stood before the first one, and what stands whenever enough was written. */
export async function keepSometimes(db: Executor, { size, written: before }: Unkept, change: Change): Promise<Unkept> {
  if (size === 0) return { size: await keepMoment(db, change.before), written: change.written };
  const written = before + change.written;
  if (written < LOG_PER_MOMENT * size) return { size, written };
  return { size: await keepMoment(db, change.after), written: 0 };
}

/** The last moment that is kept up to a revision, and the first one behind it; each null where there is none. */
export async function numbersAround(
  db: Executor,
  project: string,
  n: number,
): Promise<{ readonly upTo: number | null; readonly behind: number | null }> {
  const kept = db("moments").where({ project });
  const upTo = await kept.clone().andWhere("n", "<=", n).orderBy("n", "desc").first("n");
  const behind = await kept.clone().andWhere("n", ">", n).orderBy("n").first("n");
  return { upTo: upTo?.n ?? null, behind: behind?.n ?? null };
}

export async function getMoment(db: Executor, project: string, n: number): Promise<Project> {
  const kept = await db("moments").where({ project, n }).first<Pick<MomentTable, "body"> | undefined>("body");
  if (!kept) throw new Error(`${project} keeps no moment ${n}`);
  return readDocument(kept.body, liftProject, `This project as it was after change ${n}`);
}
