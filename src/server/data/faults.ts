import type { ApiError } from "@/contracts/errors";

/** Why a database is not opened, in words for the person who started the server. */
export class DatabaseRefused extends Error {}

/**
 * Of errors that say in their own words what is wrong. A code and no class is asked for: the server and the route handlers are
 * built apart, and what one throws is of no class that the other knows.
 */
const IN_WORDS = "STORAGE_IN_WORDS";

/** The file that was opened is not the one that stands in its place any more. */
export class LibraryGone extends Error {
  readonly code = IN_WORDS;
}

/** A document that is in the store cannot be read as what it was written as. */
export class Unreadable extends Error {
  readonly code = IN_WORDS;
}

const DISK_FULL = "The disk is full. Nothing was changed; make room on it and do it again.";
const BUSY = "Another program holds the library's file. Nothing was changed; close it, or do it again in a moment.";
const READ_ONLY =
  "The library's file cannot be written: it, its folder or its disk is read-only. Nothing was changed; allow writing there and do it again.";
const CANNOT_OPEN = "The library's file cannot be opened. See that its folder is there and may be written by you.";
const DAMAGED =
  "The library's file is damaged. Stop Diathesis, lay the file aside, and put a backup or one of the copies beside it in its place.";
const DISK_FAULT =
  "The disk reported a fault while the library was read or written. Nothing was changed; check the disk before you go on.";

/** What SQLite and the system say, by how it begins, and what a person is told. */
const FAULTS: readonly (readonly [begins: string, code: ApiError["code"], words: string])[] = [
  ["SQLITE_FULL", "diskFull", DISK_FULL],
  ["ENOSPC", "diskFull", DISK_FULL],
  ["EDQUOT", "diskFull", DISK_FULL],
  ["SQLITE_BUSY", "busy", BUSY],
  ["SQLITE_LOCKED", "busy", BUSY],
  ["SQLITE_READONLY", "storage", READ_ONLY],
  ["SQLITE_PERM", "storage", READ_ONLY],
  ["EROFS", "storage", READ_ONLY],
  ["EACCES", "storage", READ_ONLY],
  ["EPERM", "storage", READ_ONLY],
  ["SQLITE_CANTOPEN", "storage", CANNOT_OPEN],
  ["ENOTDIR", "storage", CANNOT_OPEN],
  ["EEXIST", "storage", CANNOT_OPEN],
  ["SQLITE_CORRUPT", "storage", DAMAGED],
  ["SQLITE_NOTADB", "storage", DAMAGED],
  ["SQLITE_IOERR", "storage", DISK_FAULT],
  ["EIO", "storage", DISK_FAULT],
];

/** A fault of the storage in words, with the way out; null for what is none. */
export function findStorageFault(error: unknown): ApiError | null {
  const code = error instanceof Error && "code" in error ? String(error.code) : "";
  if (code === IN_WORDS) return { code: "storage", message: (error as Error).message };
  const known = FAULTS.find(([begins]) => code.startsWith(begins));
  return known ? { code: known[1], message: known[2] } : null;
}
