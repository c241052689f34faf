import type { StripPage, StripQuery } from "@/contracts/projects";
import { parseQuery } from "@/core/search/query";
import type { Context } from "../store/context";
import { stripsInOrder } from "../repositories/strip-lists";

const DEFAULT_PAGE = 60;

/** A page of the strips of all projects, found as presets are. */
export async function findStrips({ db, strips }: Context, asked: StripQuery): Promise<StripPage> {
  const query = parseQuery(asked.q ?? "");
  const found = strips.find(query, { limit: asked.limit ?? DEFAULT_PAGE, offset: asked.offset ?? 0 });
  return {
    items: [...(await stripsInOrder(db, found.rows))],
    total: found.total,
    unclear: [...query.unclear],
    corrected: [...found.corrected],
  };
}
