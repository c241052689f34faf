import type { z } from "zod";
import type { StepSchema } from "./step-schema";

export type Step = Readonly<z.infer<typeof StepSchema>>;
export type StepOf<K extends Step["kind"]> = Extract<Step, { kind: K }>;
export type Cell = Step["cell"];

/**
 * The steps that take these back, last first. Applying both gives the project that was: `apply(apply(p, s), invert(s)) = p`.
 * A step that needs another is needed by it once the two are turned round; as all of them are applied together, needs
 * are dropped.
 */
export const invertSteps = (steps: readonly Step[]): readonly Step[] =>
  steps.toReversed().map((step) => ({ ...step, needs: [], from: step.to, to: step.from }) as Step);

/** Steps for one gesture after another as if made at once: the first `from` and the last `to` of the same value. */
export function foldSteps(steps: readonly Step[]): readonly Step[] {
  const folded: Step[] = [];
  for (const step of steps) {
    const at = folded.findIndex((f) => sameTarget(f, step));
    const earlier = folded[at];
    if (earlier) folded[at] = { ...step, from: earlier.from } as Step;
    else folded.push(step);
  }
  return folded;
}

const sameTarget = (a: Step, b: Step): boolean =>
  a.kind === "setValue" &&
  b.kind === "setValue" &&
  a.cell.strip === b.cell.strip &&
  a.node === b.node &&
  a.param === b.param;
