import type { BinnedRow } from "@/contracts/records";
import { ok } from "@/core/result";
import type { Context } from "../../data/context";
import { inTransaction } from "../../data/transaction";
import type { Outcome } from "../../failure";
import * as presets from "../../repositories/presets";
import { listBinned, listMerged } from "../../repositories/preset-lists";

/** What is in the bin, the last thrown away first, each with how many strips of projects use it. */
export const listBin = ({ db }: Context): Promise<readonly BinnedRow[]> => listBinned(db);

/**
 * Takes presets that are in the bin away for good, with all their versions: the only thing here that cannot be undone.
 * Without ids, all of them. What is not in the bin is left alone.
 */
export async function emptyBin(context: Context, ids: readonly string[] | null): Promise<Outcome<{ gone: number }>> {
  const gone = await inTransaction(context, async (tx, note) => {
    const binned = (await listBinned(tx)).map((row) => row.id).filter((id) => ids === null || ids.includes(id));
    for (const id of binned) {
      // What was merged into it lives in it, and goes with it.
      for (const part of [...(await listMerged(tx, id)).map((m) => m.id), id]) {
        await presets.destroyPreset(tx, part);
        note({ kind: "preset", id: part });
      }
    }
    return binned.length;
  });
  return ok({ gone });
}
