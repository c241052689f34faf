import type { Knex } from "knex";
import type { BinnedRow, MergedRow, PresetRow, VersionRow } from "@/contracts/records";
import type { Card, Content, PresetKind } from "@/core/presets/preset";
import { liftContent } from "@/core/presets/migrations";
import { measuredTags } from "@/core/library/measured-tags";
import { heldPresets } from "@/core/presets/holds";
import { fingerprint } from "@/core/presets/fingerprint";
import { type Inside, WEIGHTS, insideOf, searchText } from "@/core/search/entry";
import { fold } from "@/core/search/words";
import { statementsOf } from "../data/statements";
import type { Executor } from "../data/transaction";

interface StoredPreset {
  readonly row: number;
  readonly id: string;
  readonly kind: PresetKind;
  readonly card: string;
  readonly card_revision: number;
  readonly version: number;
  readonly saved_at: string;
  readonly used_at: string | null;
  readonly pack: string | null;
  readonly inside: string;
  readonly body: string;
}

const toRow = (stored: StoredPreset): PresetRow => toRowWith(stored, JSON.parse(stored.card) as Card);

const toRowWith = (stored: StoredPreset, card: Card): PresetRow => ({
  id: stored.id,
  kind: stored.kind,
  card,
  cardRevision: stored.card_revision,
  version: stored.version,
  content: liftContent(JSON.parse(stored.body)),
  savedAt: stored.saved_at,
  usedAt: stored.used_at,
  pack: stored.pack,
  measured: [...measuredTags(card, JSON.parse(stored.inside) as Inside)],
});

/** Names in the order in which a person files them: no case, no accents. */
const sortName = fold;

/** Presets with the document of their newest version. */
const newest = (db: Executor): Knex.QueryBuilder =>
  db("presets as p")
    .join("preset_versions as v", (join) => join.on("v.preset", "p.id").andOn("v.version", "p.version"))
    .join("documents as d", "d.id", "v.document");

const withDocuments = (db: Executor): Knex.QueryBuilder =>
  newest(db).select(
    "p.row",
    "p.id",
    "p.kind",
    "p.card",
    "p.card_revision",
    "p.version",
    "p.saved_at",
    "p.used_at",
    "p.pack",
    "p.inside",
    "d.body",
  );

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
  /** The pack that it came with. */
  readonly pack?: string | null;
}

type Statements = Awaited<ReturnType<typeof statementsOf>>;

export async function insertPreset(
  db: Executor,
  { id, content, card, at, usedAt = null, pack = null }: NewPresetRecord,
): Promise<PresetRow> {
  const inside = insideOf(content);
  const statement = await statementsOf(db);
  const { lastInsertRowid: row } = statement(
    `INSERT INTO presets (id, kind, folder, sort_name, card, inside, pack, card_revision, version, saved_at, used_at, touched_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, 1, 1, ?, ?, ?)`,
  ).run(
    id,
    content.kind,
    card.folder,
    sortName(card.name),
    JSON.stringify(card),
    JSON.stringify(inside),
    pack,
    at,
    usedAt,
    usedAt ?? at,
  );
  insertVersion(statement, { id, version: 1, content, at });
  insertIndex(statement, row, card, inside);
  insertHeld(statement, row, content);
  const measured = [...measuredTags(card, inside)];
  return { id, kind: content.kind, card, cardRevision: 1, version: 1, content, savedAt: at, usedAt, pack, measured };
}

function insertHeld(statement: Statements, row: number | bigint, content: Content): void {
  for (const held of heldPresets(content))
    statement("INSERT INTO preset_holds (held, preset) VALUES (?, ?)").run(held, row);
}

