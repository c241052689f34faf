import { liftContent } from "../presets/migrations";
import type { LibraryStep } from "./step";

const liftStep = (step: LibraryStep): LibraryStep =>
  step.kind === "content"
    ? { ...step, from: step.from && liftContent(step.from), to: step.to && liftContent(step.to) }
    : step;

/** Steps of the library's log as any Diathesis has kept them, as they are today. Throws for what is none. */
export function liftLibrarySteps(stored: unknown): readonly LibraryStep[] {
  if (!Array.isArray(stored)) throw new Error("These are not steps of the library.");
  // Checked when they were written; but for what sounds none has changed its form yet.
  return (stored as readonly LibraryStep[]).map(liftStep);
}
