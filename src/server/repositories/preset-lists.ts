import type { ChangedCard } from "@/contracts/library";
import type { BinnedRow, MergedRow, PresetRow } from "@/contracts/records";
import type { Card, PresetKind } from "@/core/presets/preset";
import { numberedStem } from "@/core/names/free";
import type { Inside } from "@/core/library/inside";
import { measuredTags } from "@/core/library/measured-tags";
import { fold } from "@/core/names/words";
import { statementsOf } from "../data/statements";
import type { Executor } from "../data/executor";
import { takingTurns } from "../turns";
import type { PresetTable, VersionTable } from "../data/tables";
import { readCard, readInside } from "../data/stored";
import { type StoredPreset, toRow, withDocuments } from "./preset-rows";

/** Presets, but for those in the bin, that have one inside. */
export async function listHolding(db: Executor, held: string): Promise<readonly { id: string; name: string }[]> {
  const rows = await db("preset_holds as h")
    .join("presets as p", "p.row", "h.preset")
    .where("h.held", held)
    .whereNull("p.binned_at")
    .orderBy("p.sort_name")
    .select<Pick<PresetTable, "id" | "card">[]>("p.id", "p.card");
  return rows.map(({ id, card }) => ({ id, name: readCard(card).name }));
}

/** A preset's number in the indexes; null where there is none. */
export const rowOf = async (db: Executor, id: string): Promise<number | null> =>
  (await db("presets").where({ id }).first("row"))?.row ?? null;

/** The names of some presets, wherever they are, by id. */
export async function namesById(db: Executor, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const rows = await db("presets")
    .whereIn("id", [...ids])
    .select("id", "card");
  return new Map(rows.map(({ id, card }) => [id, readCard(card).name]));
}

/** The presets that were put into one. */
export const listMerged = async (db: Executor, into: string): Promise<readonly MergedRow[]> => {
  const rows = await db("presets").where({ merged_into: into }).select("id", "card", "version");
  return rows.map(({ id, card, version }) => ({ id, name: readCard(card).name, version }));
};

/** Whether others were put into one. */
export const hasMerged = async (db: Executor, into: string): Promise<boolean> =>
  (await db("presets").where({ merged_into: into }).first("id")) !== undefined;

/** A preset of a pack as it is here, and its card as the pack brought it. */
interface OfPack {
  readonly row: PresetRow;
  readonly fingerprint: string;
  readonly came: Card;
}

/** A pack's presets as they are here, by id. */
export async function listOfPack(db: Executor, pack: string): Promise<ReadonlyMap<string, OfPack>> {
  const rows = await withDocuments(db)
    .select<(StoredPreset & Pick<VersionTable, "fingerprint"> & Pick<PresetTable, "pack_card">)[]>(
      "v.fingerprint",
      "p.pack_card",
    )
    .where("p.pack", pack);
  return new Map(
    rows.map((stored) => {
      const { id, fingerprint, card, pack_card } = stored;
      return [id, { row: toRow(stored), fingerprint, came: readCard(pack_card ?? card) }];
    }),
  );
}

/** Every preset of one's own as its name is judged, in the order in which they were saved first. In turns with others. */
export async function listNamed(
  db: Executor,
): Promise<readonly { id: string; kind: PresetKind; card: Card; inside: Inside }[]> {
  const CHUNK = 500;
  const turn = takingTurns();
  const named: { id: string; kind: PresetKind; card: Card; inside: Inside }[] = [];
  for (let after = 0; ; ) {
    const rows = await db("presets")
      .whereNull("binned_at")
      .whereNull("pack")
      .where("row", ">", after)
      .orderBy("row")
      .limit(CHUNK)
      .select("row", "id", "kind", "card", "inside");
    for (const { id, kind, card, inside } of rows) {
      named.push({ id, kind, card: readCard(card), inside: readInside(inside) });
      await turn();
    }
    after = rows.at(-1)?.row ?? 0;
    if (rows.length < CHUNK) return named;
  }
}

/**
 * Presets by their names, but for those in the bin: those that have one of these, whatever its case and accents, or one of
 * them with a number behind. By the index of the names, so that thousands may be asked for.
 */
