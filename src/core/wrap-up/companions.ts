import { usualOf } from "../recall/choices";
import { saveStrips, withoutSet } from "../presets/save";
import { type Project, findStrip } from "../projects/project";
import { offeredParts } from "../strips/strip";
import type { Find } from "./finds";

/**
 * A strip, or a set of them, kept together with others that belong with it, by their ids: a set. The same find where none of them is
 * there. Each strip is kept with the parts that are usually kept of it.
 */
export function withCompanions(project: Project, find: Find, companions: readonly string[]): Find {
  const ids = [...find.strips, ...companions.filter((id) => !find.strips.includes(id))];
  const strips = ids.flatMap((id) => findStrip(project, id) ?? []);
  if (strips.length <= find.strips.length) return find;
  const kept = strips.map((strip) => ({ strip: withoutSet(strip), parts: usualOf(offeredParts(strip)) }));
  const { from: _, ...rest } = find;
  return {
    ...rest,
    level: "set",
    strips: strips.map(({ id }) => id),
    content: saveStrips(project, kept, "set"),
    from: null,
  };
}
