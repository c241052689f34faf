/** A record that changed, as windows and indexes hear of it. */
export interface ChangedRecord {
  readonly kind: "preset" | "folder" | "project" | "media" | "settings";
  readonly id: string;
}

/** Tells, within a transaction, what it changes. */
export type Note = (record: ChangedRecord) => void;
