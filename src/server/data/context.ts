import { EventEmitter } from "node:events";
import { randomBytes } from "node:crypto";
import type { Knex } from "knex";
import { type RunNearCopies, runHere } from "../near-copies/run";
import { mergeSome } from "../repositories/preset-search";
import { LibrarySearch } from "../search/library-search";
import { openDatabase, openReader } from "./database";
import { LibraryFile } from "./library-file";
import { type FolderLock, lockFolder } from "./lock";

/** A record that changed, as windows and indexes hear of it. */
export interface ChangedRecord {
  readonly kind: "preset" | "folder" | "project" | "media" | "settings";
  readonly id: string;
}

/** Tells, within a transaction, what it changes. */
export type Note = (record: ChangedRecord) => void;

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
  readonly runNearCopies: RunNearCopies;
  readonly events: EventEmitter<{ change: [{ seq: number; records: readonly ChangedRecord[] }] }>;
}

export interface OpenContext extends Context {
  readonly close: () => Promise<void>;
}

/** 96 random bits: no two meet. */
export const mintId = (): string => randomBytes(12).toString("base64url");

/** Nothing was written for so long, in milliseconds. */
const IDLE = 1000;
/** It is put off no longer than this by what is written meanwhile, in milliseconds. */
const LONGEST_UNSETTLED = 10_000;
/** Between two steps of the tidying, for whoever wants to write. */
const PAUSE = 4;

/** What SQLite answers to a checkpoint: pages that stood beside the library's file, and how many are in it by now. */
interface Checkpoint {
  readonly log: number;
  readonly checkpointed: number;
}

/**
 * What was written stands in a file beside the library's for a while, and its words in a part of the durable index of their
 * own. Once all is quiet the parts are merged, and all is brought over, so that whoever copies the one file has everything.
 */
function settling(writer: Knex, file: LibraryFile): { settle: () => void; stop: () => Promise<void> } {
  let timer: NodeJS.Timeout | undefined;
  let since: number | null = null;
  let isOver = false;
  const bringOver = async () => {
    try {
      do {
        file.check();
        await new Promise((resolve) => setTimeout(resolve, PAUSE));
      } while (!isOver && (await mergeSome(writer)));
      file.check();
      // One that waits for nobody: what somebody is still reading from comes with the next.
      const [done] = await writer.raw<Checkpoint[]>("PRAGMA wal_checkpoint(PASSIVE)");
      if (done && done.checkpointed < done.log && !isOver) settle();
    } catch (error) {
      // What is told with the next write need not be told by what nobody has asked for.
      console.error(error instanceof Error ? error.message : error);
    }
  };
  let running = Promise.resolve();
  const settle = () => {
    clearTimeout(timer);
    since ??= Date.now();
    const wait = Math.min(IDLE, Math.max(0, since + LONGEST_UNSETTLED - Date.now()));
    timer = setTimeout(() => {
      since = null;
      running = running.then(bringOver);
    }, wait).unref();
  };
  return {
    settle,
    stop() {
      clearTimeout(timer);
      isOver = true;
      return running;
    },
  };
}

/** Takes the folder's lock, opens and migrates the database. Throws `FolderInUse` or `DatabaseRefused`. */
export async function openContext(
  folder: string,
  { runNearCopies = runHere, anew = false }: { readonly runNearCopies?: RunNearCopies; readonly anew?: boolean } = {},
): Promise<OpenContext> {
  const lock: FolderLock = lockFolder(folder, `process ${process.pid}`);
  try {
    const writer = await openDatabase(folder, new Date(), { anew });
    const db = openReader(folder);
    const search = new LibrarySearch();
    await search.build(db);
    const file = new LibraryFile(folder);
    const { settle, stop } = settling(writer, file);
    const events = new EventEmitter<{ change: [{ seq: number; records: readonly ChangedRecord[] }] }>();
    events.setMaxListeners(200);
    const close = async () => {
      await stop();
      await search.settled();
      await db.destroy();
      await writer.destroy();
      lock.release();
    };
    return {
      db,
      writer,
      file,
      settle,
      folder,
      runNearCopies,
      now: () => new Date(),
      mint: mintId,
      search,
      events,
      close,
    };
  } catch (error) {
    lock.release();
    throw error;
  }
}

const SHARED = Symbol.for("diathesis.context");
type Shared = typeof globalThis & { [SHARED]?: Context };

/** The server before Next and the route handlers are built apart and meet here. */
export function shareContext(context: Context): void {
  (globalThis as Shared)[SHARED] = context;
}

export function sharedContext(): Context {
  const context = (globalThis as Shared)[SHARED];
  if (!context)
    throw new Error("The store is opened by the server before Next: start it by npm start or npm run demo.");
  return context;
}
