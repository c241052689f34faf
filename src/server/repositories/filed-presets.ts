import type { FiledPreset } from "@/core/archive/documents";
import type { OwnPreset } from "@/core/archive/join-preset";
import { insideOf } from "@/core/library/inside";
import type { SideVersion } from "@/core/library/step";
import { type Statements, statementsOf } from "../data/statements";
import { readCard } from "../data/stored";
import type { Executor } from "../data/executor";
import type { PresetTable, VersionTable } from "../data/tables";
import { holdAgain, indexLater, insertHeld, insertIndex, referAgain } from "./preset-search";
import { findVersion, insertVersion, sortName } from "./presets";

/* Presets as whole as a file has them: with all their versions, and when each was saved and filed. */

type Columns = Pick<PresetTable, "id" | "pack" | "card" | "filed_at" | "binned_at" | "merged_into" | "used_at">;
type Versions = Pick<VersionTable, "version" | "saved_at" | "fingerprint" | "based_on" | "name">;

/** A preset that is here, wherever it is filed, to be held against another; null where there is none. */
export function findOwn(statement: Statements, id: string): OwnPreset | null {
  const row = statement<Columns>(
    "SELECT id, pack, card, filed_at, binned_at, merged_into, used_at FROM presets WHERE id = ?",
  ).get(id);
  if (!row) return null;
  const versions = statement<Versions>(
    "SELECT version, saved_at, fingerprint, based_on, name FROM preset_versions WHERE preset = ? ORDER BY version",
  ).all(id);
  return {
    id,
    pack: row.pack,
    card: readCard(row.card),
    filedAt: row.filed_at,
    isBinned: row.binned_at !== null && row.merged_into === null,
    mergedInto: row.merged_into,
    usedAt: row.used_at,
    versions: versions.map(({ version, saved_at, fingerprint, based_on }) => ({
      version,
      savedAt: saved_at,
      fingerprint,
      basedOn: based_on,
    })),
    versionNames: Object.fromEntries(
      versions.flatMap(({ saved_at, name }) => (name === null ? [] : [[saved_at, name] as const])),
    ),
  };
}

/** Writes a preset as a file has it, all of its versions; where it has a time for that, it lies in the bin. */
export async function insertFiled(db: Executor, preset: FiledPreset, binnedAt: string | null): Promise<void> {
  const statement = await statementsOf(db);
  const { id, card, versions, pack, usedAt, filedAt } = preset;
  const newest = versions.at(-1)!;
  const inside = insideOf(newest.content);
  const touched = usedAt !== null && usedAt > newest.savedAt ? usedAt : newest.savedAt;
  const { lastInsertRowid: row } = statement(
    `INSERT INTO presets (id, kind, folder, sort_name, card, inside, pack, pack_card, card_revision, version,
       saved_at, used_at, touched_at, binned_at, filed_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, 1, ?, ?, ?, ?, ?, ?)`,
  ).run(
    id,
    newest.content.kind,
    card.folder,
    sortName(card.name),
    JSON.stringify(card),
    JSON.stringify(inside),
    pack,
    pack === null ? null : JSON.stringify(card),
    versions.length,
    newest.savedAt,
    usedAt,
    touched,
    binnedAt,
    filedAt,
  );
  for (const { version, savedAt, name, basedOn, content, fingerprint } of versions)
    insertVersion(statement, { id, version, content, at: savedAt, name, basedOn, print: fingerprint });
  insertIndex(statement, row, card, inside);
  insertHeld(statement, row, newest.content);
  if (card.alsoIn) referAgain(statement, row, card);
}

/** When it was filed, used, and thrown away last, where another library knows it better. */
export async function setFiled(
  db: Executor,
  id: string,
  { filedAt, usedAt, binnedAt }: Pick<FiledPreset, "filedAt" | "usedAt" | "binnedAt">,
): Promise<void> {
  (await statementsOf(db))(
    `UPDATE presets SET filed_at = ?, used_at = nullif(max(coalesce(used_at, ''), coalesce(?, '')), ''),
       touched_at = max(touched_at, coalesce(?, '')),
       binned_at = iif(binned_at IS NULL, NULL, max(binned_at, coalesce(?, '')))
     WHERE id = ?`,
  ).run(filedAt, usedAt, usedAt, binnedAt, id);
}

/** The versions that leave and enter, and new numbers of those that stay. */
export async function exchangeVersions(db: Executor, id: string, to: readonly SideVersion[]): Promise<void> {
  const statement = await statementsOf(db);
  const staying = new Set(to.flatMap(({ was }) => (was === null ? [] : [was])));
  const standing = statement<Pick<VersionTable, "version" | "document">>(
    "SELECT version, document FROM preset_versions WHERE preset = ?",
  ).all(id);
  for (const { version, document } of standing) {
    if (staying.has(version)) continue;
    statement("DELETE FROM preset_versions WHERE preset = ? AND version = ?").run(id, version);
    statement("DELETE FROM documents WHERE id = ?").run(document);
  }
  // By way of numbers that none has, so that two may change places.
  const number = statement("UPDATE preset_versions SET version = ?, based_on = ? WHERE preset = ? AND version = ?");
  for (const [at, { was, basedOn }] of to.entries()) if (was !== null) number.run(-(at + 1), basedOn, id, was);
  statement("UPDATE preset_versions SET version = -version WHERE preset = ? AND version < 0").run(id);
  for (const [at, one] of to.entries())
    if (one.was === null)
      insertVersion(statement, {
        id,
        version: at + 1,
        content: one.content,
        at: one.savedAt,
        name: one.name,
        basedOn: one.basedOn,
      });
  await takeNewest(db, id, to.length);
}

/** What is kept of the newest version beside it. */
async function takeNewest(db: Executor, id: string, version: number): Promise<void> {
  const statement = await statementsOf(db);
  const newest = await findVersion(db, id, version);
  if (!newest) throw new Error(`Preset ${id} has no version ${version}`);
  const inside = insideOf(newest.content);
  const { row, card } = statement<Pick<PresetTable, "row" | "card">>(
    `UPDATE presets SET version = ?, inside = ?, saved_at = ?, touched_at = max(coalesce(used_at, ''), ?)
     WHERE id = ? RETURNING row, card`,
  ).get(version, JSON.stringify(inside), newest.savedAt, newest.savedAt, id)!;
  holdAgain(statement, row, newest.content);
  indexLater(db, row, readCard(card), inside);
}
