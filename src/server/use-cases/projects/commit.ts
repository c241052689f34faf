import type { ProjectBody, Together } from "@/contracts/projects";
import { referenceOf } from "@/core/presets/standing";
import { mixesOf } from "@/core/projects/mixes";
import { findProjectProblem } from "@/core/projects/problems";
import type { Project } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import { type Step, kindOf } from "@/core/recall/steps";
import type { Note } from "../../data/changes";
import type { Executor } from "../../data/executor";
import { type Outcome, refuse } from "../../failure";
import { touchPresets } from "../../repositories/presets";
import * as projects from "../../repositories/projects";
import type { NewRevision } from "../../repositories/revisions";
import type { Context } from "../../store/context";
import { transact } from "../../store/transact";
import { askingWindow } from "../../store/window";
import { takingTurns } from "../../turns";
import { bodyOf, wordsOfNone } from "./body";

/** Refuses what was made for another revision. */
export const refuseStale = ({ project, revision }: projects.ProjectRecord, base: number): never =>
  refuse("stale", `“${project.name}” is at revision ${revision} by now; this was made for revision ${base}.`, {
    path: "baseRevision",
    detail: { revision },
  });

/** Steps that are taken in one go; between one such stretch and the next others have their turn. */
const STRETCH = 100;

async function applyChecked(record: projects.ProjectRecord, steps: readonly Step[]): Promise<Project> {
  const turn = takingTurns();
  let { project } = record;
  for (let from = 0; from < steps.length; from += STRETCH) {
    const applied = applySteps(project, steps.slice(from, from + STRETCH));
    if (!applied.ok) {
      const at = steps.indexOf(applied.error.step);
      refuse("refused", applied.error.reason, { path: `steps[${at}]`, detail: { step: applied.error.step.id } });
    }
    project = applied.value;
    await turn();
  }
  const ahead = mixesOf(project).find(({ n }) => n > record.revision);
  if (ahead) refuse("refused", `“${ahead.name}” keeps a moment that is still to come.`);
  const problem = findProjectProblem(project);
  // A fault that was let in before stays, so that all else can be changed, and the fault mended or undone.
  if (problem && findProjectProblem(record.project)?.message !== problem.message)
    refuse("refused", problem.message, { path: problem.path });
  return project;
}

/** The presets that a change brings in: they were used now. */
const presetsBrought = (steps: readonly Step[]): readonly string[] => [
  ...new Set(steps.flatMap((step) => kindOf(step).brings(step)).map((from) => from.preset)),
];

/** What a draft goes by: once it is saved, or another sound is loaded into it, it is a draft of that. */
function draftAfter(
  { project: before, draft }: projects.ProjectRecord,
  after: Project,
): projects.ProjectRecord["draft"] {
  const [was, is] = [before, after].map(({ strips: [strip] }) => (strip ? referenceOf(strip) : null));
  if (!draft || (was?.preset === is?.preset && was?.version === is?.version)) return draft;
  return is ? { preset: is.preset, version: is.version } : { preset: null, version: null };
}

export type Gesture = Pick<NewRevision, "label" | "steps" | "undoes" | "redoes"> & { readonly passing?: boolean };

export type Made = (record: projects.ProjectRecord, tx: Executor) => Promise<Gesture>;

export interface Committing {
  readonly context: Context;
  readonly tx: Parameters<Parameters<typeof transact>[1]>[0];
  readonly note: Note;
}

/** Writes one gesture of a project as a revision, within a transaction; the project as that leaves it. */
export async function commitIn(
  { context, tx, note }: Committing,
  id: string,
  gesture: Made,
): Promise<projects.ProjectRecord> {
  const record = (await projects.findProject(tx, id, recentOf(context).get(id))) ?? refuse("notFound", wordsOfNone(id));
  if (record.binnedAt !== null)
    refuse("refused", `“${record.project.name}” is in the bin. Take it out of there to change it.`);
  const { passing = false, ...made } = await gesture(record, tx);
  const project = await applyChecked(record, made.steps);
  const at = context.now().toISOString();
  const draft = draftAfter(record, project);
  const kept = await projects.appendRevision(tx, { ...record, draft }, project, {
    ...made,
    at,
    window: askingWindow(),
  });
  const used = record.draft || passing || made.undoes !== undefined ? [] : presetsBrought(made.steps);
  if (used.length > 0) await touchPresets(tx, used, at);
  for (const preset of used) note({ kind: "preset", id: preset });
  note({ kind: "project", id, revision: kept.revision });
  return kept;
}

export async function commit(context: Context, id: string, gesture: Made): Promise<Outcome<ProjectBody>> {
  let kept: projects.ProjectRecord | null = null;
  const outcome = await transact(context, async (tx, note) => {
    kept = await commitIn({ context, tx, note }, id, gesture);
    return bodyOf(tx, kept);
  });
  // Only what is on disk by now.
  if (outcome.ok && kept) keepRecent(recentOf(context), kept);
  return outcome;
}

/** Several projects in one go, all or none. */
export function commitTogether(
  context: Context,
  gestures: readonly { readonly project: string; readonly made: Made }[],
): Promise<Outcome<Together>> {
  return transact(context, async (tx, note) => {
    const revisions: Together["revisions"] = [];
    for (const { project, made } of gestures) {
      const { revision } = await commitIn({ context, tx, note }, project, made);
      revisions.push({ project, revision });
    }
    return { revisions };
  });
}

/** Projects that were changed last, as they were left: where the revision is still that, nothing of them is read again. */
const RECENT = new WeakMap<Context["writer"], Map<string, projects.ProjectRecord>>();
const MOST_RECENT = 4;

function recentOf({ writer }: Context): Map<string, projects.ProjectRecord> {
  const recent = RECENT.get(writer) ?? new Map<string, projects.ProjectRecord>();
  RECENT.set(writer, recent);
  return recent;
}

function keepRecent(recent: Map<string, projects.ProjectRecord>, record: projects.ProjectRecord): void {
  recent.delete(record.project.id);
  recent.set(record.project.id, record);
  for (const id of [...recent.keys()].slice(0, -MOST_RECENT)) recent.delete(id);
}
