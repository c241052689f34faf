import type { Knex } from "knex";
import type { PresetQuery } from "@/contracts/endpoints";
import type { PresetRow, VersionRow } from "@/contracts/records";
import { type Card, type Content, type PresetKind, chainOf } from "@/core/presets/preset";
import { liftContent } from "@/core/presets/migrations";
import { fingerprint } from "@/core/presets/fingerprint";
import { processorName, processorsOf } from "@/core/chains/chain";
import { statementsOf } from "../data/statements";
import type { Executor } from "../data/transaction";
import { folderWithDescendants } from "./folders";

interface StoredPreset {
  readonly row: number;
  readonly id: string;
  readonly kind: PresetKind;
  readonly card: string;
  readonly card_revision: number;
  readonly version: number;
  readonly saved_at: string;
  readonly used_at: string | null;
  readonly body: string;
}

const toRow = (stored: StoredPreset): PresetRow => ({
  id: stored.id,
  kind: stored.kind,
  card: JSON.parse(stored.card) as Card,
  cardRevision: stored.card_revision,
  version: stored.version,
  content: liftContent(JSON.parse(stored.body)),
  savedAt: stored.saved_at,
  usedAt: stored.used_at,
});

/** Names in the order in which a person files them: no case, no accents. */
const sortName = (name: string): string => name.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase();

const withDocuments = (db: Executor): Knex.QueryBuilder =>
  db("presets as p")
    .join("preset_versions as v", (join) => join.on("v.preset", "p.id").andOn("v.version", "p.version"))
    .join("documents as d", "d.id", "v.document")
    .select("p.row", "p.id", "p.kind", "p.card", "p.card_revision", "p.version", "p.saved_at", "p.used_at", "d.body");

/** null for one that is not there or is in the bin. */
export async function findPreset(db: Executor, id: string): Promise<PresetRow | null> {
  const stored = (await withDocuments(db).where("p.id", id).whereNull("p.binned_at").first()) as
    | StoredPreset
    | undefined;
  return stored ? toRow(stored) : null;
}

export interface PresetVersion {
  readonly version: number;
  readonly savedAt: string;
  readonly content: Content;
}

/** A version of a preset, also of one in the bin: what was applied from it can still be compared. */
export async function findVersion(db: Executor, id: string, version: number): Promise<PresetVersion | null> {
  const row = (await db("preset_versions as v")
    .join("documents as d", "d.id", "v.document")
    .where({ "v.preset": id, "v.version": version })
    .first("v.version", "v.saved_at", "d.body")) as { version: number; saved_at: string; body: string } | undefined;
  return row ? { version: row.version, savedAt: row.saved_at, content: liftContent(JSON.parse(row.body)) } : null;
}

export async function listVersions(db: Executor, id: string): Promise<readonly VersionRow[]> {
  const rows = (await db("preset_versions")
    .where({ preset: id })
    .orderBy("version", "desc")
    .select("version", "saved_at", "fingerprint", "name")) as {
    version: number;
    saved_at: string;
    fingerprint: string;
    name: string | null;
  }[];
  return rows.map(({ saved_at, ...row }) => ({ ...row, savedAt: saved_at }));
}

export interface NewPresetRecord {
  readonly id: string;
  readonly content: Content;
  readonly card: Card;
  readonly at: string;
  readonly usedAt?: string | null;
}

type Statements = Awaited<ReturnType<typeof statementsOf>>;

export async function insertPreset(
  db: Executor,
  { id, content, card, at, usedAt = null }: NewPresetRecord,
): Promise<void> {
  const statement = await statementsOf(db);
  const { lastInsertRowid: row } = statement(
    `INSERT INTO presets (id, kind, folder, sort_name, card, card_revision, version, saved_at, used_at, touched_at)
     VALUES (?, ?, ?, ?, ?, 1, 1, ?, ?, ?)`,
  ).run(id, content.kind, card.folder, sortName(card.name), JSON.stringify(card), at, usedAt, usedAt ?? at);
  insertVersion(statement, { id, version: 1, content, at });
  insertIndex(statement, row, card, content);
}

interface VersionRecord {
  readonly id: string;
  readonly version: number;
  readonly content: Content;
  readonly at: string;
}

