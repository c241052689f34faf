import type { PresetRow, VersionRow } from "@/contracts/records";
import type { Card, Content } from "@/core/presets/preset";
import { liftContent } from "@/core/presets/migrations";
import { measuredTags } from "@/core/library/measured-tags";
import { fingerprint } from "@/core/presets/fingerprint";
import { insideOf } from "@/core/library/inside";
import { fold } from "@/core/names/words";
import { type Statements, statementsOf } from "../data/statements";
import type { DocumentTable, PresetTable, VersionTable } from "../data/tables";
import type { Executor } from "../data/executor";
import { readDocument } from "./documents";
import { type StoredPreset, toRow, withDocuments } from "./preset-rows";
import { holdAgain, indexLater, insertHeld, insertIndex, referAgain } from "./preset-search";
import { readCard, readInside } from "../data/stored";

/** Names in the order in which a person files them: no case, no accents. */
export const sortName = fold;

/** One that stands in the library. */
export async function findPreset(db: Executor, id: string): Promise<PresetRow | null> {
  const stored = await withDocuments(db).where("p.id", id).whereNull("p.binned_at").first();
  return stored ? toRow(stored) : null;
}

export interface PresetVersion {
  readonly version: number;
  readonly savedAt: string;
  readonly content: Content;
}

/** A version of a preset, also of one in the bin: what was applied from it can still be compared. */
export async function findVersion(db: Executor, id: string, version: number): Promise<PresetVersion | null> {
  const row = await db("preset_versions as v")
    .join("documents as d", "d.id", "v.document")
    .where({ "v.preset": id, "v.version": version })
    .select<(Pick<VersionTable, "version" | "saved_at"> & DocumentTable)[]>("v.version", "v.saved_at", "d.body")
    .first();
  if (!row) return null;
  const content = readDocument(row.body, liftContent, `Version ${row.version} of this sound`);
  return { version: row.version, savedAt: row.saved_at, content };
}

