import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";

export interface FolderLock {
  release(): void;
}

/** Why a data folder cannot be had, in words for the person who started the server. */
export class FolderInUse extends Error {}

/**
 * One process has a data folder. The lock is an open exclusive transaction: the system itself lets go of it when the
 * process ends, however it ends, so there is no stale lock to clear by hand. A text beside it says who has it.
 */
export function lockFolder(folder: string, who: string): FolderLock {
  mkdirSync(folder, { recursive: true });
  const owner = join(folder, "lock-owner.txt");
  const db = new Database(join(folder, "lock.db"), { timeout: 0 });
  try {
    db.exec("BEGIN EXCLUSIVE");
  } catch {
    db.close();
    throw new FolderInUse(
      `The data folder ${folder} is in use by ${readOwner(owner)}. Close that one, or choose another folder.`,
    );
  }
  writeFileSync(owner, who);
  return {
    release() {
      db.exec("ROLLBACK");
      db.close();
    },
  };
}

function readOwner(file: string): string {
  try {
    return readFileSync(file, "utf8").trim() || "another Diathesis";
  } catch {
    return "another Diathesis";
  }
}
