import type { Naming, NamingQuery, TakenNames, WantedNames } from "@/contracts/library";
import { NAMES_A_PAGE } from "@/core/documents/limits";
import { namingJudge, proposeNames } from "@/core/library/naming";
import { lastChange } from "../data/changes";
import type { Context } from "../store/context";
import { takingTurns } from "../turns";
import { listCalled, listNamed, rowsById, rowsInOrder } from "../repositories/preset-lists";

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

/** What is wrong with which names, the worst first, as of one state of the library. */
interface Judged {
  readonly of: number;
  readonly wishes: readonly NonNullable<ReturnType<ReturnType<typeof namingJudge>>>[];
  readonly names: readonly string[];
}

/** What was judged last: whoever goes from page to page does not wait for all names each time. */
const JUDGED = new WeakMap<Context["search"], Judged>();

async function judge({ db, search }: Context): Promise<Judged> {
  const of = await lastChange(db);
  const known = JUDGED.get(search);
  if (known?.of === of) return known;
  const turn = takingTurns();
  const judgeName = namingJudge();
  const wishes: Judged["wishes"][number][] = [];
  const named = await listNamed(db);
  for (const preset of named) {
    const wish = judgeName(preset);
    if (wish) wishes.push(wish);
    await turn();
  }
  const judged: Judged = {
    of,
    wishes: wishes.toSorted((a, b) => b.faults.length - a.faults.length),
    names: named.map((preset) => preset.card.name),
  };
  JUDGED.set(search, judged);
  return judged;
}

/** Names that ask to be mended, each with a proposal, the worst first; from the `from`th on, counted from 0. */
export async function listNaming(context: Context, { from = 0 }: NamingQuery): Promise<Naming> {
  const { wishes, names } = await judge(context);
  // Of those that are shown alone a free name is looked for.
  const found = proposeNames(wishes.slice(from, from + NAMES_A_PAGE), names);
  const ids = found.map(({ id }) => id);
  const rows = new Map((await rowsById(context.db, ids)).map((row) => [row.id, row]));
  const items = found.flatMap(({ id, faults, proposed }) => {
    const preset = rows.get(id);
    return preset ? [{ preset, faults: [...faults], proposed }] : [];
  });
  return { total: wishes.length, items };
}