export async function listVersions(db: Executor, id: string): Promise<readonly VersionRow[]> {
  const rows = await db("preset_versions")
    .where({ preset: id })
    .orderBy("version", "desc")
    .select("version", "saved_at", "fingerprint", "name", "based_on");
  return rows.map(({ saved_at, based_on, ...row }) => ({ ...row, savedAt: saved_at, basedOn: based_on }));
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

export async function insertPreset(
  db: Executor,
  { id, content, card, at, usedAt = null, pack = null }: NewPresetRecord,
): Promise<PresetRow> {
  const inside = insideOf(content);
  const statement = await statementsOf(db);
  const { lastInsertRowid: row } = statement(
    `INSERT INTO presets
       (id, kind, folder, sort_name, card, inside, pack, pack_card, card_revision, version, saved_at, used_at, touched_at, filed_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, 1, 1, ?, ?, ?, ?)`,
  ).run(
    id,
    content.kind,
    card.folder,
    sortName(card.name),
    JSON.stringify(card),
    JSON.stringify(inside),
    pack,
    pack === null ? null : JSON.stringify(card),
    at,
    usedAt,
    usedAt ?? at,
    at,
  );
  insertVersion(statement, { id, version: 1, content, at });
  insertIndex(statement, row, card, inside);
  insertHeld(statement, row, content);
  if (card.alsoIn) referAgain(statement, row, card);
  const measured = [...measuredTags(card, inside)];
  return { id, kind: content.kind, card, cardRevision: 1, version: 1, content, savedAt: at, usedAt, pack, measured };
}

interface VersionRecord {
  readonly id: string;
  readonly version: number;
  readonly content: Content;
  readonly at: string;
  readonly name?: string | null;
  /** The version that it was made of; the one before it without. */
  readonly basedOn?: number | null;
  /** Where it is known already. */
  readonly print?: string;
}

export function insertVersion(statement: Statements, record: VersionRecord): void {
  const { id, version, content, at, name = null, basedOn = null, print = fingerprint(content) } = record;
  const document = statement("INSERT INTO documents (body) VALUES (?)").run(JSON.stringify(content)).lastInsertRowid;
  statement(
    `INSERT INTO preset_versions (preset, version, document, fingerprint, saved_at, name, based_on)
     VALUES (?, ?, ?, ?, ?, ?, ?)`,
  ).run(id, version, document, print, at, name, basedOn);
}

/** A row of which the caller knows that it is there. */
function present<T extends object>(row: T | undefined, id: string): T {
  if (row === undefined) throw new Error(`There is no preset ${id}`);
  return row;
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
  const found = await db("presets").where({ id: record.id }).first("row", "card");
  const { row, card } = present(found, record.id);
  holdAgain(await statementsOf(db), row, record.content);
  indexLater(db, row, readCard(card), insideOf(record.content));
}

/** Takes the newest version away; the one before it is the newest again. */
export async function removeNewest(db: Executor, { id, version }: Pick<PresetRow, "id" | "version">): Promise<void> {
  const statement = await statementsOf(db);
  const before = await findVersion(db, id, version - 1);
  if (!before) throw new Error(`Preset ${id} has no version before ${version}`);
  const gone = await db("preset_versions").where({ preset: id, version }).first("document");
  await db("preset_versions").where({ preset: id, version }).delete();
  await db("documents")
    .where({ id: gone?.document ?? -1 })
    .delete();
  await db("presets")
    .where({ id })
    .update({ version: before.version, inside: JSON.stringify(insideOf(before.content)), saved_at: before.savedAt });
  const found = await db("presets").where({ id }).first("row", "card");
  const { row, card } = present(found, id);
  holdAgain(statement, row, before.content);
  indexLater(db, row, readCard(card), insideOf(before.content));
}

/** `at`: when a person changed it; null where a pack did, which leaves it as it was last filed. */
export async function updateCard(
  tx: Executor,
  { id, cardRevision }: Pick<PresetRow, "id" | "cardRevision">,
  card: Card,
  at: string | null,
): Promise<void> {
  const statement = await statementsOf(tx);
  const written = statement<Pick<PresetTable, "row" | "inside">>(
    `UPDATE presets SET card = ?, folder = ?, sort_name = ?, card_revision = ?, filed_at = coalesce(?, filed_at)
     WHERE id = ? RETURNING row, inside`,
  ).get(JSON.stringify(card), card.folder, sortName(card.name), BigInt(cardRevision + 1), at, id);
  const { row, inside } = present(written, id);
  referAgain(statement, row, card);
  indexLater(tx, row, card, readInside(inside));
}

/** Writes down a pack's card as a newer one brought it. */
export const keepPackCard = (db: Executor, id: string, card: Card): Promise<number> =>
  db("presets")
    .where({ id })
    .update({ pack_card: JSON.stringify(card) });

/** How a preset is filed. */
interface Filed {
  /** It was thrown away by itself. */
  readonly binned: boolean;
  /** The preset that it was put into. */
  readonly mergedInto: string | null;
}

/** A preset with how it is filed, also of one in the bin. */
interface FiledPreset extends PresetRow, Filed {}

/** A preset's card and how it is filed, also of one in the bin: all that filing asks for, without its sound. */
export interface FiledCard
  extends Filed,
    Pick<PresetRow, "id" | "kind" | "card" | "cardRevision" | "version" | "pack"> {}

const filedOf = ({ binned_at, merged_into }: Pick<PresetTable, "binned_at" | "merged_into">): Filed => ({
  binned: binned_at !== null && merged_into === null,
  mergedInto: merged_into,
});

export async function findCard(tx: Executor, id: string): Promise<FiledCard | null> {
  const statement = await statementsOf(tx);
  const found = statement<
    Pick<PresetTable, "id" | "kind" | "card" | "card_revision" | "version" | "pack" | "binned_at" | "merged_into">
  >("SELECT id, kind, card, card_revision, version, pack, binned_at, merged_into FROM presets WHERE id = ?").get(id);
  if (!found) return null;
  const { kind, card, card_revision, version, pack } = found;
  return { id, kind, card: readCard(card), cardRevision: card_revision, version, pack, ...filedOf(found) };
}

export async function findFiled(db: Executor, id: string): Promise<FiledPreset | null> {
  const stored = await withDocuments(db)
    .select<(StoredPreset & Pick<PresetTable, "binned_at" | "merged_into">)[]>("p.binned_at", "p.merged_into")
    .where("p.id", id)
    .first();
  if (!stored) return null;
  return { ...toRow(stored), ...filedOf(stored) };
}

export async function setBinned(db: Executor, id: string, binned: boolean, at: string): Promise<void> {
  (await statementsOf(db))("UPDATE presets SET binned_at = ?, filed_at = ? WHERE id = ?").run(
    binned ? at : null,
    at,
    id,
  );
}

/** Puts a preset into another, or lets it stand by itself again. */
export async function setMerged(db: Executor, id: string, into: string | null, at: string): Promise<void> {
  await db("presets")
    .where({ id })
    .update({ merged_into: into, binned_at: into === null ? null : at, filed_at: at });
}

export async function nameVersion(
  db: Executor,
  { id, version, name }: { readonly id: string; readonly version: number; readonly name: string | null },
  at: string,
): Promise<void> {
  await db("preset_versions").where({ preset: id, version }).update({ name });
  await db("presets").where({ id }).update({ filed_at: at });
}

/** Takes a preset away for good, with its versions and their documents. */
export async function destroyPreset(db: Executor, id: string): Promise<void> {
  const found = await db("presets").where({ id }).first("row");
  if (!found) return;
  const statement = await statementsOf(db);
  const versions = "SELECT document FROM preset_versions WHERE preset = ?";
  const documents = statement<Pick<VersionTable, "document">>(versions).all(id);
  statement("DELETE FROM preset_search WHERE rowid = ?").run(found.row);
  statement("DELETE FROM preset_holds WHERE preset = ?").run(found.row);
  statement("DELETE FROM preset_references WHERE preset = ?").run(found.row);
  statement("DELETE FROM preset_versions WHERE preset = ?").run(id);
  statement("DELETE FROM presets WHERE id = ?").run(id);
  for (const { document } of documents) statement("DELETE FROM documents WHERE id = ?").run(document);
}

export const touchPresets = (db: Executor, ids: readonly string[], at: string): Promise<number> =>
  db("presets")
    .whereIn("id", [...ids])
    .update({ used_at: at, touched_at: at });
