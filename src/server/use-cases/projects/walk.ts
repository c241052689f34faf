import type { ProjectBody, Together } from "@/contracts/projects";
import { walkHistory } from "@/core/documents/history";
import type { Project } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import { invertSteps } from "@/core/recall/step";
import { cellOf } from "@/core/recall/steps";
import type { Executor } from "../../data/executor";
import { type Outcome, refuse } from "../../failure";
import type * as projects from "../../repositories/projects";
import * as revisions from "../../repositories/revisions";
import type { Context } from "../../store/context";
import { takingTurns } from "../../turns";
import { type Gesture, commitTogether } from "./commit";
import { commitOn } from "./commit-on";

interface Walk {
  readonly way: "undo" | "redo";
  readonly only?: number | undefined;
}

/** What takes back, or does again, one change of the history. */
export async function walked(record: projects.ProjectRecord, tx: Executor, { way, only }: Walk): Promise<Gesture> {
  const { id } = record.project;
  const pile = walkHistory(await revisions.listLinks(tx, id, record.revision))[way];
  const n = only ?? pile.at(-1) ?? refuse("refused", `There is nothing to ${way}.`);
  if (!pile.includes(n)) refuse("refused", "That has been taken back already.");
  const own = await revisions.getWhole(tx, id, n);
  const { label, steps } = own;
  if (n !== pile.at(-1)) await checkAlone(tx, record.project, { own, later: pile.slice(pile.indexOf(n) + 1) });
  return way === "undo"
    ? { label: `Undo: ${label}`, steps: invertSteps(steps), undoes: n }
    : { label: `Redo: ${label}`, steps, redoes: n };
}

/** Appends what takes back, or does again, one change of the history. */
const walk = (
  context: Context,
  id: string,
  { base, ...way }: Walk & { readonly base: number },
): Promise<Outcome<ProjectBody>> => commitOn(context, id, { base }, (record, tx) => walked(record, tx, way));

interface Alone {
  readonly own: revisions.WholeRevision;
  /** What stands of the changes since, oldest first. */
  readonly later: readonly number[];
}

/** Refuses to take back a change that later ones stand on: those must still be able to be taken back after it, one by one. */
async function checkAlone(tx: Executor, project: Project, { own, later }: Alone): Promise<void> {
  const cells = new Set(own.steps.map((step) => JSON.stringify(cellOf(step))));
  const turn = takingTurns();
  let [now, since] = [applySteps(project, invertSteps(own.steps)), ""];
  for (const [at, n] of later.toReversed().entries()) {
    await turn();
    const { label, steps } = await revisions.getWhole(tx, project.id, n);
    if (at === 0 || steps.some((step) => cells.has(JSON.stringify(cellOf(step))))) since = label;
    if (now.ok) now = applySteps(now.value, invertSteps(steps));
  }
  if (now.ok) return;
  refuse("refused", `“${own.label}” cannot be taken back by itself: “${since}” was done on it since. Undo that first.`);
}

/** Appends the inverse of the last change that stands, or of the one that is asked for, where nothing later stands on it. */
export const undo = (context: Context, id: string, base: number, only?: number): Promise<Outcome<ProjectBody>> =>
  walk(context, id, { base, way: "undo", only });

/** Appends again what the last undo took back. */
export const redo = (context: Context, id: string, base: number): Promise<Outcome<ProjectBody>> =>
  walk(context, id, { base, way: "redo" });

/** Takes revisions of several projects back, each by itself where something else was done since; where one cannot be, none is. */
export const undoTogether = (context: Context, { revisions }: Together): Promise<Outcome<Together>> =>
  commitTogether(
    context,
    revisions.map(({ project, revision }) => ({
      project,
      made: (record, tx) => walked(record, tx, { way: "undo", only: revision }),
    })),
  );
