import equal from "fast-deep-equal";
import { fail, ok } from "../../result";
import type { Refusal } from "./refusal";
import type { Change } from "./step-kind";

/** Something in a list, and behind what it stands; first where null. */
export interface Placed<T> {
  readonly item: T;
  readonly after: string | null;
}

/** What is in a list, and how it is told. */
export interface ListOf<T> {
  readonly what: "strip" | "send";
  /** "key", "id": what it is told apart by. */
  readonly by: "key" | "id";
  readonly most: number;
  readonly idOf: (item: T) => string;
  readonly nameOf: (item: T) => string;
}

function take<T>(
  { what, idOf, nameOf }: ListOf<T>,
  list: readonly T[],
  id: string,
  from: Placed<T>,
): Change<readonly T[]> {
  const at = list.findIndex((item) => idOf(item) === id);
  if (!equal(list[at], from.item)) return fail({ why: "changed", what: nameOf(from.item) });
  const before = list[at - 1];
  if ((before === undefined ? null : idOf(before)) !== from.after) return fail({ why: "elsewhere", what });
  return ok(list.filter((item) => idOf(item) !== id));
}

function put<T>(
  { what, by, most, idOf }: ListOf<T>,
  list: readonly T[],
  { item, after }: Placed<T>,
): Change<readonly T[]> {
  if (list.length >= most) return fail({ why: "tooMany", what: `${what}s` } satisfies Refusal);
  if (list.some((other) => idOf(other) === idOf(item))) return fail({ why: "taken", what: by, key: idOf(item) });
  const at = after === null ? -1 : list.findIndex((other) => idOf(other) === after);
  if (after !== null && at < 0) return fail({ why: "missing", what, key: after });
  return ok([...list.slice(0, at + 1), item, ...list.slice(at + 1)]);
}

interface Placing<T> {
  readonly id: string;
  /** Null: from nowhere. */
  readonly from: Placed<T> | null;
  /** Null: to nowhere. */
  readonly to: Placed<T> | null;
}

/** A list with something put in, taken out, or moved. What it comes from must be what stands there. */
export function placeIn<T>(of: ListOf<T>, list: readonly T[], { id, from, to }: Placing<T>): Change<readonly T[]> {
  const taken = from ? take(of, list, id, from) : ok(list);
  if (!taken.ok) return taken;
  if (to && of.idOf(to.item) !== id) return fail({ why: "mismatch", key: id, brings: of.idOf(to.item) });
  return to ? put(of, taken.value, to) : taken;
}
