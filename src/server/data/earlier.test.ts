import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import type { Knex } from "knex";
import { afterEach, beforeEach, expect, it } from "vitest";
import { findPresets } from "../use-cases/find-presets";
import { getProject, listProjects } from "../use-cases/projects/read";
import { openContext } from "../store/open";
import { DATABASE_FILE } from "./library-file";
import { MIGRATIONS } from "./migrations";

/*
 * A small library of each earlier schema, as the Diathesis of then has written it, under the number of its last migration.
 * Whoever adds a migration lays one of the schema before it beside them.
 */
const EARLIER = join(import.meta.dirname, "earlier");
const FILES = readdirSync(EARLIER).sort();

let folder: string;

beforeEach(() => (folder = mkdtempSync(join(tmpdir(), "diathesis-earlier-"))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const schemaOf = (db: Knex): Promise<unknown> =>
  db("sqlite_master").whereNot("name", "like", "sqlite_%").orderBy(["type", "name"]).select("type", "name", "sql");

async function freshSchema(): Promise<unknown> {
  const context = await openContext(join(folder, "fresh"));
  const schema = await schemaOf(context.db);
  await context.close();
  return schema;
}

it("has one library of each schema before today's", () => {
  expect(FILES).toEqual(MIGRATIONS.slice(0, -1).map(({ name }) => `${name.slice(0, 3)}.db.gz`));
});

it.each(FILES)("%s is lifted: its sounds and projects are there, and its tables are those of today", async (file) => {
  writeFileSync(join(folder, DATABASE_FILE), gunzipSync(readFileSync(join(EARLIER, file))));
  const context = await openContext(folder);
  expect(await schemaOf(context.db)).toEqual(await freshSchema());
  const found = await findPresets(context, { limit: 100 });
  expect(found.total).toBeGreaterThan(20);
  expect(found.items.filter((preset) => preset.unreadable !== undefined)).toEqual([]);
  const voices = await findPresets(context, { q: "family:equaliser", limit: 100 });
  expect(voices.total).toBeGreaterThan(3);
  const projects = await listProjects(context);
  expect(projects.length).toBe(2);
  for (const { id } of projects) {
    const project = await getProject(context, id);
    expect(project.ok && project.value.project.strips.length).toBeGreaterThan(3);
  }
  const copies = readdirSync(join(folder, "copies"));
  expect(copies).toHaveLength(1);
  await context.close();
});
