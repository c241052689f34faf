import type { ProjectBody } from "@/contracts/projects";
import type { History } from "@/contracts/records";
import { walkHistory } from "@/core/documents/history";
import type { Project } from "@/core/projects/project";
import { describeChange } from "@/core/recall/where";
import type { Executor } from "../../data/executor";
import { failure } from "../../failure";
import type * as projects from "../../repositories/projects";
import * as revisions from "../../repositories/revisions";
import { wordsFrom } from "../../store/window";

export const wordsOfNone = (id: string): string => `There is no project “${id}” here.`;

export const noProject = (id: string) => failure("notFound", wordsOfNone(id));

/** What the next undo and redo concern, in words that say where. */
async function historyOf(db: Executor, project: Project): Promise<History> {
  const links = await revisions.listLinks(db, project.id);
  const { undo, redo } = walkHistory(links);
  const words = async (n: number | undefined) => {
    if (n === undefined) return null;
    const done = describeChange(labelIn(links, n), project, await revisions.getSteps(db, project.id, n));
    return wordsFrom(links.find((link) => link.n === n)?.window, done);
  };
  return { undo: await words(undo.at(-1)), redo: await words(redo.at(-1)) };
}

export const labelIn = (links: readonly revisions.RevisionLink[], n: number): string =>
  links.find((link) => link.n === n)?.label ?? "";

export const bodyOf = async (
  db: Executor,
  { project, revision, draft, binnedAt }: Pick<projects.ProjectRecord, "project" | "revision" | "draft" | "binnedAt">,
): Promise<ProjectBody> => ({
  project,
  revision,
  // In the bin nothing is taken back.
  history: binnedAt === null ? await historyOf(db, project) : { undo: null, redo: null },
  draft: draft ? { ...draft } : null,
  binnedAt,
});
