import type { EventEmitter } from "node:events";
import type { Knex } from "knex";
import type { ChangedRecord } from "../data/changes";
import type { LibraryFile } from "../data/library-file";
import type { RunCheck } from "../check/run";
import type { RunNearCopies } from "../near-copies/run";
import type { RunSheet } from "../sheets/run";
import type { LibrarySearch } from "../search/library-search";
import type { StripSearch } from "../search/strip-search";

/** The last backup that was tried since this process began. */
export interface LastBackup {
  readonly at: string;
  /** Why it failed; null where it came out whole. */
  readonly failed: string | null;
  /** The last change that is in it. */
  readonly seq: number;
}

/** What every use-case is handed: the store, the clock, new ids, and the ear of the other windows. */
export interface Context {
  /** Reads what was committed last. */
  readonly db: Knex;
  /** Writes, in transactions only: see `inTransaction`. */
  readonly writer: Knex;
  readonly file: LibraryFile;
  /** Asks for what was written to be brought into the library's file itself, once nothing more is written for a while. */
  readonly settle: () => void;
  readonly folder: string;
  readonly now: () => Date;
  readonly mint: () => string;
  readonly search: LibrarySearch;
  readonly strips: StripSearch;
  readonly runNearCopies: RunNearCopies;
  readonly runCheck: RunCheck;
  readonly runSheet: RunSheet;
  /** How the last backup went; the clock and the routes, which are built apart, both know it. */
  readonly backups: { last: LastBackup | null };
  readonly events: EventEmitter<{ change: [{ seq: number; records: readonly ChangedRecord[] }] }>;
}

export interface OpenContext extends Context {
  readonly close: () => Promise<void>;
}
