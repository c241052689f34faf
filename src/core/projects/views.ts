import type { z } from "zod";
import { withOne } from "./kept-list";
import type { Project } from "./project";
import type { ViewSchema } from "./schema";

/** What of a project the ledger shows, kept under a name and a digit. It is for the eye alone: nothing of it is heard, or applied. */
export type View = Readonly<z.infer<typeof ViewSchema>>;

export const viewsOf = ({ views = [] }: Pick<Project, "views">): readonly View[] => views;

export const findView = (project: Project, id: string): View | null =>
  viewsOf(project).find((view) => view.id === id) ?? null;

const inOrder = (a: View, b: View): number =>
  (a.digit ?? 10) - (b.digit ?? 10) || a.name.localeCompare(b.name, "en") || (a.id < b.id ? -1 : 1);

/** A project with one of its views set, or taken out where it is null. Law: of the same views in any order it is the same project. */
export function withView(project: Project, id: string, view: View | null): Project {
  const { views: _, ...bare } = project;
  const views = withOne(viewsOf(project), { id, one: view }, inOrder);
  return views.length > 0 ? { ...bare, views } : bare;
}

/** The keys that a view can have. */
export const DIGITS = [1, 2, 3, 4, 5, 6, 7, 8, 9] as const;

/** The first digit that no view has; null where all are taken. */
export const freeDigit = (project: Project): number | null => {
  const taken = viewsOf(project).map(({ digit }) => digit);
  return DIGITS.find((digit) => !taken.includes(digit)) ?? null;
};
