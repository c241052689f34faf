import { type Project, findStrip } from "../projects/project";
import { type Step, cellOf } from "./steps";

/** Names that are said; of more than these only how many. */
const MOST_NAMES = 2;

/** The names of the strips that steps concern, each once. `project` is the one before or after them. */
function namesOf(project: Project, steps: readonly Step[]): readonly string[] {
  const names = new Map<string, string>();
  for (const step of steps) {
    const { strip } = cellOf(step);
    const placed = step.kind === "placeStrip" ? (step.to ?? step.from)?.strip : null;
    const name = placed?.look.name ?? (strip === null ? null : findStrip(project, strip)?.look.name);
    if (strip !== null && name) names.set(strip, name);
  }
  return [...names.values()];
}

/** A change in words, with the strips that it concerns where the words do not name them: "Level: −3.0 dB (Cello)". */
export function describeChange(label: string, project: Project, steps: readonly Step[]): string {
  const names = namesOf(project, steps).filter((name) => !label.includes(name));
  if (names.length === 0 || / to \d+ strips$/.test(label)) return label;
  const more = names.length - MOST_NAMES;
  const said = names.slice(0, MOST_NAMES).join(more > 0 ? ", " : " and ");
  return `${label} (${said}${more > 0 ? ` and ${more} more` : ""})`;
}
