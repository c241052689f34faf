import type { MediaRow } from "@/contracts/records";
import type { Executor } from "../data/transaction";

interface StoredMedia {
  readonly hash: string;
  readonly name: string;
  readonly seconds: number;
  readonly added_at: string;
  readonly bytes: Buffer;
}

const toRow = ({ hash, name, seconds, added_at }: Omit<StoredMedia, "bytes">): MediaRow => ({
  hash,
  name,
  seconds,
  addedAt: added_at,
});

const rows = (db: Executor) => db<StoredMedia>("media").select("hash", "name", "seconds", "added_at");

/** The newest first, without their bytes. */
export const listMedia = async (db: Executor): Promise<readonly MediaRow[]> =>
  (await rows(db).orderBy("added_at", "desc")).map(toRow);

export async function findMedia(db: Executor, hash: string): Promise<MediaRow | null> {
  const row = await rows(db).where({ hash }).first();
  return row ? toRow(row) : null;
}

export async function findMediaBytes(db: Executor, hash: string): Promise<Uint8Array | null> {
  const row = await db<StoredMedia>("media").where({ hash }).first("bytes");
  return row ? new Uint8Array(row.bytes) : null;
}

export const insertMedia = (db: Executor, { addedAt, ...row }: MediaRow, bytes: Uint8Array): Promise<unknown> =>
  db("media").insert({ ...row, added_at: addedAt, bytes: Buffer.from(bytes) });
