import type { Note, NoteQuery, ProjectHistoryPage, ProjectHistoryQuery, ReturnRequest } from "@/contracts/history";
import type { ProjectBody } from "@/contracts/projects";
import type { RevisionRow } from "@/contracts/records";
import { standings } from "@/core/documents/history";
import { type About, aboutOf } from "@/core/history/about";
import { compareProjects } from "@/core/history/beside";
import { stepsBetween } from "@/core/history/between";
import { type Narrowed, isWithin, readNarrowing } from "@/core/history/narrow";
import { noteOf } from "@/core/history/note";
import type { Project } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import { sentenceOf } from "@/core/recall/sentences";
import { invertSteps } from "@/core/recall/step";
import type { Step } from "@/core/recall/steps";
import { ok } from "@/core/result";
import type { Executor } from "../../data/executor";
import { type Outcome, failure, refuse } from "../../failure";
import * as moments from "../../repositories/moments";
import * as projects from "../../repositories/projects";
import * as revisions from "../../repositories/revisions";
import type { Context } from "../../store/context";
import { takingTurns } from "../../turns";
import { noProject } from "./body";
import { commitOn } from "./commit-on";

export async function listRevisions({ db }: Context, id: string): Promise<Outcome<readonly RevisionRow[]>> {
  return (await projects.findProject(db, id)) ? ok(await revisions.listRevisions(db, id)) : noProject(id);
}

interface Walk {
  readonly from: Project;
  /** In the order in which they are taken. */
  readonly steps: readonly { readonly n: number; readonly steps: readonly Step[] }[];
}

/** Takes the steps of one revision after the other. What the log of a project says can always be taken: else it is broken. */
async function walkAll({ from, steps: all }: Walk): Promise<Project> {
  const turn = takingTurns();
  let project = from;
  for (const { n, steps } of all) {
    const next = applySteps(project, steps);
    if (!next.ok) throw new Error(`Revision ${n} of ${from.id} cannot be walked: ${next.error.reason}`);
    project = next.value;
    await turn();
  }
  return project;
}

/** A project as it was after revision n: from the nearest moment that is kept whole, or from how it is now, forwards or backwards. */
export async function momentAt(
  db: Executor,
  { project, revision }: projects.ProjectRecord,
  n: number,
): Promise<Project> {
  const { upTo, behind } = await moments.numbersAround(db, project.id, n);
  const end = behind ?? revision;
  if (upTo !== null && n - upTo <= end - n) {
    const from = await moments.getMoment(db, project.id, upTo);
    return walkAll({ from, steps: await revisions.stepsBehind(db, project.id, { after: upTo, to: n }) });
  }
  const from = behind === null ? project : await moments.getMoment(db, project.id, behind);
  const later = await revisions.stepsBehind(db, project.id, { after: n, to: end });
  return walkAll({
    from,
    steps: later.toReversed().map((one) => ({ n: one.n, steps: invertSteps(one.steps) })),
  });
}

/** The project as it was after revision n; 0 is its beginning. */
export async function getRevision(
  { db }: Context,
  id: string,
  n: number,
): Promise<Outcome<{ project: Project; revision: number }>> {
  const record = await projects.findProject(db, id);
  if (!record) return noProject(id);
  if (n < 0 || n > record.revision)
    return failure("notFound", `“${record.project.name}” has revisions 0 to ${record.revision}.`, { path: "n" });
  return ok({ project: await momentAt(db, record, n), revision: n });
}

/** Strips that are told of one change. */
const MOST_TOLD = 3;

/** Steps that are told of one change, in sentences. */
const MOST_SENTENCES = 2;

/** Changes that are looked through at once: at first few, since what is looked for is mostly near; then ever more. */
const CHUNK = { first: 200, last: 3200 };

type Found = revisions.ToldRevision & { readonly about: About };

interface Sought extends Pick<ProjectHistoryQuery, "strip" | "before"> {
  readonly narrowed: Narrowed;
  /** How many are enough. */
  readonly most: number;
}

