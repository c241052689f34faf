import { stepsBetween } from "@/core/history/between";
import type { ProjectStep } from "@/core/library/step";
import type { Executor } from "../../data/executor";
import { refuse } from "../../failure";
import { swapProjects } from "../../repositories/filed-projects";
import * as projects from "../../repositories/projects";
import { wordsOfNone } from "../projects/body";
import { type Committing, commitIn } from "../projects/commit";
import { momentAt } from "../projects/history";
import type { Taking } from "./taking";

/*
 * What bringing in does to projects, as steps of the library's log. A project that came in, and is let go of again, lies in the bin; one
 * that has gone on goes back by one more change of its own.
 */

type StepOf<K extends ProjectStep["kind"]> = Extract<ProjectStep, { kind: K }>;

async function recordOf(tx: Executor, id: string): Promise<projects.ProjectRecord> {
  const record = await projects.findProject(tx, id);
  return !record || record.draft ? refuse("notFound", wordsOfNone(id)) : record;
}

export async function applyProjectStep(tx: Executor, step: ProjectStep, { at, note, context }: Taking): Promise<void> {
  switch (step.kind) {
    case "projectBin":
      await applyBin(tx, step, at);
      break;
    case "projectHead":
      await applyHead({ context, tx: tx as Committing["tx"], note }, step);
      break;
    case "projectSwap":
      await swapProjects(tx, step.project, step.to);
      note({ kind: "project", id: step.to });
  }
  note({ kind: "project", id: step.project });
}

async function applyBin(tx: Executor, { project: id, from, to }: StepOf<"projectBin">, at: string): Promise<void> {
  const { project, binnedAt } = await recordOf(tx, id);
  if ((binnedAt !== null) !== from)
    refuse("refused", `“${project.name}” is ${from ? "not in the bin any more" : "in the bin already"}.`);
  await projects.setBinned(tx, id, to ? at : null);
}

/** By one more change, where nothing else was done to it since. */
async function applyHead(committing: Committing, { project: id, from, to }: StepOf<"projectHead">): Promise<void> {
  const { context, tx } = committing;
  const record = await recordOf(tx, id);
  const { project, revision } = record;
  if (Math.max(from, to) > revision) refuse("refused", `“${project.name}” has another past by now.`);
  const left = await momentAt(tx, record, from);
  if (stepsBetween({ now: project, then: left }, context.mint).length > 0)
    refuse("refused", `Something was done to “${project.name}” since; it stays.`);
  const steps = stepsBetween({ now: project, then: await momentAt(tx, record, to) }, context.mint);
  if (steps.length === 0) return;
  const label = `As it was after change ${to}`;
  await commitIn(committing, id, () => Promise.resolve({ label, steps, passing: true }));
}