/** Presets, but for those in the bin, that have one inside. */
export async function listHolding(db: Executor, held: string): Promise<readonly { id: string; name: string }[]> {
  const rows = await db("preset_holds as h")
    .join("presets as p", "p.row", "h.preset")
    .where("h.held", held)
    .whereNull("p.binned_at")
    .orderBy("p.sort_name")
    .select<{ id: string; card: string }[]>("p.id", "p.card");
  return rows.map(({ id, card }) => ({ id, name: (JSON.parse(card) as Card).name }));
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
    .update({
      version: record.version,
      inside: JSON.stringify(insideOf(record.content)),
      saved_at: record.at,
      touched_at: record.at,
    });
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

/** A preset with how it is filed, also of one in the bin. */
export interface FiledPreset extends PresetRow {
  readonly binned: boolean;
}

export async function findFiled(db: Executor, id: string): Promise<FiledPreset | null> {
  const stored = (await withDocuments(db).select("p.binned_at").where("p.id", id).first()) as
    | (StoredPreset & { binned_at: string | null })
    | undefined;
  return stored ? { ...toRow(stored), binned: stored.binned_at !== null } : null;
}

export async function setBinned(db: Executor, id: string, at: string | null): Promise<void> {
  await db("presets").where({ id }).update({ binned_at: at });
}

/** Puts a preset into another, or lets it stand by itself again. */
export async function setMerged(db: Executor, id: string, into: string | null, at: string): Promise<void> {
  await db("presets")
    .where({ id })
    .update({ merged_into: into, binned_at: into === null ? null : at });
}

/** The presets that were put into one. */
export const listMerged = async (db: Executor, into: string): Promise<readonly MergedRow[]> => {
  const rows = await db<{ id: string; card: string; version: number; merged_into: string }>("presets")
    .where({ merged_into: into })
    .select("id", "card", "version");
  return rows.map(({ id, card, version }) => ({ id, name: (JSON.parse(card) as Card).name, version }));
};

/** Every preset of one's own with its content and fingerprint, a chunk at a time. */
export async function* everyContent(
  db: Executor,
): AsyncGenerator<{ id: string; content: Content; fingerprint: string }> {
  const CHUNK = 1000;
  for (let after = 0; ; ) {
    const rows = await newest(db)
      .whereNull("p.binned_at")
      .whereNull("p.pack")
      .where("p.row", ">", after)
      .orderBy("p.row")
      .limit(CHUNK)
      .select<{ row: number; id: string; body: string; fingerprint: string }[]>(
        "p.row",
        "p.id",
        "d.body",
        "v.fingerprint",
      );
    for (const { id, body, fingerprint: mark } of rows)
      yield { id, content: liftContent(JSON.parse(body)), fingerprint: mark };
    after = rows.at(-1)?.row ?? 0;
    if (rows.length < CHUNK) return;
  }
}

/** A pack's presets as they are here, by id. */
export async function listOfPack(
  db: Executor,
  pack: string,
): Promise<ReadonlyMap<string, { row: PresetRow; fingerprint: string }>> {
  const rows = (await withDocuments(db).select("v.fingerprint").where("p.pack", pack)) as (StoredPreset & {
    fingerprint: string;
  })[];
  return new Map(rows.map((stored) => [stored.id, { row: toRow(stored), fingerprint: stored.fingerprint }]));
}

/** Every preset of one's own as its name is judged, in the order in which they were saved first. */
export async function listNamed(
  db: Executor,
): Promise<readonly { id: string; kind: PresetKind; card: Card; inside: Inside }[]> {
  const rows = await db("presets")
    .whereNull("binned_at")
    .whereNull("pack")
    .orderBy("row")
    .select<Pick<StoredPreset, "id" | "kind" | "card" | "inside">[]>("id", "kind", "card", "inside");
  return rows.map(({ card, inside, ...row }) => ({
    ...row,
    card: JSON.parse(card) as Card,
    inside: JSON.parse(inside) as Inside,
  }));
}

export async function nameVersion(db: Executor, id: string, version: number, name: string | null): Promise<void> {
  await db("preset_versions").where({ preset: id, version }).update({ name });
}

export async function listInFolder(db: Executor, folder: string): Promise<readonly string[]> {
  return (await db<{ id: string; folder: string }>("presets").where({ folder }).select("id")).map(({ id }) => id);
}

/** What is in the bin, the last thrown away first. */
export async function listBinned(db: Executor): Promise<readonly BinnedRow[]> {
  const rows = await db("presets as p")
    .whereNotNull("p.binned_at")
    .whereNull("p.merged_into")
    .orderBy("p.binned_at", "desc")
    .select<(Pick<StoredPreset, "id" | "kind" | "card" | "card_revision"> & { binned_at: string; uses: number })[]>(
      "p.id",
      "p.kind",
      "p.card",
      "p.card_revision",
      "p.binned_at",
      db.raw("(SELECT count(*) FROM uses u WHERE u.preset = p.id) AS uses"),
    );
  return rows.map(({ card, card_revision, binned_at, ...row }) => ({
    ...row,
    name: (JSON.parse(card) as Card).name,
    cardRevision: card_revision,
    binnedAt: binned_at,
  }));
}

/** Takes a preset away for good, with its versions and their documents. */
export async function destroyPreset(db: Executor, id: string): Promise<void> {
  const found = await db<{ id: string; row: number }>("presets").where({ id }).first("row");
  if (!found) return;
  const statement = await statementsOf(db);
  const documents = statement("SELECT document FROM preset_versions WHERE preset = ?").all(id) as {
    document: number;
  }[];
  statement("DELETE FROM preset_search WHERE rowid = ?").run(found.row);
  statement("DELETE FROM preset_tags WHERE preset = ?").run(found.row);
  statement("DELETE FROM preset_holds WHERE preset = ?").run(found.row);
  statement("DELETE FROM preset_versions WHERE preset = ?").run(id);
  statement("DELETE FROM presets WHERE id = ?").run(id);
  for (const { document } of documents) statement("DELETE FROM documents WHERE id = ?").run(document);
}

export const touchPresets = (db: Executor, ids: readonly string[], at: string): Promise<number> =>
  db("presets")
    .whereIn("id", [...ids])
    .update({ used_at: at, touched_at: at });

/** What is read from documents to be found by, made anew: after the rule by which it is read has changed. */
export async function rederive(db: Knex): Promise<void> {
  const CHUNK = 1000;
  for (let after = 0; ; ) {
    const rows = (await newest(db)
      .where("p.row", ">", after)
      .orderBy("p.row")
      .limit(CHUNK)
      .select("p.row", "p.card", "d.body")) as { row: number; card: string; body: string }[];
    for (const { row, card, body } of rows) {
      const content = liftContent(JSON.parse(body));
      await db("presets")
        .where({ row })
        .update({ inside: JSON.stringify(insideOf(content)) });
      await indexCard(db, row, JSON.parse(card) as Card, content);
    }
    after = rows.at(-1)?.row ?? 0;
    if (rows.length < CHUNK) return;
  }
}

/** Puts a card in the place of the one that the index had. */
async function indexCard(db: Executor, row: number, card: Card, content: Content): Promise<void> {
  const inside = insideOf(content);
  const statement = await statementsOf(db);
  statement("DELETE FROM preset_search WHERE rowid = ?").run(row);
  statement("DELETE FROM preset_tags WHERE preset = ?").run(row);
  statement("DELETE FROM preset_holds WHERE preset = ?").run(row);
  insertIndex(statement, row, card, inside);
  insertHeld(statement, row, content);
}

function insertIndex(statement: Statements, row: number | bigint, card: Card, inside: Inside): void {
  const { name, tags, purpose, origin } = searchText(card, inside);
  statement("INSERT INTO preset_search (rowid, name, tags, purpose, origin) VALUES (?, ?, ?, ?, ?)").run(
    BigInt(row),
    name,
    tags,
    purpose,
    origin,
  );
  for (const tag of new Set(card.tags)) statement("INSERT INTO preset_tags (preset, tag) VALUES (?, ?)").run(row, tag);
}

/** Every word of the search must begin a word of the card; null for a search without words. */
export function matchExpression(words: readonly string[]): string | null {
  return words.length === 0 ? null : words.map((word) => `"${word}"*`).join(" ");
}

/** Rows by the durable text index, best first: what the index in memory is held against. The weights are its own. */
export async function searchDurably(db: Executor, words: readonly string[], limit: number): Promise<readonly number[]> {
  const match = matchExpression(words);
  if (match === null) return [];
  const rows = (await db("presets as p")
    .whereNull("p.binned_at")
    .joinRaw("JOIN preset_search s ON s.rowid = p.row")
    .whereRaw("preset_search MATCH ?", [match])
    .orderByRaw(`bm25(preset_search, ${Object.values(WEIGHTS).join(", ")}), p.row DESC`)
    .limit(limit)
    .select("p.row")) as { row: number }[];
  return rows.map(({ row }) => row);
}

/** Rows of a list, in the order in which they are asked for. */
export async function rowsInOrder(db: Executor, rows: readonly number[]): Promise<readonly PresetRow[]> {
  const stored = (await withDocuments(db).whereIn("p.row", [...rows])) as StoredPreset[];
  const byRow = new Map(stored.map((s) => [s.row, s]));
  return rows.flatMap((row) => {
    const found = byRow.get(row);
    return found ? [toRow(found)] : [];
  });
}

export async function countPresets(db: Executor): Promise<number> {
  const [{ n } = { n: 0 }] = (await db("presets").whereNull("binned_at").count({ n: "*" })) as { n: number }[];
  return n;
}
