import type { Gone } from "@/contracts/library";
import type { BinnedRow } from "@/contracts/records";
import { ok } from "@/core/result";
import type { Context } from "../../store/context";
import { inTransaction } from "../../store/transaction";
import type { Outcome } from "../../failure";
import { closeGone } from "../../repositories/library-log";
import { listBinned, listMerged } from "../../repositories/preset-lists";
import { takingTurns } from "../../turns";
import { forgetFigures } from "../projects/figures";
import * as presets from "../../repositories/presets";

/** What is in the bin, the last thrown away first, each with how many strips of projects use it. */
export const listBin = ({ db }: Context): Promise<readonly BinnedRow[]> => listBinned(db);

/**
 * Takes presets that are in the bin away for good, with all their versions: the only thing here that cannot be undone.
 * Without ids, all of them. What is not in the bin is left alone; what was put into one of them was never thrown away, and
 * stands by itself again. Changes that concern nothing else any more are not offered to be undone.
 */
export async function emptyBin(context: Context, ids: readonly string[] | null): Promise<Outcome<Gone>> {
  const wanted = ids && new Set(ids);
  const emptied = await inTransaction(context, async (tx, note) => {
    const at = context.now().toISOString();
    const binned = (await listBinned(tx)).map((row) => row.id).filter((id) => !wanted || wanted.has(id));
    let back = 0;
    const turn = takingTurns();
    for (const id of binned) {
      await turn();
      for (const inner of await listMerged(tx, id)) {
        await presets.setMerged(tx, inner.id, null, at);
        note({ kind: "preset", id: inner.id });
        back += 1;
      }
      await presets.destroyPreset(tx, id);
      note({ kind: "preset", id });
    }
    if (binned.length > 0) await closeGone(tx);
    return { gone: binned.length, back };
  });
  if (emptied.gone > 0) forgetFigures(context);
  return ok(emptied);
}
