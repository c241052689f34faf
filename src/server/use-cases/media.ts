import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import type { MediaRow } from "@/contracts/records";
import { readWav } from "@/core/formats/wav/wav";
import { ok } from "@/core/result";
import type { Context } from "../data/context";
import { inTransaction } from "../data/transaction";
import { type Outcome, failure } from "../failure";
import { findMedia, findMediaBytes, insertMedia, listMedia } from "../repositories/media";

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
