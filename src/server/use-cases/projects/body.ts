import type { ProjectBody } from "@/contracts/projects";
import type { History } from "@/contracts/records";
import { walkHistory } from "@/core/documents/history";
import { describeChange } from "@/core/recall/where";
import type { Executor } from "../../data/executor";
import { failure } from "../../failure";
import type * as projects from "../../repositories/projects";
import * as revisions from "../../repositories/revisions";
import { wordsFrom } from "../../store/window";

export const wordsOfNone = (id: string): string => `There is no project “${id}” here.`;

export const noProject = (id: string) => failure("notFound", wordsOfNone(id));

/** What the next undo and redo concern, in words that say where. */
async function historyOf(db: Executor, { project, revision }: Numbered): Promise<History> {
  const { undo, redo } = walkHistory(await revisions.listLinks(db, project.id, revision));
  const words = async (n: number | undefined) => {
    if (n === undefined) return null;
    const { label, window, steps } = await revisions.getWhole(db, project.id, n);
    return wordsFrom(window, describeChange(label, project, steps));
  };
  return { undo: await words(undo.at(-1)), redo: await words(redo.at(-1)) };
}

type Numbered = Pick<projects.ProjectRecord, "project" | "revision">;

export const bodyOf = async (
  db: Executor,
  { project, revision, draft, binnedAt }: Numbered & Pick<projects.ProjectRecord, "draft" | "binnedAt">,
): Promise<ProjectBody> => ({
  project,
  revision,
  // In the bin nothing is taken back.
  history: binnedAt === null ? await historyOf(db, { project, revision }) : { undo: null, redo: null },
  draft: draft ? { ...draft } : null,
  binnedAt,
});
