import { deflateRawSync, inflateRawSync } from "node:zlib";
import { type NewNumbers, renumberVersions } from "@/core/archive/renumber";
import { statementsOf } from "../data/statements";
import type { Executor } from "../data/executor";
import type { MomentTable } from "../data/tables";

/** Texts that mention versions, each with the column that numbers its row. */
const TEXTS = [
  ["documents", "id", "body"],
  ["presets", "row", "card"],
  ["project_strips", "rowid", "body"],
  ["library_log", "n", "steps"],
  ["settings", "id", "body"],
] as const;

/** A text with new numbers; null where nothing in it is another. */
function rewritten(text: string, numbers: NewNumbers): string | null {
  try {
    const before: unknown = JSON.parse(text);
    const after = renumberVersions(before, numbers);
    return after === before ? null : JSON.stringify(after);
  } catch {
    // What is no document any more mentions nothing that could be read.
    return null;
  }
}

/**
 * Wherever anything here mentions a version of a preset, it goes by its new number: presets, projects, drafts, their pasts, what is set
 * up. What it means stays the same.
 */
export async function renumberMentions(
  db: Executor,
  preset: string,
  numbers: ReadonlyMap<number, number>,
): Promise<void> {
  const all: NewNumbers = new Map([[preset, numbers]]);
  const statement = await statementsOf(db);
  const mark = `"preset":${JSON.stringify(preset)}`;
  for (const [table, key, column] of TEXTS) {
    const found = statement<{ key: number; text: string }>(
      `SELECT ${key} AS key, ${column} AS text FROM ${table} WHERE instr(${column}, ?) > 0`,
    ).all(mark);
    for (const { key: row, text } of found) {
      const next = rewritten(text, all);
      if (next !== null) statement(`UPDATE ${table} SET ${column} = ? WHERE ${key} = ?`).run(next, row);
    }
  }
  const changes = statement<{ project: string; n: number; steps: string }>(
    "SELECT project, n, steps FROM revisions WHERE instr(steps, ?) > 0",
  ).all(mark);
  for (const { project, n, steps } of changes) {
    const next = rewritten(steps, all);
    if (next !== null) statement("UPDATE revisions SET steps = ? WHERE project = ? AND n = ?").run(next, project, n);
  }
  for (const { id, packed } of statement<Pick<MomentTable, "id" | "packed">>("SELECT id, packed FROM moments").all()) {
    const next = rewritten(inflateRawSync(packed).toString("utf8"), all);
    if (next !== null) statement("UPDATE moments SET packed = ? WHERE id = ?").run(deflateRawSync(next), id);
  }
  const turned = [...numbers];
  const cases = turned.map(() => "WHEN ? THEN ?").join(" ");
  const flat = turned.flat();
  statement(`UPDATE uses SET version = CASE version ${cases} ELSE version END WHERE preset = ?`).run(...flat, preset);
  statement(
    `UPDATE projects SET draft_version = CASE draft_version ${cases} ELSE draft_version END WHERE draft_preset = ?`,
  ).run(...flat, preset);
}
