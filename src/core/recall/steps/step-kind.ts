import type { PresetRef } from "../../chains/chain";
import type { Project } from "../../projects/project";
import { findStrip, nameIn } from "../../projects/project";
import { type Result, fail, ok } from "../../result";
import type { PartName } from "../../strips/parts";
import type { Surroundings } from "../../strips/parts/part";
import type { Strip } from "../../strips/strip";
import type { Refusal } from "./refusal";

/** What of a project a step changes: a part of a strip, a strip as a whole (no part), or the project itself (no strip). */
export interface Cell {
  readonly strip: string | null;
  readonly part: PartName | null;
}

export type Change<T> = Result<T, Refusal>;

/** What every step has: both sides, what stands there and what will. */
export interface AnyStep {
  readonly id: string;
  readonly kind: string;
  readonly from: unknown;
  readonly to: unknown;
}

/** All that there is to know of one kind of step. */
export interface StepKind<S extends AnyStep> {
  readonly cell: (step: S) => Cell;
  /** `from` must be what stands there. What is not touched stays the same object. */
  readonly apply: (project: Project, step: S) => Change<Project>;
  /** What happens, behind the name of the strip. `project`: as it is before. */
  readonly words: (step: S, project: Project) => string;
  /** The step that takes this one back. */
  readonly invert: (step: S) => S;
  /** With a value for everything that it puts in, so that differences and undo see all of it. */
  readonly complete: (step: S) => S;
  /** Presets that what it puts in was loaded from. */
  readonly brings: (step: S) => readonly PresetRef[];
  /** Whether it says one value, which may be set on a newer revision too, where `from` still holds. */
  readonly isOneValue: (step: S) => boolean;
}

type Optional = "invert" | "complete" | "brings" | "isOneValue";

export const stepKind = <S extends AnyStep>(
  given: Omit<StepKind<S>, Optional> & Partial<Pick<StepKind<S>, Optional>>,
): StepKind<S> => ({
  invert: (step) => ({ ...step, from: step.to, to: step.from }),
  complete: (step) => step,
  brings: () => [],
  isOneValue: () => false,
  ...given,
});

/** Changes one strip of a project. */
export function changeStrip(project: Project, id: string, change: (strip: Strip) => Change<Strip>): Change<Project> {
  const strip = findStrip(project, id);
  if (!strip) return fail({ why: "missing", what: "strip", key: id });
  const changed = change(strip);
  return changed.ok
    ? ok({ ...project, strips: project.strips.map((s) => (s === strip ? changed.value : s)) })
    : changed;
}

/** What a part of a strip is told beside. */
export const surroundingsOf = (project: Project, { kind }: Strip): Surroundings => ({ kind, nameOf: nameIn(project) });
