import { type Project, findStrip } from "../projects/project";
import { type Step, kindOf } from "./steps";

/** A step as one sentence: "Cello: replace 2 plugins by 4 of Wood and rosin." `project` is the one it is applied to. */
export function sentenceOf(step: Step, project: Project): string {
  const { cell, words } = kindOf(step);
  const placed = step.kind === "placeStrip" ? (step.to ?? step.from)?.strip.look.name : undefined;
  const { strip } = cell(step);
  const who = placed ?? (strip === null ? null : findStrip(project, strip))?.look.name ?? project.name;
  return `${who}: ${words(step, project)}.`;
}
