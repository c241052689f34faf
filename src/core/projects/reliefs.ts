import type { z } from "zod";
import { withOne } from "./kept-list";
import type { Project } from "./project";
import type { ReliefSchema } from "./schema";

/** Plugins that were switched off or taken out together, with what it takes to put each back at its place. */
export type Relief = Readonly<z.infer<typeof ReliefSchema>>;
export type RelievedPlugin = Relief["plugins"][number];

export const reliefsOf = ({ reliefs = [] }: Pick<Project, "reliefs">): readonly Relief[] => reliefs;

export const findRelief = (project: Project, id: string): Relief | null =>
  reliefsOf(project).find((relief) => relief.id === id) ?? null;

const inOrder = (a: Relief, b: Relief): number => (a.at === b.at ? (a.id < b.id ? -1 : 1) : a.at < b.at ? -1 : 1);

/** A project with one of its reliefs set, or taken out where it is null. Law: of the same reliefs in any order it is the same project. */
export function withRelief(project: Project, id: string, relief: Relief | null): Project {
  const { reliefs: _, ...bare } = project;
  const reliefs = withOne(reliefsOf(project), { id, one: relief }, inOrder);
  return reliefs.length > 0 ? { ...bare, reliefs } : bare;
}
