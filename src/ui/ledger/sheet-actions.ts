import { counted } from "@/core/names/count";
import { type Project, getStrip } from "@/core/projects/project";
import { stripName } from "@/core/strips/strip";
import type { Action } from "../actions/actions";
import { printSheet } from "../keeping/print-sheet";

/** Prints the recall sheet of strips of a project. */
export function printStrips(project: Project, strips: readonly string[]): void {
  const [only, ...others] = strips;
  if (only === undefined) return;
  const called = others.length === 0 ? stripName(getStrip(project, only)) : counted(strips.length, "strip");
  printSheet({ project: project.id, strips }, called);
}

/** Recall sheets of a project, and of the strips of it that are chosen. */
export const sheetActions = (project: Project, chosen: readonly string[]): readonly Action[] => [
  {
    id: "sheet-project",
    title: "Recall sheet of the project, as PDF",
    group: "Project",
    run: () => printSheet({ project: project.id }, project.name),
  },
  {
    id: "sheet-strips",
    title: `Recall sheet of ${counted(Math.max(1, chosen.length), "strip")}, as PDF`,
    group: "Project",
    enabled: chosen.length > 0,
    run: () => printStrips(project, chosen),
  },
];