function insertVersion(statement: Statements, { id, version, content, at }: VersionRecord): void {
  const document = statement("INSERT INTO documents (body) VALUES (?)").run(JSON.stringify(content)).lastInsertRowid;
  statement(
    "INSERT INTO preset_versions (preset, version, document, fingerprint, saved_at) VALUES (?, ?, ?, ?, ?)",
  ).run(id, version, document, fingerprint(content), at);
}

/** Appends a version; the earlier ones stay. */
export async function appendVersion(db: Executor, record: VersionRecord): Promise<void> {
  insertVersion(await statementsOf(db), record);
  await db("presets")
    .where({ id: record.id })
    .update({ version: record.version, saved_at: record.at, touched_at: record.at });
  const { row, card } = (await db("presets").where({ id: record.id }).first("row", "card")) as {
    row: number;
    card: string;
  };
  await indexCard(db, row, JSON.parse(card) as Card, record.content);
}

export async function updateCard(db: Executor, preset: PresetRow, card: Card): Promise<void> {
  await db("presets")
    .where({ id: preset.id })
    .update({
      card: JSON.stringify(card),
      folder: card.folder,
      sort_name: sortName(card.name),
      card_revision: preset.cardRevision + 1,
    });
  const { row } = (await db("presets").where({ id: preset.id }).first("row")) as { row: number };
  await indexCard(db, row, card, preset.content);
}

export const binPreset = (db: Executor, id: string, at: string): Promise<number> =>
  db("presets").where({ id }).whereNull("binned_at").update({ binned_at: at });

export const touchPresets = (db: Executor, ids: readonly string[], at: string): Promise<number> =>
  db("presets")
    .whereIn("id", [...ids])
    .update({ used_at: at, touched_at: at });

/** Puts a card in the place of the one that the index had. */
async function indexCard(db: Executor, row: number, card: Card, content: Content): Promise<void> {
  const statement = await statementsOf(db);
  statement("DELETE FROM preset_search WHERE rowid = ?").run(row);
  statement("DELETE FROM preset_tags WHERE preset = ?").run(row);
  insertIndex(statement, row, card, content);
}

function insertIndex(statement: Statements, row: number | bigint, card: Card, content: Content): void {
  const inside = processorsOf(chainOf(content)).map(processorName);
  const origin = Object.values(card.origin).filter((word) => word !== undefined);
  statement("INSERT INTO preset_search (rowid, name, tags, purpose, origin) VALUES (?, ?, ?, ?, ?)").run(
    BigInt(row),
    card.name,
    card.tags.join(" "),
    `${card.purpose} ${inside.join(" ")}`,
    origin.join(" "),
  );
  for (const tag of new Set(card.tags)) statement("INSERT INTO preset_tags (preset, tag) VALUES (?, ?)").run(row, tag);
}

/** Every word of the search must begin a word of the card; null for a search without words. */
export function matchExpression(q: string): string | null {
  const words = q.normalize("NFKC").match(/[\p{L}\p{N}\p{M}]+/gu) ?? [];
  return words.length === 0 ? null : words.map((word) => `"${word}"*`).join(" ");
}

const DEFAULT_PAGE = 60;

async function filtered(db: Executor, query: PresetQuery): Promise<() => Knex.QueryBuilder> {
  const folders = query.folder ? await folderWithDescendants(db, query.folder) : null;
  const match = query.q ? matchExpression(query.q) : null;
  return () => {
    const presets = db("presets as p").whereNull("p.binned_at");
    if (query.kind) void presets.where("p.kind", query.kind);
    if (query.model) void presets.whereIn("p.id", ofModel(db, query.model));
    if (folders) void presets.whereIn("p.folder", [...folders]);
    if (query.tag) void presets.whereIn("p.row", db("preset_tags").where({ tag: query.tag }).select("preset"));
    if (match)
      void presets.joinRaw("JOIN preset_search s ON s.rowid = p.row").whereRaw("preset_search MATCH ?", [match]);
    return presets;
  };
}

/** Plugin presets whose newest version is of a model. */
const ofModel = (db: Executor, model: string): Knex.QueryBuilder =>
  db("presets as q")
    .join("preset_versions as v", (join) => join.on("v.preset", "q.id").andOn("v.version", "q.version"))
    .join("documents as d", "d.id", "v.document")
    .where("q.kind", "plugin")
    .whereRaw("json_extract(d.body, '$.processor.model') = ?", [model])
    .select("q.id");

