import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Knex } from "knex";
import { afterEach, beforeEach, expect, it } from "vitest";
import { loadDemo } from "@/demo/load";
import { openContext } from "../store/open";
import { searchDurably } from "./preset-search";

let folder: string;

beforeEach(() => (folder = mkdtempSync(join(tmpdir(), "diathesis-derived-"))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** All that is derived, but for the index, of which some searches stand. */
const derived = async (db: Knex) => ({
  inside: await db("presets").orderBy("row").select("row", "inside"),
  held: await db("preset_holds").orderBy(["held", "preset"]).select(),
  uses: await db("uses").orderBy(["project", "strip", "preset"]).select(),
  fingerprints: await db("preset_versions").orderBy(["preset", "version"]).select("preset", "version", "fingerprint"),
  found: await Promise.all(["voice", "cello", "comp", "tun"].map((word) => searchDurably(db, [word], 20))),
});

it("is made anew by what stands in the documents when its rules have changed, and only then", async () => {
  const context = await openContext(folder);
  await loadDemo(context);
  const before = await derived(context.db);
  expect(before.held.length).toBeGreaterThan(0);
  expect(before.uses.length).toBeGreaterThan(0);
  expect(before.fingerprints.every(({ fingerprint }) => /^2:[0-9a-f]{64}$/.test(String(fingerprint)))).toBe(true);
  expect(before.found.every((rows) => rows.length > 0)).toBe(true);
  const unreadable = (await context.db("preset_versions").orderBy("preset").first("document", "preset"))!;
  await context.writer("documents").where({ id: unreadable.document }).update({ body: "{" });
  await context.writer("presets").whereNot({ id: unreadable.preset }).update({ inside: "{}" });
  await context.writer("preset_versions").whereNot({ document: unreadable.document }).update({ fingerprint: "none" });
  await context.writer("preset_holds").delete();
  await context.writer("uses").delete();
  await context.writer.raw("INSERT INTO preset_search (preset_search) VALUES ('delete-all')");
  await context.close();

  const same = await openContext(folder);
  expect((await derived(same.db)).held).toEqual([]);
  await same.writer.raw("PRAGMA user_version = 0");
  await same.close();

  const again = await openContext(folder);
  expect(await derived(again.db)).toEqual(before);
  await again.close();
});
