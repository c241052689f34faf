import type { Project } from "../projects/project";
import { stripsById } from "../projects/project";
import { type Step, cellOf, kindOf } from "../recall/steps";
import type { PartName } from "../strips/parts";
import { stripName } from "../strips/strip";

/** What a change of a project concerned, as it was called then. */
export interface About {
  readonly strips: readonly { readonly id: string; readonly name: string }[];
  readonly parts: readonly PartName[];
  /** The names of presets that it brought in. */
  readonly presets: readonly string[];
}

/** Strips and presets that are kept of one change; one of hundreds is found by its first, and by its words. */
const MOST_NAMED = 40;

/** What steps concern. `before` and `after`: the project on either side of them; a strip goes by the name that it has after them. */
export function aboutOf(steps: readonly Step[], { before, after }: Record<"before" | "after", Project>): About {
  const [lefts, rights] = [stripsById(before), stripsById(after)];
  const strips = new Map<string, string>();
  const parts = new Set<PartName>();
  const presets = new Set<string>();
  for (const step of steps) {
    const { strip: id, part } = cellOf(step);
    if (part !== null) parts.add(part);
    const strip = id === null ? undefined : (rights.get(id) ?? lefts.get(id));
    if (strip && strips.size < MOST_NAMED) strips.set(strip.id, stripName(strip));
    if (presets.size < MOST_NAMED) for (const { name } of kindOf(step).brings(step)) presets.add(name);
  }
  return {
    strips: [...strips].map(([id, name]) => ({ id, name })),
    parts: [...parts],
    presets: [...presets],
  };
}
