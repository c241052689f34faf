import equal from "fast-deep-equal";
import { deflateRawSync, inflateRawSync } from "node:zlib";
import type { FiledChange, FiledProject } from "@/core/archive/documents";
import type { Mark } from "@/core/archive/join-histories";
import { aboutOf } from "@/core/history/about";
import type { Project } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import { invertSteps } from "@/core/recall/step";
import { type Result, fail, ok } from "@/core/result";
import { type Statements, statementsOf } from "../data/statements";
import type { Executor } from "../data/executor";
import type { MomentTable, ProjectTable } from "../data/tables";
import { takingTurns } from "../turns";
import { replaceDocument } from "./documents";
import { type Unkept, keepSometimes } from "./moments";
import { headOf, writeStrips } from "./project-strips";
import { type ProjectRecord, columnsOf, findProject, insertProject } from "./projects";
import { insertRevision } from "./revisions";

/* Projects as whole as a file has them: with all that was ever done to them, and when. */

/** What was done to a project that is here, the first one first; null where there is none. Drafts are none. */
export function findMarks(statement: Statements, id: string): readonly Mark[] | null {
  const here = statement<Pick<ProjectTable, "id">>("SELECT id FROM projects WHERE id = ? AND kind = 'project'").get(id);
  if (!here) return null;
  return statement<Mark>("SELECT n, at, label, window FROM revisions WHERE project = ? ORDER BY n").all(id);
}

/**
 * A project as it was before all that was done to it, walked back step by step. The error is a sentence: its past does not lead to how it
 * stands.
 */
async function beginningOf(project: Project, changes: readonly FiledChange[]): Promise<Result<Project, string>> {
  const turn = takingTurns();
  let now = project;
  for (const { n, steps } of changes.toReversed()) {
    const before = applySteps(now, invertSteps(steps));
    if (!before.ok) return fail(`Its past does not lead to how it stands: change ${n}: ${before.error.reason}`);
    now = before.value;
    await turn();
  }
  return ok(now);
}

interface Walk {
  readonly project: Project;
  readonly unkept: Unkept;
}

/** Writes changes behind what there is, each with what it concerned, and keeps moments as they would have been kept. */
async function writeChanges(db: Executor, from: Walk, changes: readonly FiledChange[]): Promise<Result<Walk, string>> {
  const turn = takingTurns();
  let { project, unkept } = from;
  for (const { n, at, label, undoes, redoes, window, steps } of changes) {
    const next = applySteps(project, steps);
    if (!next.ok) return fail(`Its change ${n} cannot be taken: ${next.error.reason}`);
    const [before, after] = [project, next.value];
    const written = await insertRevision(db, {
      project: project.id,
      n,
      at,
      label,
      steps,
      window,
      about: aboutOf(steps, { before, after }),
      ...(undoes === null ? {} : { undoes }),
      ...(redoes === null ? {} : { redoes }),
    });
    const change = { before: { n: n - 1, project: before }, after: { n, project: after }, written };
    unkept = await keepSometimes(db, unkept, change);
    project = after;
    await turn();
  }
  return ok({ project, unkept });
}

/**
 * Writes a project as a file has it, under its own id or another; where it was put into the bin, or is to be taken out by a step, it lies
 * there. The error is a sentence, with something written by then: it is thrown out of the transaction.
 */
export async function insertFiled(
  db: Executor,
  { project: given, draft, changedAt, binnedAt }: Pick<FiledProject, "project" | "draft" | "changedAt" | "binnedAt">,
  changes: readonly FiledChange[],
  id: string = given.id,
): Promise<Result<null, string>> {
  const project = { ...given, id };
  const begun = await beginningOf(project, changes);
  if (!begun.ok) return begun;
  await insertProject(db, { project, at: changedAt, ...(draft ? { draft } : {}) });
  const nothing: Unkept = { size: 0, written: 0 };
  const walked = await writeChanges(db, { project: begun.value, unkept: nothing }, changes);
  if (!walked.ok) return walked;
  const { unkept } = walked.value;
  await db("projects")
    .where({ id })
    .update({
      revision: changes.length,
      binned_at: binnedAt,
      kept_size: draft ? 0 : unkept.size,
      unkept: draft ? 0 : unkept.written,
    });
  if (draft) await db("moments").where({ project: id }).delete();
  return ok(null);
}

/** Goes on with a project that is here by what was done to it elsewhere since. The error is a sentence. */
export async function goOn(
  db: Executor,
  record: ProjectRecord,
  filed: Pick<FiledProject, "project" | "changedAt">,
  changes: readonly FiledChange[],
): Promise<Result<null, string>> {
  const walked = await writeChanges(db, record, changes);
  if (!walked.ok) return walked;
  const { project, unkept } = walked.value;
  if (!equal(project, filed.project)) return fail("What was done to it does not lead to how it stands.");
  await replaceDocument(db, record.document, headOf(project));
  await db("projects")
    .where({ id: project.id })
    .update({
      ...columnsOf(project),
      revision: record.revision + changes.length,
      changed_at: filed.changedAt,
      kept_size: unkept.size,
      unkept: unkept.written,
    });
  await writeStrips(db, project, record.project, false);
  return ok(null);
}

/** Everything that goes by the id of a project. */
const BY_ID = [
  ["projects", "id"],
  ["project_strips", "project"],
  ["moments", "project"],
  ["revisions", "project"],
  ["uses", "project"],
  ["wrap_ups", "project"],
] as const;

/** Two projects take each other's id, with all that goes by it. */
export async function swapProjects(db: Executor, a: string, b: string): Promise<void> {
  const statement = await statementsOf(db);
  for (const id of [a, b]) if (!(await findProject(db, id))) throw new Error(`There is no project ${id}`);
  // What goes by an id is checked at the end of the transaction.
  await db.raw("PRAGMA defer_foreign_keys = ON");
  const passing = `${a} `;
  for (const [from, to] of [
    [a, passing],
    [b, a],
    [passing, b],
  ] as const)
    for (const [table, column] of BY_ID)
      statement(`UPDATE ${table} SET ${column} = ? WHERE ${column} = ?`).run(to, from);
  for (const id of [a, b]) {
    statement(
      "UPDATE documents SET body = json_set(body, '$.id', ?) WHERE id = (SELECT document FROM projects WHERE id = ?)",
    ).run(id, id);
    const kept = statement<Pick<MomentTable, "id" | "packed">>("SELECT id, packed FROM moments WHERE project = ?");
    for (const { id: row, packed } of kept.all(id)) {
      const project = JSON.parse(inflateRawSync(packed).toString("utf8")) as Project;
      statement("UPDATE moments SET packed = ? WHERE id = ?").run(
        deflateRawSync(JSON.stringify({ ...project, id })),
        row,
      );
    }
  }
}