/** How names weigh against tags, purpose and origin when hits are ranked. */
const RANK = "bm25(preset_search, 10, 4, 2, 1), p.touched_at DESC, p.row";

type Cursor = readonly [string | number, number];

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

export interface Page {
  readonly items: readonly PresetRow[];
  readonly total: number;
  readonly next: string | null;
  readonly facets: { readonly kinds: Record<string, number>; readonly tags: Record<string, number> };
}

/** How a page is ordered: by rank for a search, else by a column whose last value is where the next page begins. */
interface Order {
  readonly ranked: boolean;
  readonly column: "p.sort_name" | "p.saved_at" | "p.touched_at";
  readonly direction: "asc" | "desc";
}

const SORTS: Record<NonNullable<PresetQuery["sort"]>, Omit<Order, "ranked">> = {
  name: { column: "p.sort_name", direction: "asc" },
  saved: { column: "p.saved_at", direction: "desc" },
  used: { column: "p.touched_at", direction: "desc" },
};

const orderOf = ({ q, sort }: PresetQuery): Order => ({
  ranked: sort === undefined && q !== undefined && matchExpression(q) !== null,
  ...SORTS[sort ?? "used"],
});

/** Rows of one page and one more, which tells that there is a next. */
async function findRows(
  base: Knex.QueryBuilder,
  { ranked, column, direction }: Order,
  cursor: Cursor | null,
  limit: number,
) {
  const rows = base.select("p.row", `${column} as at`).limit(limit + 1);
  if (ranked) void rows.orderByRaw(RANK).offset(cursor ? cursor[1] : 0);
  else {
    void rows.orderBy([
      { column, order: direction },
      { column: "p.row", order: direction },
    ]);
    if (cursor) void rows.whereRaw(`(${column}, p.row) ${direction === "asc" ? ">" : "<"} (?, ?)`, [...cursor]);
  }
  return (await rows) as { row: number; at: string }[];
}

/** A page of presets. Lists go by the last row seen; ranked hits by how many were seen. */
export async function pagePresets(db: Executor, query: PresetQuery): Promise<Page> {
  const base = await filtered(db, query);
  const limit = query.limit ?? DEFAULT_PAGE;
  const cursor = parseCursor(query.after);
  const order = orderOf(query);
  const found = await findRows(base(), order, cursor, limit);
  const page = found.slice(0, limit);
  const last = page.at(-1);
  const seen = (cursor?.[1] ?? 0) + page.length;
  const next = found.length > limit && last ? writeCursor(order.ranked ? ["", seen] : [last.at, last.row]) : null;
  const [{ n: total } = { n: 0 }] = (await base().count({ n: "*" })) as { n: number }[];
  const items = await rowsInOrder(
    db,
    page.map((p) => p.row),
  );
  return { items, total, next, facets: await countFacets(db, base) };
}

async function rowsInOrder(db: Executor, rows: readonly number[]): Promise<readonly PresetRow[]> {
  const stored = (await withDocuments(db).whereIn("p.row", [...rows])) as StoredPreset[];
  const byRow = new Map(stored.map((s) => [s.row, s]));
  return rows.flatMap((row) => {
    const found = byRow.get(row);
    return found ? [toRow(found)] : [];
  });
}

async function countFacets(db: Executor, base: () => Knex.QueryBuilder): Promise<Page["facets"]> {
  const kinds = (await base().groupBy("p.kind").select("p.kind as value").count({ n: "*" })) as {
    value: string;
    n: number;
  }[];
  const tags = (await base()
    .join("preset_tags as t", "t.preset", "p.row")
    .groupBy("t.tag")
    .orderBy("n", "desc")
    .limit(30)
    .select("t.tag as value")
    .count({ n: "*" })) as { value: string; n: number }[];
  const record = (rows: readonly { value: string; n: number }[]) => Object.fromEntries(rows.map((r) => [r.value, r.n]));
  return { kinds: record(kinds), tags: record(tags) };
}

export async function countPresets(db: Executor): Promise<number> {
  const [{ n } = { n: 0 }] = (await db("presets").whereNull("binned_at").count({ n: "*" })) as { n: number }[];
  return n;
}