/** Looks through the log, the newest first, until enough is found. */
async function findChanges(db: Executor, project: Project, sought: Sought): Promise<readonly Found[]> {
  const turn = takingTurns();
  const tell = revisions.tellingBack(db, project.id, sought.before ?? null);
  const found: Found[] = [];
  let chunk = CHUNK.first;
  for (let isMore = true; isMore && found.length < sought.most; chunk = Math.min(CHUNK.last, 2 * chunk)) {
    await turn();
    const entries = await tell(chunk);
    for (const entry of entries) {
      const about = entry.about ?? (await aboutLater(db, project, entry.n));
      if (isSought(sought, { ...entry, about })) found.push({ ...entry, about });
    }
    isMore = entries.length === chunk;
  }
  return found;
}

const isSought = ({ strip, narrowed }: Sought, { at, label, about }: Found): boolean =>
  (strip === undefined || about.strips.some(({ id }) => id === strip)) &&
  isWithin(narrowed, { at: new Date(at), label, about });

/** What was done to a project, the newest first, and how each change stands today. */
export async function listHistory(
  { db, now }: Context,
  id: string,
  { q = "", limit = 60, ...asked }: ProjectHistoryQuery,
): Promise<Outcome<ProjectHistoryPage>> {
  const record = await projects.findProject(db, id);
  if (!record) return noProject(id);
  const standing = standings(await revisions.listLinks(db, id, record.revision));
  const narrowed = readNarrowing(q, now());
  const found = await findChanges(db, record.project, { ...asked, narrowed, most: limit + 1 });
  const shown = found.slice(0, limit);
  const all = await revisions.wholeByNumber(
    db,
    id,
    shown.map(({ n }) => n),
  );
  const items = shown.map(({ about, ...entry }) => {
    const { undoes, redoes, window, steps } = all.get(entry.n)!;
    return {
      ...entry,
      window,
      sentences: steps.slice(0, MOST_SENTENCES).map((step) => sentenceOf(step, record.project)),
      steps: steps.length,
      of: undoes ?? redoes,
      count: about.strips.length,
      strips: about.strips.slice(0, MOST_TOLD).map((one) => ({ ...one })),
      parts: [...about.parts],
      standing: undoes === null && redoes === null ? (standing.get(entry.n) ?? null) : null,
    };
  });
  return ok({ items, more: found.length > limit, revision: record.revision });
}

/** Of a change from before that was kept: the names are those of today. */
const aboutLater = async (db: Executor, project: Project, n: number) =>
  aboutOf((await revisions.getWhole(db, project.id, n)).steps, { before: project, after: project });

/** What was done between two moments, in sentences. */
export async function noteBetween({ db }: Context, id: string, { from, to }: NoteQuery): Promise<Outcome<Note>> {
  const record = await projects.findProject(db, id);
  if (!record) return noProject(id);
  const [after, upTo] = [Math.min(from, to), Math.max(from, to)];
  if (upTo > record.revision)
    return failure("notFound", `“${record.project.name}” has revisions 0 to ${record.revision}.`, {
      path: from > to ? "from" : "to",
    });
  const beside = compareProjects(await momentAt(db, record, after), await momentAt(db, record, upTo));
  const abouts = await revisions.aboutsBehind(db, id, { after, to: upTo });
  return ok({ text: noteOf({ beside, presets: [...new Set(abouts.flatMap(({ presets }) => presets))] }) });
}

/** Makes a project what it was after a revision, as one more change of it: what was done since stays in the history. */
export const returnTo = (
  context: Context,
  id: string,
  { baseRevision, revision }: ReturnRequest,
): Promise<Outcome<ProjectBody>> =>
  commitOn(context, id, { base: baseRevision }, async (record, tx) => {
    if (revision > record.revision)
      refuse("notFound", `“${record.project.name}” has revisions 0 to ${record.revision}.`, { path: "revision" });
    const then = await momentAt(tx, record, revision);
    const steps = stepsBetween({ now: record.project, then }, context.mint);
    if (steps.length === 0) refuse("refused", "It is as it was then: there is nothing to return to.");
    return { label: await returnWords(tx, id, revision), steps };
  });

async function returnWords(db: Executor, id: string, n: number): Promise<string> {
  if (n === 0) return "Return to its beginning";
  const { label } = await revisions.getWhole(db, id, n);
  return `Return to after “${label}”`.slice(0, 300);
}
