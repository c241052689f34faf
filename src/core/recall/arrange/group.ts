import { type Project, freeStripName, groupOf } from "../../projects/project";
import { type Result, fail, ok } from "../../result";
import { createStrip } from "../../strips/strip";
import { applySteps } from "../apply";
import type { Step } from "../steps";
import { moveStrips } from "./move";
import { startOrder, topmost } from "./order";

export type Grouped = Result<{ readonly steps: readonly Step[]; readonly group: string }, string>;

/** A new group around strips, where the first of them stands. It goes where that one went; the others come to it. */
export function groupStrips(project: Project, ids: readonly string[], name: string, mint: () => string): Grouped {
  const members = topmost(project, ids);
  const [first] = members;
  if (!first) return fail("Choose the strips that the group is to hold.");
  const id = mint();
  const output = first.kind === "main" ? null : first.routing.output;
  const group = createStrip(id, "group", { name: freeStripName(project, name) }, output);
  const order = startOrder(project.strips, mint);
  order.place(group, project.strips[project.strips.indexOf(first) - 1]?.id ?? null);
  const made = applySteps(project, order.steps);
  if (!made.ok) return fail(made.error.reason);
  const moved = moveStrips(made.value, ids, { group: id, after: null }, mint);
  return moved.ok ? ok({ steps: [...order.steps, ...moved.value], group: id }) : moved;
}

/** A name for a group of strips that stand in the same one: what it is called already, else "Group". */
export const nameForGroup = (project: Project, ids: readonly string[]): string => {
  const above = new Set(topmost(project, ids).map((strip) => groupOf(project, strip)?.look.name));
  const [only] = above;
  return above.size === 1 && only ? only : "Group";
};
