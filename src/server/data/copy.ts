import { closeSync, existsSync, fsyncSync, openSync, renameSync, rmSync } from "node:fs";
import { dirname } from "node:path";
import Database from "better-sqlite3";

/** Why a copy was not made, in words; nothing is left of it. */
export class CopyFailed extends Error {}

function flush(path: string): void {
  const file = openSync(path, "r");
  try {
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}

/** Throws where a copy is damaged or is no library. */
function check(path: string): void {
  const db = new Database(path, { readonly: true });
  try {
    const found = db.pragma("integrity_check", { simple: true });
    if (found !== "ok") throw new CopyFailed(`The copy is not sound: ${String(found)}.`);
    for (const table of ["presets", "projects", "documents"]) db.prepare(`SELECT count(*) FROM ${table}`).get();
  } finally {
    db.close();
  }
}

/**
 * Copies a library that may be open, and written to, elsewhere: a moment of it, whole. The copy is made under another name,
 * checked, flushed to the disk and only then given its own: a half one never stands among the good ones. Throws `CopyFailed`.
 */
export function copyLibrary(from: string, to: string): void {
  if (existsSync(to)) throw new CopyFailed(`There is a file ${to} already; it stays. Choose another name.`);
  const part = `${to}.part-${process.pid}`;
  const source = new Database(from, { readonly: true, fileMustExist: true });
  try {
    source.pragma("busy_timeout = 5000");
    source.prepare("VACUUM INTO ?").run(part);
    flush(part);
    check(part);
    renameSync(part, to);
    flush(dirname(to));
  } finally {
    source.close();
    rmSync(part, { force: true });
  }
}
