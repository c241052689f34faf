import type {
  ChangeRequest,
  ChangedBody,
  NewProject,
  ProjectBody,
  Together,
  TogetherRequest,
} from "@/contracts/projects";
import type { History, ProjectRow, RevisionRow } from "@/contracts/records";
import { walkHistory } from "@/core/documents/history";
import { type Project, completeProject } from "@/core/projects/project";
import { findProjectProblem } from "@/core/projects/problems";
import { referenceOf } from "@/core/presets/standing";
import { PROJECT_SCHEMA } from "@/core/projects/schema";
import { applySteps } from "@/core/recall/apply";
import { invertSteps } from "@/core/recall/step";
import { type Step, cellOf, kindOf } from "@/core/recall/steps";
import { describeChange } from "@/core/recall/where";
import { ok } from "@/core/result";
import type { Context } from "../store/context";
import type { Note } from "../data/changes";
import type { Executor } from "../data/executor";
import { inTransaction } from "../store/transaction";
import { transact } from "../store/transact";
import { askingWindow, wordsFrom } from "../store/window";
import { type Outcome, failure, refuse } from "../failure";
import { takingTurns } from "../turns";
import { touchPresets } from "../repositories/presets";
import * as projects from "../repositories/projects";

const wordsOfNone = (id: string): string => `There is no project “${id}” here.`;
const noProject = (id: string) => failure("notFound", wordsOfNone(id));

export const listProjects = ({ db }: Context): Promise<readonly ProjectRow[]> => projects.listProjects(db);

/** What the next undo and redo concern, in words that say where. */
async function historyOf(db: Executor, project: Project): Promise<History> {
  const links = await projects.listLinks(db, project.id);
  const { undo, redo } = walkHistory(links);
  const words = async (n: number | undefined) => {
    if (n === undefined) return null;
    const done = describeChange(labelIn(links, n), project, await projects.getSteps(db, project.id, n));
    return wordsFrom(links.find((link) => link.n === n)?.window, done);
  };
  return { undo: await words(undo.at(-1)), redo: await words(redo.at(-1)) };
}

const labelIn = (links: readonly projects.RevisionLink[], n: number): string =>
  links.find((link) => link.n === n)?.label ?? "";

export async function getProject({ db }: Context, id: string): Promise<Outcome<ProjectBody>> {
  const record = await projects.findProject(db, id);
  return record ? ok(await bodyOf(db, record)) : noProject(id);
}

export const bodyOf = async (
  db: Executor,
  { project, revision, draft }: Omit<projects.ProjectRecord, "document">,
): Promise<ProjectBody> => ({
  project,
  revision,
  history: await historyOf(db, project),
  draft: draft ? { ...draft } : null,
});

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

/** Refuses what was made for another revision. */
const refuseStale = ({ project, revision }: projects.ProjectRecord, base: number): never =>
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

/** Applies steps as one revision, all or none. */
export async function changeProject(
  context: Context,
  id: string,
  request: ChangeRequest,
): Promise<Outcome<ChangedBody>> {
  const { baseRevision, brief = false } = request;
  const steps = request.steps.map((step) => kindOf(step).complete(step));
  const changed = await commit(context, id, (record) => {
    const rebased = steps.every((step) => kindOf(step).isOneValue(step)) && baseRevision < record.revision;
    if (baseRevision !== record.revision && !rebased) refuseStale(record, baseRevision);
    return Promise.resolve({ label: request.label, steps, passing: request.passing === true });
  });
  if (!changed.ok || !brief || changed.value.revision !== baseRevision + 1) return changed;
  // Who asked knows the project: it is what they had, with these steps.
  const { project: _, ...rest } = changed.value;
  return ok(rest);
}

/** What a draft goes by: once it is saved, or another sound is loaded into it, it is a draft of that. */
function draftAfter(
  { project: before, draft }: projects.ProjectRecord,
  after: Project,
): projects.ProjectRecord["draft"] {
  const [was, is] = [before, after].map(({ strips: [strip] }) => (strip ? referenceOf(strip) : null));
  if (!draft || (was?.preset === is?.preset && was?.version === is?.version)) return draft;
  return is ? { preset: is.preset, version: is.version } : { preset: null, version: null };
}

type Gesture = Pick<projects.NewRevision, "label" | "steps" | "undoes" | "redoes"> & { readonly passing?: boolean };

type Made = (record: projects.ProjectRecord, tx: Executor) => Promise<Gesture>;

interface Committing {
  readonly context: Context;
  readonly tx: Parameters<Parameters<typeof transact>[1]>[0];
  readonly note: Note;
}

/** Writes one gesture of a project as a revision, within a transaction; the project as that leaves it. */
async function commitIn({ context, tx, note }: Committing, id: string, gesture: Made): Promise<projects.ProjectRecord> {
  const record = (await projects.findProject(tx, id, recentOf(context).get(id))) ?? refuse("notFound", wordsOfNone(id));
  const { passing = false, ...made } = await gesture(record, tx);
  const project = await applyChecked(record, made.steps);
  const at = context.now().toISOString();
  const draft = draftAfter(record, project);
  const revision = await projects.appendRevision(tx, { ...record, draft }, project, {
    ...made,
    at,
    window: askingWindow(),
  });
  const used = record.draft || passing || made.undoes !== undefined ? [] : presetsBrought(made.steps);
  if (used.length > 0) await touchPresets(tx, used, at);
  for (const preset of used) note({ kind: "preset", id: preset });
  note({ kind: "project", id, revision });
  return { ...record, project, revision, draft };
}

