import type { z } from "zod";
import type { StepSchema } from "./step-schema";

export type Step = Readonly<z.infer<typeof StepSchema>>;
export type StepOf<K extends Step["kind"]> = Extract<Step, { kind: K }>;

/**
 * The steps that take these back, last first. Applying both gives the project that was: `apply(apply(p, s), invert(s)) = p`.
 * A step that needs another is needed by it once the two are turned round; as all of them are applied together, needs
 * are dropped.
 */
export const invertSteps = (steps: readonly Step[]): readonly Step[] =>
  steps.toReversed().map((step) => ({ ...step, needs: [], from: step.to, to: step.from }) as Step);
