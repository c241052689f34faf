import { EventEmitter } from "node:events";
import type { ChangedRecord } from "../data/changes";
import { checkHere } from "../check/run";
import { openDatabase, openReader } from "../data/database";
import { LibraryFile } from "../data/library-file";
import { type FolderLock, lockFolder } from "../data/lock";
import { runHere } from "../near-copies/run";
import { deriveAgain } from "../repositories/derived";
import { LibrarySearch } from "../search/library-search";
import { StripSearch } from "../search/strip-search";
import { printHere } from "../sheets/run";
import type { Context, OpenContext } from "./context";
import { mintId } from "./mint";
import { settling } from "./settling";

/** Takes the folder's lock, opens and migrates the database. Throws `FolderInUse` or `DatabaseRefused`. */
export async function openContext(
  folder: string,
  {
    runNearCopies = runHere,
    runCheck = checkHere,
    runSheet = printHere,
    anew = false,
  }: Partial<Pick<Context, "runNearCopies" | "runCheck" | "runSheet">> & { readonly anew?: boolean } = {},
): Promise<OpenContext> {
  const lock: FolderLock = lockFolder(folder, `process ${process.pid}`);
  try {
    const writer = await openDatabase(folder, new Date(), { anew });
    await deriveAgain(writer);
    const db = openReader(folder);
    const search = new LibrarySearch();
    await search.build(db);
    const strips = new StripSearch();
    await strips.build(db);
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
      runCheck,
      runSheet,
      now: () => new Date(),
      mint: mintId,
      search,
      strips,
      backups: { last: null },
      events,
      close,
    };
  } catch (error) {
    lock.release();
    throw error;
  }
}
