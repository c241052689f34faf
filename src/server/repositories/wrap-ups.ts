import type { FiledWrapUp } from "@/core/archive/documents";
import type { Executor } from "../data/executor";

/** A wrap-up of a project. */
export interface WrapUpRecord {
  readonly at: string;
  /** What was passed over, by its fingerprint. */
  readonly passedOver: readonly string[];
  /** What it is in the library's log and in the project's; null where nothing was filed. */
  readonly undo: { readonly log: number; readonly revision: number | null } | null;
}

/** The last one of a project. */
export async function findWrapUp(db: Executor, project: string): Promise<WrapUpRecord | null> {
  const row = await db("wrap_ups").where({ project }).orderBy("id", "desc").first();
  if (!row) return null;
  const { at, passed_over, log, revision } = row;
  const passedOver = JSON.parse(passed_over) as readonly string[];
  return { at, passedOver, undo: log === null ? null : { log, revision } };
}

export async function keepWrapUp(db: Executor, project: string, { at, passedOver, undo }: WrapUpRecord): Promise<void> {
  const passed_over = JSON.stringify(passedOver);
  await db("wrap_ups").insert({ project, at, passed_over, log: undo?.log ?? null, revision: undo?.revision ?? null });
}

/** Writes a wrap-up as another library has it, where its project is here. */
export async function insertWrapUp(db: Executor, { passedOver, ...said }: FiledWrapUp): Promise<void> {
  if (!(await db("projects").where({ id: said.project }).first("id"))) return;
  await db("wrap_ups").insert({ ...said, passed_over: JSON.stringify(passedOver) });
}

/** It was taken back: the one before it is the last again. */
export const forgetWrapUp = (db: Executor, project: string, log: number): Promise<unknown> =>
  db("wrap_ups").where({ project, log }).delete();

/** The projects that were wrapped up together, by what that is in the library's log: what it is in each project's. */
export const wrapUpsOf = (
  db: Executor,
  log: number,
): Promise<readonly { project: string; revision: number | null }[]> =>
  db("wrap_ups").where({ log }).orderBy("id").select("project", "revision");
