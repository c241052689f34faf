import type { NewProject, ProjectBody } from "@/contracts/projects";
import type { ProjectRow } from "@/contracts/records";
import { findProjectProblem } from "@/core/projects/problems";
import { type Project, completeProject } from "@/core/projects/project";
import { PROJECT_SCHEMA } from "@/core/projects/schema";
import { ok } from "@/core/result";
import { type Outcome, failure } from "../../failure";
import * as projects from "../../repositories/projects";
import type { Context } from "../../store/context";
import { inTransaction } from "../../store/transaction";
import { bodyOf, noProject } from "./body";

/** Projects, the last changed first: those in the bin, or those that are not. */
export const listProjects = ({ db }: Context, binned = false): Promise<readonly ProjectRow[]> =>
  projects.listProjects(db, binned);

export async function getProject({ db }: Context, id: string): Promise<Outcome<ProjectBody>> {
  const record = await projects.findProject(db, id);
  return record ? ok(await bodyOf(db, record)) : noProject(id);
}

export async function makeProject(context: Context, { project: given }: NewProject): Promise<Outcome<ProjectBody>> {
  const project: Project = { schema: PROJECT_SCHEMA, id: context.mint(), ...given };
  const problem = findProjectProblem(project);
  if (problem) return failure("notUnderstood", problem.message, { path: `project.${problem.path}` });
  await inTransaction(context, async (tx, note) => {
    await projects.insertProject(tx, { project: completeProject(project), at: context.now().toISOString() });
    note({ kind: "project", id: project.id });
  });
  return getProject(context, project.id);
}
