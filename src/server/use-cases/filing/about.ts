import { type LibraryStep, subjectsOf } from "@/core/library/step";
import type { Executor } from "../../data/executor";
import { namesById } from "../../repositories/preset-lists";
import { projectNames } from "../../repositories/projects";
import type { About } from "../../repositories/library-log";

/** Names that are kept of one change; a change of thousands is found by its first. */
const MOST_NAMES = 40;

/** What some steps concern, as it is called now. */
export async function aboutOf(tx: Executor, steps: readonly LibraryStep[]): Promise<About> {
  const subjects = subjectsOf(steps);
  const some = subjects.slice(0, MOST_NAMES);
  const ids = some.map(({ id }) => id);
  const names = new Map([...(await projectNames(tx, ids)), ...(await namesById(tx, ids))]);
  return {
    count: subjects.length,
    some: some.map((s) => ("name" in s ? s : { ...s, name: names.get(s.id) ?? "" })),
  };
}
