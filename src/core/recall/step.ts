import { type Step, kindOf } from "./steps";

/**
 * The steps that take these back, last first. Applying both gives the project that was: `apply(apply(p, s), invert(s)) = p`.
 */
export const invertSteps = (steps: readonly Step[]): readonly Step[] =>
  steps.toReversed().map((step) => kindOf(step).invert(step));