export async function listCalled(
  tx: Executor,
  names: readonly string[],
): Promise<readonly { row: number; id: string; name: string; numbered: boolean }[]> {
  const statement = await statementsOf(tx);
  // One for each: an OR of the two is not looked up by the index.
  const here = "SELECT row, id, card, sort_name FROM presets WHERE binned_at IS NULL AND";
  const called = statement<Pick<PresetTable, "row" | "id" | "card" | "sort_name">>(
    `${here} sort_name = ? UNION ALL ${here} sort_name > ? AND sort_name < ?`,
  );
  const found = new Map<number, { row: number; id: string; name: string; numbered: boolean }>();
  for (const wanted of new Set(names.map(fold))) {
    const stem = `${numberedStem(wanted)} `;
    for (const hit of called.all(wanted, stem, `${stem}:`)) {
      const numbered = hit.sort_name !== wanted;
      if (numbered && !/^\d+$/.test(hit.sort_name.slice(stem.length))) continue;
      const { name } = readCard(hit.card);
      const known = found.get(hit.row);
      found.set(hit.row, { row: hit.row, id: hit.id, name, numbered: numbered && known?.numbered !== false });
    }
  }
  return [...found.values()];
}

/** How many strips of projects use each of some presets; who is not in it is used by none. */
export async function countUses(db: Executor, ids: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const rows = await db("uses")
    .whereIn("preset", [...ids])
    .groupBy("preset")
    .select("preset")
    .count({ n: "*" });
  return new Map(rows.map(({ preset, n }) => [preset, Number(n)]));
}

/** What lies in a folder or is referred to by it, also what is in the bin. */
export async function listInFolder(db: Executor, folder: string): Promise<readonly { id: string; card: Card }[]> {
  const rows = await db("presets")
    .where({ folder })
    .orWhereIn("row", db("preset_references").where({ folder }).select("preset"))
    .select("id", "card");
  return rows.map(({ id, card }) => ({ id, card: readCard(card) }));
}

/** What is in the bin, the last thrown away first. */
export async function listBinned(db: Executor): Promise<readonly BinnedRow[]> {
  const rows = await db("presets as p")
    .whereNotNull("p.binned_at")
    .whereNull("p.merged_into")
    .orderBy("p.binned_at", "desc")
    .select<(Pick<PresetTable, "id" | "kind" | "card" | "card_revision"> & { binned_at: string; uses: number })[]>(
      "p.id",
      "p.kind",
      "p.card",
      "p.card_revision",
      "p.binned_at",
      db.raw("(SELECT count(*) FROM uses u WHERE u.preset = p.id) AS uses"),
    );
  return rows.map(({ card, card_revision, binned_at, ...row }) => ({
    ...row,
    name: readCard(card).name,
    cardRevision: card_revision,
    binnedAt: binned_at,
  }));
}

/** Rows of a list, in the order in which they are asked for. */
export async function rowsInOrder(db: Executor, rows: readonly number[]): Promise<readonly PresetRow[]> {
  const stored = await withDocuments(db).whereIn("p.row", [...rows]);
  const byRow = new Map(stored.map((s) => [s.row, s]));
  return rows.flatMap((row) => {
    const found = byRow.get(row);
    return found ? [toRow(found)] : [];
  });
}

/** Presets by their ids, in that order, without what is in the bin. */
export async function rowsById(db: Executor, ids: readonly string[]): Promise<readonly PresetRow[]> {
  const CHUNK = 200;
  const turn = takingTurns();
  const byId = new Map<string, PresetRow>();
  for (let at = 0; at < ids.length; at += CHUNK) {
    const some = ids.slice(at, at + CHUNK);
    const stored = await withDocuments(db).whereNull("p.binned_at").whereIn("p.id", some);
    for (const row of stored) byId.set(row.id, toRow(row));
    await turn();
  }
  return ids.flatMap((id) => byId.get(id) ?? []);
}

/** Cards by the ids of their presets, in that order, without what is in the bin. */
export async function cardsById(tx: Executor, ids: readonly string[]): Promise<readonly ChangedCard[]> {
  const statement = await statementsOf(tx);
  const find = statement<Pick<PresetTable, "card" | "card_revision" | "inside">>(
    "SELECT card, card_revision, inside FROM presets WHERE id = ? AND binned_at IS NULL",
  );
  const turn = takingTurns();
  const found: ChangedCard[] = [];
  for (const id of ids) {
    const row = find.get(id);
    if (!row) continue;
    const card = readCard(row.card);
    found.push({
      id,
      card,
      cardRevision: row.card_revision,
      measured: [...measuredTags(card, readInside(row.inside))],
    });
    await turn();
  }
  return found;
}

export async function countPresets(db: Executor): Promise<number> {
  const [{ n } = { n: 0 }] = await db("presets").whereNull("binned_at").count({ n: "*" });
  return Number(n);
}
