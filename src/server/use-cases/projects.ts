import type { ChangeRequest, NewDraft, NewProject, ProjectBody } from "@/contracts/endpoints";
import type { History, ProjectRow, RevisionRow } from "@/contracts/records";
import { processorsOf } from "@/core/chains/chain";
import { type Content, chainOf, withFrom } from "@/core/presets/preset";
import { type Project, completeProject, findProjectProblem } from "@/core/projects/project";
import { PROJECT_SCHEMA } from "@/core/projects/schema";
import { applySteps } from "@/core/recall/apply";
import { completeStep } from "@/core/recall/complete-step";
import { type Step, invertSteps } from "@/core/recall/step";
import { ok } from "@/core/result";
import { type SavedStrip, type Strip, createStrip } from "@/core/strips/strip";
import type { Context } from "../data/context";
import { type Executor, inTransaction } from "../data/transaction";
import { type Failure, type Outcome, RolledBack, catchRolledBack, failure } from "../failure";
import { findPreset, findVersion, touchPresets } from "../repositories/presets";
import * as projects from "../repositories/projects";

const noProject = (id: string) => failure("notFound", `There is no project “${id}” here.`);

export const listProjects = ({ db }: Context): Promise<readonly ProjectRow[]> => projects.listProjects(db);

/** What the next undo and redo concern: numbers of revisions, found by walking the log. */
export function walkHistory(links: readonly projects.RevisionLink[]): {
  readonly undo: number[];
  readonly redo: number[];
} {
  const undo: number[] = [];
  const redo: number[] = [];
  for (const { n, undoes, redoes } of links) {
    if (undoes !== null) redo.push(undo.pop() ?? undoes);
    else if (redoes !== null) undo.push(redo.pop() ?? redoes);
    else {
      undo.push(n);
      redo.length = 0;
    }
  }
  return { undo, redo };
}

async function historyOf(db: Executor, id: string): Promise<History> {
  const links = await projects.listLinks(db, id);
  const { undo, redo } = walkHistory(links);
  const label = (n: number | undefined) => links.find((l) => l.n === n)?.label ?? null;
  return { undo: label(undo.at(-1)), redo: label(redo.at(-1)) };
}

export async function getProject({ db }: Context, id: string): Promise<Outcome<ProjectBody>> {
  const record = await projects.findProject(db, id);
  return record ? ok(await bodyOf(db, record)) : noProject(id);
}

