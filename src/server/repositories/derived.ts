import type { Knex } from "knex";
import { liftContent } from "@/core/presets/migrations";
import { fingerprint } from "@/core/presets/fingerprint";
import { insideOf } from "@/core/library/inside";
import { type Statements, statementsOf } from "../data/statements";
import type { Executor } from "../data/executor";
import type { DocumentTable, PresetTable, VersionTable } from "../data/tables";
import { readCard, readInside } from "../data/stored";
import { holdAgain, insertIndex, referAgain } from "./preset-search";
import { sortName } from "./presets";
import { writeFaces } from "./project-strips";
import { liftWith } from "./projects";

/*
 * What is read from documents to find and to compare them by: what is inside, which presets are held, the durable index,
 * fingerprints, how loud each sound is, which strips of projects use which presets. It holds nothing that the documents do not.
 */

/** The number of the rules by which it is made. Raise it where one of them changes: every library is derived anew, once. */
const RULES = 8;

const CHUNK = 500;

type Stored = Pick<PresetTable, "row" | "card" | "inside"> & Pick<DocumentTable, "body">;
type StoredVersion = Pick<VersionTable, "preset" | "version"> & Pick<DocumentTable, "body">;

/** null for what cannot be read: what was derived from it before stays. */
function readAs<T>(lift: (json: unknown) => T, body: string): T | null {
  try {
    return lift(JSON.parse(body));
  } catch {
    return null;
  }
}

/** Makes everything that is derived anew, where the rules are others than those that it was made by. */
export async function deriveAgain(db: Knex): Promise<void> {
  const [made] = await db.raw<{ user_version: number }[]>("PRAGMA user_version");
  if ((made?.user_version ?? 0) >= RULES) return;
  await db.transaction(async (tx) => {
    const statement = await statementsOf(tx);
    derivePresets(statement);
    deriveFingerprints(statement);
    deriveStrips(statement);
    // It is measured again, in the background.
    statement("DELETE FROM loudness").run();
    await tx.raw(`PRAGMA user_version = ${RULES}`);
  });
}

/** Makes what is derived of one sound anew: where it lies, what it is found by, the fingerprints of its versions. */
export async function deriveSound(tx: Executor, id: string): Promise<void> {
  const statement = await statementsOf(tx);
  const row = statement<Stored>(
    `SELECT p.row, p.card, p.inside, d.body FROM presets p
     JOIN preset_versions v ON v.preset = p.id AND v.version = p.version
     JOIN documents d ON d.id = v.document WHERE p.id = ?`,
  ).get(id);
  if (!row) return;
  statement("UPDATE presets SET folder = json_extract(card, '$.folder') WHERE row = ?").run(row.row);
  statement("DELETE FROM preset_search WHERE rowid = ?").run(BigInt(row.row));
  derivePreset(statement, row);
  const versions = statement<StoredVersion>(
    `SELECT v.preset, v.version, d.body FROM preset_versions v JOIN documents d ON d.id = v.document WHERE v.preset = ?`,
  ).all(id);
  for (const version of versions) deriveFingerprint(statement, version);
}

/** Makes what is derived of the strips of one project anew. */
export async function deriveProject(tx: Executor, id: string): Promise<void> {
  const statement = await statementsOf(tx);
  const row = statement<Pick<DocumentTable, "body"> & { readonly strips: string | null }>(
    `SELECT d.body, (SELECT group_concat(s.body) FROM project_strips s WHERE s.project = p.id) AS strips
     FROM projects p JOIN documents d ON d.id = p.document WHERE p.id = ?`,
  ).get(id);
  const project = row && readAs(liftWith(row.strips), row.body);
  if (!project) return;
  statement("DELETE FROM uses WHERE project = ?").run(id);
  writeFaces(statement, project);
}

/** Sounds that are not in the index of words. */
export async function listUnindexed(tx: Executor): Promise<readonly string[]> {
  const rows = (await statementsOf(tx))<Pick<PresetTable, "id">>(
    "SELECT id FROM presets WHERE row NOT IN (SELECT id FROM preset_search_docsize)",
  ).all();
  return rows.map(({ id }) => id);
}

function derivePresets(statement: Statements): void {
  statement("INSERT INTO preset_search (preset_search) VALUES ('delete-all')").run();
  const some = statement<Stored>(
    `SELECT p.row, p.card, p.inside, d.body FROM presets p
     JOIN preset_versions v ON v.preset = p.id AND v.version = p.version
     JOIN documents d ON d.id = v.document WHERE p.row > ? ORDER BY p.row LIMIT ${CHUNK}`,
  );
  for (let after = 0, rows: Stored[]; (rows = some.all(after)).length > 0; after = rows.at(-1)!.row)
    for (const row of rows) derivePreset(statement, row);
}

function derivePreset(statement: Statements, { row, card, inside, body }: Stored): void {
  const content = readAs(liftContent, body);
  const now = content ? insideOf(content) : readInside(inside);
  if (content) {
    statement("UPDATE presets SET inside = ? WHERE row = ?").run(JSON.stringify(now), row);
    holdAgain(statement, row, content);
  }
  const read = readCard(card);
  statement("UPDATE presets SET sort_name = ? WHERE row = ?").run(sortName(read.name), row);
  referAgain(statement, row, read);
  insertIndex(statement, row, read, now);
}

function deriveFingerprints(statement: Statements): void {
  const some = statement<StoredVersion>(
    `SELECT v.preset, v.version, d.body FROM preset_versions v JOIN documents d ON d.id = v.document
     WHERE (v.preset, v.version) > (?, ?) ORDER BY v.preset, v.version LIMIT ${CHUNK}`,
  );
  let last: readonly [string, number] = ["", 0];
  for (let rows: StoredVersion[]; (rows = some.all(...last)).length > 0; ) {
    for (const row of rows) deriveFingerprint(statement, row);
    const { preset, version } = rows.at(-1)!;
    last = [preset, version];
  }
}

function deriveFingerprint(statement: Statements, { preset, version, body }: StoredVersion): void {
  const content = readAs(liftContent, body);
  if (content)
    statement("UPDATE preset_versions SET fingerprint = ? WHERE preset = ? AND version = ?").run(
      fingerprint(content),
      preset,
      version,
    );
}

/** What strips are found by, and which presets they came from. */
function deriveStrips(statement: Statements): void {
  const projects = statement<Pick<DocumentTable, "body"> & { readonly strips: string | null }>(
    `SELECT d.body, (SELECT group_concat(s.body) FROM project_strips s WHERE s.project = p.id) AS strips
     FROM projects p JOIN documents d ON d.id = p.document WHERE p.kind = 'project'`,
  );
  for (const { body, strips } of projects.all()) {
    const project = readAs(liftWith(strips), body);
    if (project) writeFaces(statement, project);
  }
}
