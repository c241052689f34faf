import { type Project, findStrip, getStrip, groupOf } from "../../projects/project";
import { type Result, fail, ok } from "../../result";
import { type Strip, stripName } from "../../strips/strip";
import { applySteps } from "../apply";
import type { Step } from "../steps";
import { changePart } from "./change-part";
import { startOrder, topmost } from "./order";
import { outputsFor } from "./reach";

/** A place in the ledger: within a group, at the top where null; behind one that stands there, first where null. */
export interface StripPlace {
  readonly group: string | null;
  readonly after: string | null;
}

/** Steps, or why it cannot be, in a sentence. */
export type Arranged = Result<readonly Step[], string>;

/** Those that stand in a group, or in none, in their order. */
const siblingsIn = (project: Project, group: string | null): readonly Strip[] =>
  project.strips.filter((strip) => (groupOf(project, strip)?.id ?? null) === group);

/** Where a strip goes that stands in no group. */
const mainOutput = (project: Project): Strip["routing"]["output"] => {
  const main = project.strips.find((strip) => strip.kind === "main");
  return main ? { strip: main.id } : null;
};

/** The outputs that let strips stand in a group, or in none. */
function enter(project: Project, strips: readonly Strip[], group: string | null, mint: () => string): Arranged {
  const entering = strips.filter((strip) => (groupOf(project, strip)?.id ?? null) !== group);
  if (group !== null) {
    const stuck = entering.find((strip) => !outputsFor(project, [strip]).some(({ id }) => id === group));
    const name = stripName(getStrip(project, group));
    if (stuck?.id === group) return fail(`${name} cannot stand within itself.`);
    if (stuck) return fail(`${stripName(stuck)} cannot go to ${name}: its sound comes from there.`);
    const main = entering.find(({ kind }) => kind === "main");
    if (main) return fail(`${stripName(main)} goes to no group.`);
  }
  const output = group === null ? mainOutput(project) : { strip: group };
  return ok(entering.flatMap((strip) => changePart(strip, "routing", { output }, mint)));
}

/**
 * Strips to another place, in the order in which they stand; what stands in a group comes along with it. They go to that group from
 * now on, and no longer to the one that they leave.
 */
export function moveStrips(project: Project, ids: readonly string[], to: StripPlace, mint: () => string): Arranged {
  const moved = topmost(project, ids);
  const entered = enter(project, moved, to.group, mint);
  if (!entered.ok) return entered;
  const led = applySteps(project, entered.value);
  if (!led.ok) return fail(led.error.reason);
  const order = startOrder(led.value.strips, mint);
  let after = anchorFor(project, moved, to);
  for (const { id } of moved) {
    order.place(getStrip(led.value, id), after);
    after = id;
  }
  return ok([...entered.value, ...order.steps]);
}

/** The strip behind which those that are moved come to stand, among all; null for the very first place. */
function anchorFor(project: Project, moved: readonly Strip[], { group, after }: StripPlace): string | null {
  const rest = project.strips.filter((strip) => !moved.includes(strip));
  const siblings = siblingsIn(project, group);
  const ahead = siblings.slice(0, siblings.findIndex(({ id }) => id === after) + 1);
  const behind = ahead.findLast((strip) => !moved.includes(strip));
  if (behind) return behind.id;
  const first = siblings.find((strip) => !moved.includes(strip));
  if (first) return rest[rest.indexOf(first) - 1]?.id ?? null;
  return group !== null && rest.some(({ id }) => id === group) ? group : (rest.at(-1)?.id ?? null);
}

/** Strips one place up or down among those beside them; at the end they stay. */
export function nudgeStrips(project: Project, ids: readonly string[], by: 1 | -1, mint: () => string): Arranged {
  const moved = topmost(project, ids);
  const group = moved[0] ? (groupOf(project, moved[0])?.id ?? null) : null;
  const siblings = siblingsIn(project, group);
  const ats = moved.map((strip) => siblings.indexOf(strip)).filter((at) => at >= 0);
  const edge = by > 0 ? siblings[Math.max(...ats) + 1] : siblings[Math.min(...ats) - 1];
  if (!edge) return ok([]);
  const after = by > 0 ? edge : siblings[siblings.indexOf(edge) - 1];
  return moveStrips(project, ids, { group, after: after?.id ?? null }, mint);
}

/** Strips into the group that stands right above them, behind what is in it. */
export function putInGroupAbove(project: Project, ids: readonly string[], mint: () => string): Arranged {
  const [first] = topmost(project, ids);
  if (!first) return ok([]);
  const siblings = siblingsIn(project, groupOf(project, first)?.id ?? null);
  const above = siblings[siblings.indexOf(first) - 1];
  if (above?.kind !== "group") return fail(`No group stands right above ${stripName(first)}.`);
  return moveStrips(project, ids, { group: above.id, after: siblingsIn(project, above.id).at(-1)?.id ?? null }, mint);
}

/** Strips out of the group in which they stand, behind it. */
export function takeOutOfGroup(project: Project, ids: readonly string[], mint: () => string): Arranged {
  const [first] = topmost(project, ids);
  const group = first && groupOf(project, first);
  if (!first || !group) return fail(first ? `${stripName(first)} stands in no group.` : "No strip is chosen.");
  return moveStrips(project, ids, { group: groupOf(project, group)?.id ?? null, after: group.id }, mint);
}

/** Whether a strip is still there. */
export const standing = (project: Project, ids: readonly string[]): readonly Strip[] =>
  ids.flatMap((id) => findStrip(project, id) ?? []);
