import equal from "fast-deep-equal";
import { type Pack, withBeside } from "@/core/packs/pack";
import { fingerprint } from "@/core/presets/fingerprint";
import type { Context } from "../store/context";
import { inTransaction } from "../store/transaction";
import { appendVersion, insertPreset, keepPackCard, updateCard } from "../repositories/presets";
import { listOfPack } from "../repositories/preset-lists";

/** When a pack's presets were "saved", for the order of lists: before anything that a person made. */
const PACK_DATE = "2026-01-01T00:00:00.000Z";

/**
 * Brings a pack into the library, and up to date where an older one of its name is there: what sounds otherwise now is the
 * next version, so that strips which came from an earlier one still know it. How the person has rated, tagged and filed one
 * stays. Without news nothing is written.
 */
export async function installPack(context: Context, { name, presets }: Pack): Promise<void> {
  const here = await listOfPack(context.db, name);
  const news = presets.filter(({ id, card, content }) => {
    const known = here.get(id);
    return !known || known.fingerprint !== fingerprint(content) || !equal(known.came, card);
  });
  if (news.length === 0) return;
  await inTransaction(context, async (tx, note) => {
    for (const { id, card, content } of news) {
      const known = here.get(id);
      if (!known) await insertPreset(tx, { id, content, card, at: PACK_DATE, pack: name });
      if (known && known.fingerprint !== fingerprint(content))
        await appendVersion(tx, { id, version: known.row.version + 1, content, at: context.now().toISOString() });
      if (known && !equal(known.came, card)) {
        await updateCard(tx, known.row, withBeside(card, { came: known.came, stands: known.row.card }), null);
        await keepPackCard(tx, id, card);
      }
      note({ kind: "preset", id });
    }
  });
}
