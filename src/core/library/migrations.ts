import { liftContent } from "../presets/migrations";
import type { LibraryStep, SideVersion } from "./step";

const liftSide = (side: readonly SideVersion[]): readonly SideVersion[] =>
  side.map((one) => (one.was === null ? { ...one, content: liftContent(one.content) } : one));

function liftStep(step: LibraryStep): LibraryStep {
  if (step.kind === "versions") return { ...step, from: liftSide(step.from), to: liftSide(step.to) };
  if (step.kind !== "content") return step;
  return { ...step, from: step.from && liftContent(step.from), to: step.to && liftContent(step.to) };
}

/** Steps of the library's log as any Diathesis has kept them, as they are today. Throws for what is none. */
export function liftLibrarySteps(stored: unknown): readonly LibraryStep[] {
  if (!Array.isArray(stored)) throw new Error("These are not steps of the library.");
  // Checked when they were written; but for what sounds none has changed its form yet.
  return (stored as readonly LibraryStep[]).map(liftStep);
}
