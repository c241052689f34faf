import { inNameOrder } from "@/core/names/order";
import { fold } from "@/core/names/words";
import type { Folder } from "@/contracts/records";
import type { Executor } from "../data/executor";
import { statementsOf } from "../data/statements";
import type { FolderRecord } from "@/core/library/step";
import type { PresetTable, ReferenceTable } from "../data/tables";

/** All folders, parents before children by name, with the presets in and below each: each once, wherever it is referred to. */
export async function listFolders(db: Executor): Promise<readonly Folder[]> {
  const stored = await db("folders").select("id", "name", "parent");
  const rows = stored.toSorted((a, b) => inNameOrder(a.name, b.name));
  const counts = await db("presets")
    .whereNull("binned_at")
    .whereNotNull("folder")
    .groupBy("folder")
    .select("folder")
    .count({ n: "*" });
  const own = new Map(counts.map((row) => [row.folder, Number(row.n)]));
  const children = new Map<string | null, FolderRecord[]>();
  for (const row of rows) {
    const beside = children.get(row.parent);
    if (beside) beside.push(row);
    else children.set(row.parent, [row]);
  }
  const order: { -readonly [K in keyof Folder]: Folder[K] }[] = [];
  const left = (children.get(null) ?? []).toReversed();
  for (let row = left.pop(); row; row = left.pop()) {
    order.push({ ...row, count: own.get(row.id) ?? 0 });
    left.push(...(children.get(row.id) ?? []).toReversed());
  }
  // From the last to the first every folder comes after all that is below it.
  const byId = new Map(order.map((folder) => [folder.id, folder]));
  for (const folder of order.toReversed()) {
    const parent = folder.parent === null ? undefined : byId.get(folder.parent);
    if (parent) parent.count += folder.count;
  }
  await countReferences(db, byId);
  return order;
}

/** Counts what folders refer to, where it is not counted already: as what lies there, or below. */
async function countReferences(
  db: Executor,
  byId: ReadonlyMap<string, { readonly parent: string | null; count: number }>,
): Promise<void> {
  const references = await db("preset_references as r")
    .join("presets as p", "p.row", "r.preset")
    .whereNull("p.binned_at")
    .select<(ReferenceTable & { readonly home: string | null })[]>("r.folder", "r.preset", "p.folder as home");
  const countedIn = new Map<number, Set<string>>();
  /** Walks up, to where it was before; the folders that are new. */
  const walk = (from: string | null, known: Set<string>): readonly string[] => {
    const passed: string[] = [];
    for (let at = from; at !== null && !known.has(at); at = byId.get(at)?.parent ?? null) {
      known.add(at);
      passed.push(at);
    }
    return passed;
  };
  for (const { folder, preset, home } of references) {
    const known = countedIn.get(preset) ?? new Set<string>();
    if (!countedIn.has(preset)) walk(home, known);
    countedIn.set(preset, known);
    for (const id of walk(folder, known)) {
      const passed = byId.get(id);
      if (passed) passed.count++;
    }
  }
}

export const findFolder = async (db: Executor, id: string): Promise<FolderRecord | null> =>
  (await db("folders").where({ id }).first("id", "name", "parent")) ?? null;

/** Whether there is such a folder. */
export async function isFolder(tx: Executor, id: string): Promise<boolean> {
  const statement = await statementsOf(tx);
  return statement<{ id: string }>("SELECT id FROM folders WHERE id = ?").get(id) !== undefined;
}

export async function findFolderByName(
  db: Executor,
  name: string,
  parent: string | null,
): Promise<FolderRecord | null> {
  const beside = await db("folders").where({ parent }).select("id", "name", "parent");
  const wanted = fold(name);
  // The very name first; else what differs in capitals and accents only, which nobody would tell apart.
  return beside.find((f) => f.name === name) ?? beside.find((f) => fold(f.name) === wanted) ?? null;
}

export async function updateFolder(db: Executor, { id, name, parent }: FolderRecord, at: string): Promise<void> {
  await db("folders").where({ id }).update({ name, parent, changed_at: at });
}

export async function deleteFolder(db: Executor, id: string): Promise<void> {
  await db("folders").where({ id }).delete();
}

/** The folders right below one. */
export const listBelow = async (db: Executor, parent: string): Promise<readonly FolderRecord[]> =>
  db("folders").where({ parent }).select("id", "name", "parent");

/** Whether no preset, not even one in the bin, and no folder is in it, and it refers to none. */
export async function isEmpty(db: Executor, id: string): Promise<boolean> {
  const preset = await db("presets").where({ folder: id }).first("folder");
  const reference = await db("preset_references").where({ folder: id }).first("folder");
  return preset === undefined && reference === undefined && (await listBelow(db, id)).length === 0;
}

export const insertFolder = (db: Executor, folder: FolderRecord, at: string): Promise<unknown> =>
  db("folders").insert({ ...folder, changed_at: at });

/** The folder and all below it. */
export async function folderWithDescendants(db: Executor, id: string): Promise<readonly string[]> {
  const rows = await db.raw<Pick<FolderRecord, "id">[]>(
    `WITH RECURSIVE below(id) AS (SELECT id FROM folders WHERE id = ? UNION SELECT f.id FROM folders f JOIN below ON f.parent = below.id)
     SELECT id FROM below`,
    [id],
  );
  return rows.map((row) => row.id);
}

/** The presets in a folder and in all that are below it, and those that they refer to, but for those in the bin. */
export async function idsBelow(db: Executor, folder: string): Promise<readonly string[]> {
  const below = new Set([folder]);
  // Parents come before their children.
  for (const { id, parent } of await listFolders(db)) if (parent !== null && below.has(parent)) below.add(id);
  const filed = await db("presets").whereNull("binned_at").whereNotNull("folder").select("id", "folder");
  const referred = await db("preset_references as r")
    .join("presets as p", "p.row", "r.preset")
    .whereNull("p.binned_at")
    .select<Pick<PresetTable, "id" | "folder">[]>("p.id", "r.folder");
  const ids = [...filed, ...referred].flatMap(({ id, folder: own }) => (own !== null && below.has(own) ? [id] : []));
  return [...new Set(ids)];
}
