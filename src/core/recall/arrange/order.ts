import { parentOf } from "../../projects/nesting";
import type { Project } from "../../projects/project";
import type { Strip } from "../../strips/strip";
import type { Step } from "../steps";

/** Strips in the order in which a project has them, while steps put them in, move them and take them out. */
export interface Order {
  /** The steps so far. */
  readonly steps: Step[];
  readonly strips: Strip[];
  readonly place: (strip: Strip, after: string | null) => void;
  readonly remove: (id: string) => void;
}

/** `strips`: as they stand. A strip that is placed where it stands makes no step. */
export function startOrder(strips: readonly Strip[], mint: () => string): Order {
  const standing = [...strips];
  const steps: Step[] = [];
  const placeOf = (id: string) => {
    const at = standing.findIndex((strip) => strip.id === id);
    return at < 0 ? null : { strip: standing[at]!, after: standing[at - 1]?.id ?? null };
  };
  const change = (id: string, to: { readonly strip: Strip; readonly after: string | null } | null) => {
    const from = placeOf(id);
    if (from?.after === to?.after && from?.strip === to?.strip) return;
    steps.push({ id: mint(), kind: "placeStrip", strip: id, from, to });
    if (from) standing.splice(standing.indexOf(from.strip), 1);
    if (to) standing.splice(standing.findIndex((strip) => strip.id === to.after) + 1, 0, to.strip);
  };
  return {
    steps,
    strips: standing,
    place: (strip, after) => change(strip.id, { strip, after }),
    remove: (id) => change(id, null),
  };
}

/** Those of some strips that stand in no group and in no folder that is among them. */
export function topmost(project: Project, ids: readonly string[]): readonly Strip[] {
  const some = new Set(ids);
  const isWithin = (strip: Strip): boolean => {
    for (let above = parentOf(project, strip); above; above = parentOf(project, above))
      if (some.has(above.id)) return true;
    return false;
  };
  return project.strips.filter((strip) => some.has(strip.id) && !isWithin(strip));
}