async function commit(context: Context, id: string, gesture: Made): Promise<Outcome<ProjectBody>> {
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
function commitTogether(
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

/** Applies steps to several projects, to each as one revision; where one refuses, none is changed. */
export const changeTogether = (context: Context, { label, changes }: TogetherRequest): Promise<Outcome<Together>> =>
  commitTogether(
    context,
    changes.map(({ project, baseRevision, steps }) => ({
      project,
      made: (record) => {
        if (baseRevision !== record.revision) refuseStale(record, baseRevision);
        return Promise.resolve({ label, steps: steps.map((step) => kindOf(step).complete(step)) });
      },
    })),
  );

/** Takes revisions of several projects back, each by itself where something else was done since; where one cannot be, none is. */
export const undoTogether = (context: Context, { revisions }: Together): Promise<Outcome<Together>> =>
  commitTogether(
    context,
    revisions.map(({ project, revision }) => ({
      project,
      made: (record, tx) => walked(record, tx, { way: "undo", only: revision }),
    })),
  );

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

interface Walk {
  readonly way: "undo" | "redo";
  readonly only?: number | undefined;
}

/** What takes back, or does again, one change of the history. */
async function walked(record: projects.ProjectRecord, tx: Executor, { way, only }: Walk): Promise<Gesture> {
  const { id } = record.project;
  const links = await projects.listLinks(tx, id);
  const pile = walkHistory(links)[way];
  const n = only ?? pile.at(-1) ?? refuse("refused", `There is nothing to ${way}.`);
  if (!pile.includes(n)) refuse("refused", "That has been taken back already.");
  const steps = await projects.getSteps(tx, id, n);
  if (n !== pile.at(-1)) await checkAlone(tx, record.project, { links, n, later: pile.slice(pile.indexOf(n) + 1) });
  const label = labelIn(links, n);
  return way === "undo"
    ? { label: `Undo: ${label}`, steps: invertSteps(steps), undoes: n }
    : { label: `Redo: ${label}`, steps, redoes: n };
}

/** Appends what takes back, or does again, one change of the history. */
const walk = (
  context: Context,
  id: string,
  { base, ...way }: Walk & { readonly base: number },
): Promise<Outcome<ProjectBody>> =>
  commit(context, id, (record, tx) => {
    if (base !== record.revision) refuseStale(record, base);
    return walked(record, tx, way);
  });

interface Alone {
  readonly links: readonly projects.RevisionLink[];
  readonly n: number;
  /** What stands of the changes since, oldest first. */
  readonly later: readonly number[];
}

/** Refuses to take back a change that later ones stand on: those must still be able to be taken back after it, one by one. */
async function checkAlone(tx: Executor, project: Project, { links, n, later }: Alone): Promise<void> {
  const own = await projects.getSteps(tx, project.id, n);
  const cells = new Set(own.map((step) => JSON.stringify(cellOf(step))));
  const turn = takingTurns();
  let [now, standsOnIt] = [applySteps(project, invertSteps(own)), later.at(-1)];
  for (const one of later.toReversed()) {
    await turn();
    const steps = await projects.getSteps(tx, project.id, one);
    if (steps.some((step) => cells.has(JSON.stringify(cellOf(step))))) standsOnIt = one;
    if (now.ok) now = applySteps(now.value, invertSteps(steps));
  }
  if (now.ok) return;
  const [what, since] = [labelIn(links, n), labelIn(links, standsOnIt ?? n)];
  refuse("refused", `“${what}” cannot be taken back by itself: “${since}” was done on it since. Undo that first.`);
}

/** Appends the inverse of the last change that stands, or of the one that is asked for, where nothing later stands on it. */
export const undo = (context: Context, id: string, base: number, only?: number): Promise<Outcome<ProjectBody>> =>
  walk(context, id, { base, way: "undo", only });

/** Appends again what the last undo took back. */
export const redo = (context: Context, id: string, base: number): Promise<Outcome<ProjectBody>> =>
  walk(context, id, { base, way: "redo" });

export async function listRevisions({ db }: Context, id: string): Promise<Outcome<readonly RevisionRow[]>> {
  return (await projects.findProject(db, id)) ? ok(await projects.listRevisions(db, id)) : noProject(id);
}

/** The project as it was after revision n: the later ones are taken back, newest first. */
export async function getRevision(
  { db }: Context,
  id: string,
  n: number,
): Promise<Outcome<{ project: Project; revision: number }>> {
  const record = await projects.findProject(db, id);
  if (!record) return noProject(id);
  if (n < 0 || n > record.revision)
    return failure("notFound", `“${record.project.name}” has revisions 0 to ${record.revision}.`, { path: "n" });
  const turn = takingTurns();
  let project = record.project;
  for (const later of await projects.listRevisions(db, id, n)) {
    const back = applySteps(project, invertSteps(later.steps));
    if (!back.ok) throw new Error(`Revision ${later.n} of ${id} cannot be taken back: ${back.error.reason}`);
    project = back.value;
    await turn();
  }
  return ok({ project, revision: n });
}