const bodyOf = async (
  db: Executor,
  { project, revision, draft }: Omit<projects.ProjectRecord, "document">,
): Promise<ProjectBody> => ({
  project,
  revision,
  history: await historyOf(db, project.id),
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

/** Steps that say one value each: they may be taken on a newer revision, where every `from` still holds. */
const REBASED: readonly Step["kind"][] = ["setValue", "setEnabled", "setLabel", "setLevel", "setPan"];

const staleProject = (record: projects.ProjectRecord, base: number): Failure =>
  failure(
    "stale",
    `“${record.project.name}” is at revision ${record.revision} by now; this was made for revision ${base}.`,
    {
      path: "baseRevision",
      detail: { revision: record.revision },
    },
  ).error;

function applyChecked(record: projects.ProjectRecord, steps: readonly Step[]): Project {
  const applied = applySteps(record.project, steps);
  if (!applied.ok) {
    const at = steps.indexOf(applied.error.step);
    throw new RolledBack(
      failure("refused", applied.error.reason, { path: `steps[${at}]`, detail: { step: applied.error.step.id } }).error,
    );
  }
  const problem = findProjectProblem(applied.value);
  if (problem) throw new RolledBack(failure("refused", problem.message, { path: problem.path }).error);
  return applied.value;
}

/** The presets that a change brings in: they were used now. */
function presetsIn(steps: readonly Step[]): readonly string[] {
  const froms = steps.flatMap((step) => {
    switch (step.kind) {
      case "setInserts":
        return [step.to.from, ...processorsOf(step.to).map((p) => p.from)];
      case "placeNode":
        return [step.to?.node.type === "processor" ? step.to.node.from : undefined];
      case "setNode":
        return [step.to.type === "processor" ? step.to.from : undefined];
      case "placeStrip":
        return [step.to?.strip.inserts.from];
      default:
        return [];
    }
  });
  return [...new Set(froms.filter((f) => f !== undefined).map((f) => f.preset))];
}

/** Applies steps as one revision, all or none. */
export function changeProject(context: Context, id: string, request: ChangeRequest): Promise<Outcome<ProjectBody>> {
  const steps = request.steps.map(completeStep);
  return commit(context, id, (record) => {
    const rebased = steps.every((s) => REBASED.includes(s.kind)) && request.baseRevision < record.revision;
    if (request.baseRevision !== record.revision && !rebased)
      throw new RolledBack(staleProject(record, request.baseRevision));
    return Promise.resolve({ label: request.label, steps });
  });
}

type Gesture = Pick<projects.NewRevision, "label" | "steps" | "undoes" | "redoes">;

async function commit(
  context: Context,
  id: string,
  gesture: (record: projects.ProjectRecord, tx: Executor) => Promise<Gesture>,
): Promise<Outcome<ProjectBody>> {
  return catchRolledBack(async () =>
    ok(
      await inTransaction(context, async (tx, note) => {
        const record = await projects.findProject(tx, id);
        if (!record) throw new RolledBack(noProject(id).error);
        const made = await gesture(record, tx);
        const project = applyChecked(record, made.steps);
        const at = context.now().toISOString();
        const revision = await projects.appendRevision(tx, record, project, { ...made, at });
        const used = record.draft || made.undoes !== undefined ? [] : presetsIn(made.steps);
        if (used.length > 0) await touchPresets(tx, used, at);
        for (const preset of used) note({ kind: "preset", id: preset });
        note({ kind: "project", id });
        return bodyOf(tx, { project, revision, draft: record.draft });
      }),
    ),
  );
}

/** Appends the inverse of the last change that stands. */
export function undo(context: Context, id: string, baseRevision: number): Promise<Outcome<ProjectBody>> {
  return commit(context, id, async (record, tx) => {
    if (baseRevision !== record.revision) throw new RolledBack(staleProject(record, baseRevision));
    const links = await projects.listLinks(tx, id);
    const n = walkHistory(links).undo.at(-1);
    if (n === undefined) throw new RolledBack(failure("refused", "There is nothing to undo.").error);
    const label = links.find((l) => l.n === n)?.label ?? "";
    return { label: `Undo: ${label}`, steps: invertSteps(await projects.getSteps(tx, id, n)), undoes: n };
  });
}

/** Appends again what the last undo took back. */
export function redo(context: Context, id: string, baseRevision: number): Promise<Outcome<ProjectBody>> {
  return commit(context, id, async (record, tx) => {
    if (baseRevision !== record.revision) throw new RolledBack(staleProject(record, baseRevision));
    const links = await projects.listLinks(tx, id);
    const n = walkHistory(links).redo.at(-1);
    if (n === undefined) throw new RolledBack(failure("refused", "There is nothing to redo.").error);
    const label = links.find((l) => l.n === n)?.label ?? "";
    return { label: `Redo: ${label}`, steps: await projects.getSteps(tx, id, n), redoes: n };
  });
}

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
  let project = record.project;
  for (const later of await projects.listRevisions(db, id, n)) {
    const back = applySteps(project, invertSteps(later.steps));
    if (!back.ok) throw new Error(`Revision ${later.n} of ${id} cannot be taken back: ${back.error.reason}`);
    project = back.value;
  }
  return ok({ project, revision: n });
}

const DRAFT_TEMPO = 120;

function savedStripOf(content: Content): SavedStrip {
  return content.kind === "strip" ? content.strip : { kind: "audio", inserts: chainOf(content) };
}

/** The one strip of a draft: what the preset holds, on a strip with nothing else set. */
function draftStrip(content: Content | null, name: string): Strip {
  const { kind, ...parts } = content ? savedStripOf(content) : { kind: "audio" as const };
  const blank = createStrip("strip", kind, { name }, null);
  const given = Object.fromEntries(Object.entries(parts).filter(([, part]) => part !== undefined)) as Partial<Strip>;
  return { ...blank, ...given, kind, look: given.look ?? { name } };
}

/** What a draft begins with: a version of a preset, or nothing yet. */
interface DraftSource {
  readonly preset: string | null;
  readonly version: number | null;
  readonly name: string;
  readonly content: Content | null;
}

const NOTHING_YET: DraftSource = { preset: null, version: null, name: "New sound", content: null };

async function findDraftSource(
  { db }: Context,
  { preset: id, version: wanted }: NewDraft,
): Promise<Outcome<DraftSource>> {
  if (id === null) return ok(NOTHING_YET);
  const preset = await findPreset(db, id);
  if (!preset) return failure("notFound", `There is no preset “${id}” here.`, { path: "preset" });
  const version = wanted ?? preset.version;
  const { name } = preset.card;
  const saved = await findVersion(db, id, version);
  if (!saved) return failure("notFound", `“${name}” has no version ${version}.`, { path: "version" });
  return ok({ preset: id, version, name, content: withFrom(saved.content, { preset: id, version, name }) });
}

/**
 * Opens a preset on the bench, or nothing yet. A draft that was left is taken up again: nothing that was turned is lost.
 */
export async function openDraft(context: Context, request: NewDraft): Promise<Outcome<ProjectBody>> {
  const source = await findDraftSource(context, request);
  if (!source.ok) return source;
  const { preset, version, name, content } = source.value;
  const standing = await findStanding(context, preset, version);
  if (standing) return ok(await bodyOf(context.db, standing));
  const project: Project = {
    schema: PROJECT_SCHEMA,
    id: context.mint(),
    name,
    artist: "",
    client: "",
    song: "",
    tempo: request.tempo ?? DRAFT_TEMPO,
    meter: { beats: 4, unit: 4 },
    key: "",
    sampleRate: 48_000,
    strips: [draftStrip(content, name)],
  };
  await inTransaction(context, async (tx, note) => {
    await projects.insertProject(tx, { project, at: context.now().toISOString(), draft: { preset, version } });
    note({ kind: "project", id: project.id });
  });
  return getProject(context, project.id);
}

/** A draft that was left and not saved since: what was saved from it has a name and version of its own by now. */
async function findStanding(
  { db }: Context,
  preset: string | null,
  version: number | null,
): Promise<projects.ProjectRecord | null> {
  const id = await projects.findDraft(db, preset, version);
  const record = id === null ? null : await projects.findProject(db, id);
  const inserts = record?.project.strips[0]?.inserts;
  if (!record || !inserts) return null;
  const froms = [inserts.from, ...processorsOf(inserts).map((p) => p.from)].filter((f) => f !== undefined);
  const saved =
    preset === null ? inserts.from !== undefined : froms.some((f) => f.preset === preset && f.version !== version);
  return saved ? null : record;
}

export async function dropDraft(context: Context, id: string): Promise<Outcome<null>> {
  const dropped = await inTransaction(context, async (tx, note) => {
    const gone = await projects.deleteDraft(tx, id);
    if (gone) note({ kind: "project", id });
    return gone;
  });
  return dropped ? ok(null) : failure("notFound", `There is no draft “${id}” here.`);
}
