import type { Card, PresetKind } from "@/core/presets/preset";
import type { Executor } from "../data/executor";
import { readCard } from "../data/stored";
import type { PresetTable, VersionTable } from "../data/tables";

/* Sounds of the library as what is found elsewhere is held against them: without what they hold. */

/** A sound, with its newest version. */
export interface KnownSound {
  readonly id: string;
  readonly name: string;
  readonly kind: PresetKind;
  readonly card: Card;
  readonly version: number;
  readonly pack: string | null;
  readonly binned: boolean;
}

type Row = Pick<PresetTable, "id" | "kind" | "card" | "version" | "pack" | "binned_at">;

/** Some sounds by their ids, those in the bin, too; of what is not there, nothing. */
export async function soundsById(db: Executor, ids: readonly string[]): Promise<ReadonlyMap<string, KnownSound>> {
  const rows = await db.raw<Row[]>(
    `SELECT id, kind, card, version, pack, binned_at FROM presets WHERE id IN (SELECT value FROM json_each(?))`,
    [JSON.stringify([...new Set(ids)])],
  );
  return new Map(
    rows.map(({ card: text, binned_at, ...row }) => {
      const card = readCard(text);
      return [row.id, { ...row, name: card.name, card, binned: binned_at !== null }];
    }),
  );
}

/** What has some fingerprints, in any version; of several the one that was saved last. */
export async function soundsLike(
  db: Executor,
  prints: readonly string[],
): Promise<ReadonlyMap<string, { readonly preset: string; readonly name: string; readonly version: number }>> {
  const rows = await db.raw<(Pick<VersionTable, "fingerprint" | "preset" | "version"> & Pick<PresetTable, "card">)[]>(
    `SELECT v.fingerprint, v.preset, v.version, p.card FROM preset_versions v JOIN presets p ON p.id = v.preset
     WHERE p.binned_at IS NULL AND v.fingerprint IN (SELECT value FROM json_each(?)) ORDER BY v.saved_at, p.row`,
    [JSON.stringify([...new Set(prints)])],
  );
  return new Map(
    rows.map(({ fingerprint, preset, version, card }) => [fingerprint, { preset, version, name: readCard(card).name }]),
  );
}

/** Cards by their numbers in the indexes, in that order. */
export async function cardsOfRows(db: Executor, numbers: readonly number[]): Promise<readonly Card[]> {
  const rows = await db.raw<Pick<PresetTable, "card">[]>(
    `SELECT p.card FROM json_each(?) AS asked JOIN presets p ON p.row = asked.value ORDER BY asked.key`,
    [JSON.stringify(numbers)],
  );
  return rows.map(({ card }) => readCard(card));
}
