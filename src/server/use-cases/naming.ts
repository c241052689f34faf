import type { Naming, TakenNames, WantedNames } from "@/contracts/library";
import { namingJudge, proposeNames } from "@/core/library/naming";
import type { Context } from "../store/context";
import { takingTurns } from "../turns";
import { listCalled, listNamed, rowsById, rowsInOrder } from "../repositories/preset-lists";

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
  const turn = takingTurns();
  const judge = namingJudge();
  const named = await listNamed(db);
  const wishes: NonNullable<ReturnType<typeof judge>>[] = [];
  for (const preset of named) {
    const wish = judge(preset);
    if (wish) wishes.push(wish);
    await turn();
  }
  // Of those that are shown alone a free name is looked for.
  const worst = wishes.toSorted((a, b) => b.faults.length - a.faults.length).slice(0, MOST);
  const found = proposeNames(
    worst,
    named.map((preset) => preset.card.name),
  );
  const rows = new Map(
    (
      await rowsById(
        db,
        found.map(({ id }) => id),
      )
    ).map((row) => [row.id, row]),
  );
  const items = found.flatMap(({ id, faults, proposed }) => {
    const preset = rows.get(id);
    return preset ? [{ preset, faults: [...faults], proposed }] : [];
  });
  return { total: wishes.length, items };
}
