/** A record that changed, as windows and indexes hear of it. */
export interface ChangedRecord {
  readonly kind: "preset" | "folder" | "project" | "media" | "settings";
  readonly id: string;
  /** Of a project: the one that the change has made, where it made one. */
  readonly revision?: number;
}

/** Tells, within a transaction, what it changes. */
export type Note = (record: ChangedRecord) => void;
