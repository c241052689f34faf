import { parentOf } from "../../projects/nesting";
import { type Project, freeStripName } from "../../projects/project";
import { type Result, fail, ok } from "../../result";
import { inFolder } from "../../strips/parts/look";
import { type Strip, createStrip } from "../../strips/strip";
import { applySteps } from "../apply";
import type { Step } from "../steps";
import { moveStrips } from "./move";
import { startOrder, topmost } from "./order";

/** Steps that make a strip around others; `holder`: its id. */
export type Held = Result<{ readonly steps: readonly Step[]; readonly holder: string }, string>;

/** Makes a strip where another stands, and puts some into it. */
function hold(
  project: Project,
  ids: readonly string[],
  { holder, at }: { readonly holder: Strip; readonly at: Strip },
  mint: () => string,
): Held {
  const order = startOrder(project.strips, mint);
  order.place(holder, project.strips[project.strips.indexOf(at) - 1]?.id ?? null);
  const made = applySteps(project, order.steps);
  if (!made.ok) return fail(made.error.reason);
  const moved = moveStrips(made.value, ids, { within: holder.id, after: null }, mint);
  return moved.ok ? ok({ steps: [...order.steps, ...moved.value], holder: holder.id }) : moved;
}

/** A new group around strips, where the first of them stands. It goes where that one went; the others come to it. */
export function groupStrips(project: Project, ids: readonly string[], name: string, mint: () => string): Held {
  const [first] = topmost(project, ids);
  if (!first) return fail("Choose the strips that the group is to hold.");
  const output = first.kind === "main" ? null : first.routing.output;
  const look = inFolder({ name: freeStripName(project, name) }, first.look.folder ?? null);
  return hold(project, ids, { holder: createStrip(mint(), "group", look, output), at: first }, mint);
}

/**
 * A new folder around strips, where the first of them stands, in the folder in which that is; a folder stands in no group, but around it.
 * No sound goes elsewhere by it.
 */
export function folderStrips(project: Project, ids: readonly string[], name: string, mint: () => string): Held {
  const [first] = topmost(project, ids);
  if (!first) return fail("Choose the strips that the folder is to hold.");
  let at = first;
  let above = parentOf(project, at);
  for (; above && above.kind !== "folder"; above = parentOf(project, at)) at = above;
  const look = inFolder({ name: freeStripName(project, name) }, above ? { strip: above.id } : null);
  return hold(project, ids, { holder: createStrip(mint(), "folder", look, null), at }, mint);
}

/** A name for a group or a folder of strips that stand in the same one: what it is called already, else the word. */
export const nameForHolder = (project: Project, ids: readonly string[], word: "Group" | "Folder"): string => {
  const above = new Set(topmost(project, ids).map((strip) => parentOf(project, strip)?.look.name));
  const [only] = above;
  return above.size === 1 && only ? only : word;
};
