import type { Executor } from "../data/executor";

/** A wrap-up of a project. */
export interface WrapUpRecord {
  readonly at: string;
  /** What was passed over, by its fingerprint. */
  readonly passedOver: readonly string[];
}

/** The last one of a project. */
export async function findWrapUp(db: Executor, project: string): Promise<WrapUpRecord | null> {
  const row = await db("wrap_ups").where({ project }).first("at", "passed_over");
  return row ? { at: row.at, passedOver: JSON.parse(row.passed_over) as readonly string[] } : null;
}

export async function keepWrapUp(db: Executor, project: string, { at, passedOver }: WrapUpRecord): Promise<void> {
  await db("wrap_ups")
    .insert({ project, at, passed_over: JSON.stringify(passedOver) })
    .onConflict("project")
    .merge();
}
