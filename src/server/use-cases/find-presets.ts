import type { PlaceQuery, PresetPage, PresetQuery, Values, ValuesQuery } from "@/contracts/library";
import { getModel, findModel } from "@/core/processors/models";
import type { Cursor, Sort } from "@/core/search/library-index";
import { type Query, type Term, parseQuery } from "@/core/search/query";
import { fold, wordsOf } from "@/core/names/words";
import type { Context } from "../store/context";
import { rowOf, rowsInOrder } from "../repositories/preset-lists";

const DEFAULT_PAGE = 60;

/** An earlier page's end, as `next` hands it out; what cannot be read is the first page. */
function parseCursor(after: string | undefined): Cursor | null {
  try {
    const cursor: unknown = JSON.parse(Buffer.from(after ?? "", "base64url").toString());
    return Array.isArray(cursor) && cursor.length === 2 ? (cursor as unknown as Cursor) : null;
  } catch {
    return null;
  }
}

const writeCursor = (cursor: Cursor): string => Buffer.from(JSON.stringify(cursor)).toString("base64url");

const exactly = (field: Term["field"], text: string): Term => ({
  field,
  not: false,
  values: [{ is: "exactly", text: fold(text) }],
});

/** What the parameters beside the field ask for, in its own terms. */
function termsOf({ kind, tag, model }: PresetQuery): readonly Term[] {
  const asked = [kind && exactly("kind", kind), tag && exactly("tag", tag)];
  const ofModel = model === undefined ? [] : [exactly("kind", "plugin"), exactly("has", modelName(model))];
  return [...asked, ...ofModel].filter((term) => term !== undefined && term !== "");
}

const modelName = (id: string): string => (findModel(id) ? getModel(id).name : id);

function queryOf(query: PresetQuery): Query {
  const typed = parseQuery(query.q ?? "");
  const filters = parseQuery(query.only ?? "");
  return {
    words: [...typed.words, ...filters.words],
    not: [...typed.not, ...filters.not],
    terms: [...typed.terms, ...filters.terms, ...termsOf(query)],
    unclear: [...typed.unclear, ...filters.unclear],
  };
}

/** The order that is asked for: the best first where words are looked for, else what was used last. */
const sortOf = (asked: PresetQuery, query: Query): Sort => asked.sort ?? (query.words.length > 0 ? "rank" : "used");

/** Where a preset stands in the list that is asked for, from 0; null where it is not in it. */
export async function placeOf({ db, search }: Context, { id, ...asked }: PlaceQuery): Promise<number | null> {
  const row = await rowOf(db, id);
  if (row === null) return null;
  const place = findRows({ search }, asked).indexOf(row);
  return place < 0 ? null : place;
}

/** The numbers of all that is asked for, the best or the last used first. */
export function findRows({ search }: Pick<Context, "search">, asked: PresetQuery): readonly number[] {
  const query = queryOf(asked);
  return search.find({
    query,
    folders: asked.folder === undefined ? null : search.within(asked.folder),
    sort: sortOf(asked, query),
    after: null,
    limit: Number.MAX_SAFE_INTEGER,
  }).rows;
}

/** A page of the library: what is asked for in the field's language and by filters, with the counts of each facet. */
export async function findPresets({ db, search }: Context, asked: PresetQuery): Promise<PresetPage> {
  const query = queryOf(asked);
  const order = sortOf(asked, query);
  const found = search.find({
    query,
    folders: asked.folder === undefined ? null : search.within(asked.folder),
    sort: order,
    after: parseCursor(asked.after),
    ...(asked.offset === undefined ? {} : { offset: asked.offset }),
    limit: asked.limit ?? DEFAULT_PAGE,
  });
  return {
    items: [...(await rowsInOrder(db, found.rows))],
    total: found.total,
    next: found.next && writeCursor(found.next),
    order,
    facets: Object.fromEntries(
      Object.entries(found.facets ?? {}).map(([field, counts]) => [field, counts.map(([value, n]) => ({ value, n }))]),
    ),
    unclear: [...query.unclear],
    corrected: [...found.corrected],
  };
}

const DEFAULT_VALUES = 500;

/** The values of one field among what is asked for, with those that have words beginning so. */
export function findValues({ search }: Pick<Context, "search">, asked: ValuesQuery): Values {
  const { field, begun = "", order = "count", limit = DEFAULT_VALUES } = asked;
  const among = { query: queryOf(asked), folders: asked.folder === undefined ? null : search.within(asked.folder) };
  const found = search.countValues(among, field, { begun: wordsOf(begun), order, most: limit + 1 });
  return { values: found.slice(0, limit).map(([value, n]) => ({ value, n })), more: found.length > limit };
}
