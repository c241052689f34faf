import type { MediaRow } from "@/contracts/records";
import type { Executor } from "../data/executor";
import type { MediaTable } from "../data/tables";
import { takingTurns } from "../turns";

const toRow = ({ hash, name, seconds, added_at }: Omit<MediaTable, "bytes">): MediaRow => ({
  hash,
  name,
  seconds,
  addedAt: added_at,
});

const rows = (db: Executor) => db("media").select("hash", "name", "seconds", "added_at");

/** The newest first, without their bytes. */
export const listMedia = async (db: Executor): Promise<readonly MediaRow[]> =>
  (await rows(db).orderBy("added_at", "desc")).map(toRow);

export async function findMedia(db: Executor, hash: string): Promise<MediaRow | null> {
  const row = await rows(db).where({ hash }).first();
  return row ? toRow(row) : null;
}

export async function findMediaBytes(db: Executor, hash: string): Promise<Uint8Array | null> {
  const row = await db("media").where({ hash }).first("bytes");
  return row ? new Uint8Array(row.bytes) : null;
}

export const insertMedia = (db: Executor, { addedAt, ...row }: MediaRow, bytes: Uint8Array): Promise<unknown> =>
  db("media").insert({ ...row, added_at: addedAt, bytes: Buffer.from(bytes) });

/** How many bytes each sound takes, by its hash. */
export async function sizesOfMedia(db: Executor): Promise<ReadonlyMap<string, number>> {
  const found = await db("media").select<(Pick<MediaTable, "hash"> & { size: number })[]>(
    "hash",
    db.raw("length(bytes) AS size"),
  );
  return new Map(found.map(({ hash, size }) => [hash, size]));
}

/** Hashes as documents and steps name them. */
const HASH = /"hash":"([0-9a-f]{64})"/g;

const CHUNK = 1000;

/** Texts that name any hash, a stretch of rows at a time. */
async function* textsWithHashes(db: Executor): AsyncGenerator<string> {
  const named = (column: string) => `instr(${column}, '"hash":"') > 0`;
  for (const table of ["documents", "project_strips"]) {
    const [{ last } = { last: 0 }] = await db.raw<{ last: number | null }[]>(`SELECT max(rowid) AS last FROM ${table}`);
    for (let from = 0; from < (last ?? 0); from += CHUNK) {
      const sql = `SELECT body AS text FROM ${table} WHERE rowid > ? AND rowid <= ? AND ${named("body")}`;
      for (const { text } of await db.raw<{ text: string }[]>(sql, [from, from + CHUNK])) yield text;
    }
  }
  const projects = await db("projects").select("id");
  for (const { id } of projects) {
    const sql = `SELECT steps AS text FROM revisions WHERE project = ? AND ${named("steps")}`;
    for (const { text } of await db.raw<{ text: string }[]>(sql, [id])) yield text;
  }
}

/**
 * The hashes that anything names: a version of a preset, a project, a draft, or a change that can be taken back. In turns with
 * others.
 */
export async function hashesInUse(db: Executor): Promise<ReadonlySet<string>> {
  const turn = takingTurns();
  const used = new Set<string>();
  for await (const text of textsWithHashes(db)) {
    for (const [, hash] of text.matchAll(HASH)) used.add(hash!);
    await turn();
  }
  return used;
}

export const deleteMedia = (db: Executor, hashes: readonly string[]): Promise<number> =>
  db("media")
    .whereIn("hash", [...hashes])
    .delete();
