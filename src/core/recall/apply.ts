import { type Project, findStrip } from "../projects/project";
import { type Result, fail, ok } from "../result";
import { type Step, kindOf } from "./steps";
import { type Refusal, refusalWords } from "./steps/refusal";

/** Why a step cannot be taken: nothing of its list was. */
export interface StepRefused {
  readonly step: Step;
  readonly refusal: Refusal;
  /** In a sentence. */
  readonly reason: string;
}

/**
 * Applies steps in order, all or none. Every `from` must be what stands there, so that the inverse puts back what was.
 * What no step touches stays the same object.
 */
export function applySteps(project: Project, steps: readonly Step[]): Result<Project, StepRefused> {
  let now = project;
  for (const step of steps) {
    const { apply, cell } = kindOf(step);
    const changed = apply(now, step);
    if (!changed.ok) {
      const { strip } = cell(step);
      const name = (strip === null ? null : findStrip(now, strip)?.look.name) ?? null;
      return fail({ step, refusal: changed.error, reason: refusalWords(changed.error, name) });
    }
    now = changed.value;
  }
  return ok(now);
}
