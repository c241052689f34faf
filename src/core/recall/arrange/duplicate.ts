import { withoutClashes } from "../../names/free";
import type { Project } from "../../projects/project";
import { stripName, withAims } from "../../strips/strip";
import type { Step } from "../steps";
import { startOrder } from "./order";

/**
 * Copies of strips, behind the last of them. What led from one of them to another leads from copy to copy; what led elsewhere leads
 * there still.
 */
export function duplicateStrips(
  project: Project,
  ids: readonly string[],
  mint: () => string,
): { readonly steps: readonly Step[]; readonly strips: readonly string[] } {
  // A main output stays the only one.
  const some = project.strips.filter(({ id, kind }) => ids.includes(id) && kind !== "main");
  const copies = new Map(some.map(({ id }) => [id, mint()]));
  const names = withoutClashes(some.map(stripName), project.strips.map(stripName));
  const order = startOrder(project.strips, mint);
  let after = some.at(-1)?.id ?? null;
  for (const [at, strip] of some.entries()) {
    const id = copies.get(strip.id)!;
    const aimed = withAims(strip, (ref) => ("strip" in ref ? { strip: copies.get(ref.strip) ?? ref.strip } : ref));
    order.place({ ...aimed, id, look: { ...aimed.look, name: names[at]! } }, after);
    after = id;
  }
  return { steps: order.steps, strips: [...copies.values()] };
}
