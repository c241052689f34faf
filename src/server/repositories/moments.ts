import { deflateRawSync, inflateRawSync } from "node:zlib";
import type { Project } from "@/core/projects/project";
import { liftProject } from "@/core/projects/migrations";
import type { Executor } from "../data/executor";
import type { MomentTable } from "../data/tables";
import { readDocument } from "./documents";

/*
 * Moments of a project that are kept whole, and packed, so that every other is a few steps away. Between two of them the steps
 * take at least ten times the room of one: all of them together add no more than a tenth to the log.
 */

const LOG_PER_MOMENT = 10;

export interface Moment {
  readonly n: number;
  readonly project: Project;
}

/** How much has been written since a moment was kept last, in letters, and how large that is, in bytes; 0 where none is. */
export interface Unkept {
  readonly size: number;
  readonly written: number;
}

async function keepMoment(db: Executor, { n, project }: Moment): Promise<number> {
  const packed = deflateRawSync(JSON.stringify(project));
  await db("moments").insert({ project: project.id, n, packed });
  return packed.length;
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
  const kept = await db("moments").where({ project, n }).first<Pick<MomentTable, "packed"> | undefined>("packed");
  if (!kept) throw new Error(`${project} keeps no moment ${n}`);
  return readDocument(bodyIn(kept), liftProject, `This project as it was after change ${n}`);
}

/** What cannot be unpacked is told as what cannot be read: by whoever reads it. */
function bodyIn({ packed }: Pick<MomentTable, "packed">): string {
  try {
    return inflateRawSync(packed).toString("utf8");
  } catch {
    return "";
  }
}
