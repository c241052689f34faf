import equal from "fast-deep-equal";
import type { Project } from "../../projects/project";
import { fail, ok } from "../../result";
import type { Refusal } from "./refusal";
import type { AnyStep, Change } from "./step-kind";

/** A list that is kept with a project, of which each step sets one. */
interface KeptList<T> {
  /** "the kept mix". */
  readonly one: string;
  readonly all: Extract<Refusal, { readonly why: "tooMany" }>["what"];
  readonly most: number;
  readonly of: (project: Project) => readonly T[];
  /** The project with one of them set, or taken out where it is null. */
  readonly set: (project: Project, id: string, one: T | null) => Project;
}

interface Sides<T> extends Pick<AnyStep, "from" | "to"> {
  readonly from: T | null;
  readonly to: T | null;
}

/** How one of a list is set: what stands under the id must be `from`, what comes has that id, and there are not too many. */
export const settingOne =
  <T extends { readonly id: string }>({ one, all, most, of, set }: KeptList<T>) =>
  (project: Project, id: string, { from, to }: Sides<T>): Change<Project> => {
    const list = of(project);
    if (!equal(list.find((other) => other.id === id) ?? null, from)) return fail({ why: "changed", what: one });
    if (to && to.id !== id) return fail({ why: "mismatch", key: id, brings: to.id });
    if (!from && to && list.length >= most) return fail({ why: "tooMany", what: all });
    return ok(set(project, id, to));
  };
