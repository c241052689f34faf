import type { Naming, TakenNames, WantedNames } from "@/contracts/library";
import { findNamingFaults } from "@/core/library/naming";
import type { Context } from "../data/context";
import { findPreset } from "../repositories/presets";
import { listCalled, listNamed, rowsInOrder } from "../repositories/preset-lists";

/** Names that are shown in one go; who mends these asks again. */
const MOST = 200;

/** As many as are shown in full of those that have a name which is wanted. */
const SHOWN = 10;

/** Who has names that are wanted, or the same with a number behind. */
export const listTaken = ({ db }: Context, { names }: WantedNames): Promise<TakenNames> =>
  db.transaction(async (tx) => {
    const called = await listCalled(
      tx,
      names.map((name) => name.trim()).filter((name) => name !== ""),
    );
    const rows = called.filter(({ numbered }) => !numbered).map(({ row }) => row);
    return {
      taken: called.map(({ id, name }) => ({ id, name })),
      presets: [...(await rowsInOrder(tx, rows.slice(0, SHOWN)))],
    };
  });

/** Names that ask to be mended, each with a proposal, the worst first. */
export async function listNaming({ db }: Context): Promise<Naming> {
  const found = findNamingFaults(await listNamed(db));
  const items: Naming["items"] = [];
  for (const { id, faults, proposed } of found.slice(0, MOST)) {
    const preset = await findPreset(db, id);
    if (preset) items.push({ preset, faults: [...faults], proposed });
  }
  return { total: found.length, items };
}
