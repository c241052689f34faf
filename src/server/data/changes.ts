import type { Executor } from "./executor";

/** A record that changed, as windows and indexes hear of it. */
export interface ChangedRecord {
  readonly kind: "preset" | "folder" | "project" | "media" | "settings";
  readonly id: string;
  /** Of a project: the one that the change has made, where it made one. */
  readonly revision?: number;
}

/** Tells, within a transaction, what it changes. */
export type Note = (record: ChangedRecord) => void;

/** The number of the last change of anything: what was read before it may be otherwise by now. */
export async function lastChange(db: Executor): Promise<number> {
  const row = await db("changes").max({ seq: "seq" }).first();
  return Number(row?.seq ?? 0);
}
