import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import type { MediaRoom } from "@/contracts/projects";
import type { MediaRow } from "@/contracts/records";
import { readWav } from "@/core/formats/wav/wav";
import { ok } from "@/core/result";
import type { Context } from "../store/context";
import { inTransaction } from "../store/transaction";
import { transact } from "../store/transact";
import { type Outcome, failure, refuse } from "../failure";
import {
  deleteMedia,
  findMedia,
  findMediaBytes,
  hashesInUse,
  insertMedia,
  listMedia,
  sizesOfMedia,
} from "../repositories/media";

/** In seconds. A loop to judge by, or one sound of a sampler, is shorter. */
const LONGEST = 60;

export const allMedia = ({ db }: Context): Promise<readonly MediaRow[]> => listMedia(db);

/** Keeps a WAV file by its hash. The same bytes again are the same record, whatever they are called. */
export async function keepMedia(context: Context, name: string, bytes: Uint8Array): Promise<Outcome<MediaRow>> {
  const sound = readWav(bytes);
  if (!sound.ok) return failure("refused", sound.error, { path: "body" });
  const seconds = sound.value.left.length / sound.value.sampleRate;
  if (seconds === 0) return failure("refused", "The file holds no sound.", { path: "body" });
  if (seconds > LONGEST) return failure("refused", `A sound is ${LONGEST} s long at the most.`, { path: "body" });
  const hash = bytesToHex(sha256(bytes));
  const row: MediaRow = { hash, name, seconds, addedAt: context.now().toISOString() };
  return inTransaction(context, async (tx, note) => {
    const known = await findMedia(tx, hash);
    if (known) return ok(known);
    await insertMedia(tx, row, bytes);
    note({ kind: "media", id: hash });
    return ok(row);
  });
}

export async function mediaBytes({ db }: Context, hash: string): Promise<Outcome<Uint8Array>> {
  const bytes = await findMediaBytes(db, hash);
  return bytes ? ok(bytes) : failure("notFound", "This sound is not here.");
}

/** Every sound of one's own with the room that it takes, and whether anything uses it. */
export async function mediaRoom({ db }: Context): Promise<MediaRoom> {
  const [rows, sizes, used] = [await listMedia(db), await sizesOfMedia(db), await hashesInUse(db)];
  return { items: rows.map((row) => ({ ...row, bytes: sizes.get(row.hash) ?? 0, used: used.has(row.hash) })) };
}

/** Takes sounds away for good that nothing uses, all or none: no project, no version of a preset, no change before. */
export function removeMedia(context: Context, hashes: readonly string[]): Promise<Outcome<{ gone: number }>> {
  return transact(context, async (tx, note) => {
    const used = await hashesInUse(tx);
    for (const [at, hash] of hashes.entries()) {
      const media = await findMedia(tx, hash);
      if (!media) refuse("notFound", "This sound is not here.", { path: `hashes[${at}]` });
      if (used.has(hash))
        refuse(
          "refused",
          `“${media?.name ?? ""}” is used by a preset or a project, or by a change that can be undone.`,
          {
            path: `hashes[${at}]`,
          },
        );
      note({ kind: "media", id: hash });
    }
    return { gone: await deleteMedia(tx, hashes) };
  });
}
