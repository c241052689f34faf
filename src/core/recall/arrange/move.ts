import { groupOf, isHolder, parentOf, standsWithin, stripsWithin } from "../../projects/nesting";
import { type Project, findStrip, getStrip } from "../../projects/project";
import { type Result, fail, ok } from "../../result";
import { inFolder } from "../../strips/parts/look";
import { type Strip, stripName } from "../../strips/strip";
import { applySteps } from "../apply";
import type { Step } from "../steps";
import { changePart } from "./change-part";
import { startOrder, topmost } from "./order";
import { outputsFor } from "./reach";

/** A place in the ledger: within a group or a folder, at the top where null; behind one that stands there, first where null. */
export interface StripPlace {
  readonly within: string | null;
  readonly after: string | null;
}

/** Steps, or why it cannot be, in a sentence. */
export type Arranged = Result<readonly Step[], string>;

/** Those that stand in a group or a folder, or in none, in their order. */
const siblingsIn = (project: Project, within: string | null): readonly Strip[] =>
  stripsWithin(project).get(within) ?? [];

const parentId = (project: Project, strip: Strip): string | null => parentOf(project, strip)?.id ?? null;

/** Where a strip goes that stands in no group. */
const mainOutput = (project: Project): Strip["routing"]["output"] => {
  const main = project.strips.find((strip) => strip.kind === "main");
  return main ? { strip: main.id } : null;
};

const outOfFolder = (strip: Strip, mint: () => string): readonly Step[] =>
  changePart(strip, "look", inFolder(strip.look, null), mint);

/** Into a group: sound goes to it, and no folder has a say. */
function enterGroup(project: Project, strips: readonly Strip[], group: Strip, mint: () => string): Arranged {
  const name = stripName(group);
  const folder = strips.find(({ kind }) => kind === "folder");
  if (folder) return fail(`${stripName(folder)} is a folder: it stands in no group, only the strips in it can.`);
  const stuck = strips.find((strip) => !outputsFor(project, [strip]).some(({ id }) => id === group.id));
  if (stuck?.id === group.id) return fail(`${name} cannot stand within itself.`);
  if (stuck) return fail(`${stripName(stuck)} cannot go to ${name}: its sound comes from there.`);
  const main = strips.find(({ kind }) => kind === "main");
  if (main) return fail(`${stripName(main)} goes to no group.`);
  const output = { strip: group.id };
  return ok(
    strips.flatMap((strip) => [...changePart(strip, "routing", { output }, mint), ...outOfFolder(strip, mint)]),
  );
}

/** Into a folder: no sound goes elsewhere by it. */
function enterFolder(project: Project, strips: readonly Strip[], folder: Strip, mint: () => string): Arranged {
  const stuck = strips.find(({ id }) => id === folder.id || standsWithin(project, folder, id));
  if (stuck) return fail(`${stripName(stuck)} cannot stand within itself.`);
  return ok(strips.flatMap((strip) => changePart(strip, "look", inFolder(strip.look, { strip: folder.id }), mint)));
}

/** What lets strips stand in a group or a folder, or in none. Out of a folder a strip goes on to where it went. */
function enter(project: Project, strips: readonly Strip[], within: string | null, mint: () => string): Arranged {
  const entering = strips.filter((strip) => parentId(project, strip) !== within);
  if (within !== null) {
    const holder = getStrip(project, within);
    return (holder.kind === "folder" ? enterFolder : enterGroup)(project, entering, holder, mint);
  }
  const output = mainOutput(project);
  return ok(
    entering.flatMap((strip) =>
      strip.look.folder ? outOfFolder(strip, mint) : changePart(strip, "routing", { output }, mint),
    ),
  );
}

/**
 * Strips to another place, in the order in which they stand; what stands in a group or a folder comes along with it. They go to that
 * group from now on, and no longer to the one that they leave. Law: a folder on either side leaves every output as it was.
 */
export function moveStrips(project: Project, ids: readonly string[], to: StripPlace, mint: () => string): Arranged {
  const moved = topmost(project, ids);
  const entered = enter(project, moved, to.within, mint);
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
function anchorFor(project: Project, moved: readonly Strip[], { within, after }: StripPlace): string | null {
  const rest = project.strips.filter((strip) => !moved.includes(strip));
  const siblings = siblingsIn(project, within);
  const ahead = siblings.slice(0, siblings.findIndex(({ id }) => id === after) + 1);
  const behind = ahead.findLast((strip) => !moved.includes(strip));
  if (behind) return behind.id;
  const first = siblings.find((strip) => !moved.includes(strip));
  if (first) return rest[rest.indexOf(first) - 1]?.id ?? null;
  return within !== null && rest.some(({ id }) => id === within) ? within : (rest.at(-1)?.id ?? null);
}

interface Nudge {
  readonly by: 1 | -1;
  /** Those that are shown: others are passed over as if they were not there. */
  readonly among: ReadonlySet<string>;
}

/** Strips one place up or down among those beside them; at the end they stay. */
export function nudgeStrips(
  project: Project,
  ids: readonly string[],
  { by, among }: Nudge,
  mint: () => string,
): Arranged {
  const moved = topmost(project, ids);
  const within = moved[0] ? parentId(project, moved[0]) : null;
  const siblings = siblingsIn(project, within);
  const ats = moved.map((strip) => siblings.indexOf(strip)).filter((at) => at >= 0);
  const isShown = ({ id }: Strip) => among.has(id);
  const edge =
    by > 0
      ? siblings.slice(Math.max(...ats) + 1).find(isShown)
      : siblings.slice(0, Math.max(0, Math.min(...ats))).findLast(isShown);
  if (!edge) return ok([]);
  const after = by > 0 ? edge : siblings[siblings.indexOf(edge) - 1];
  return moveStrips(project, ids, { within, after: after?.id ?? null }, mint);
}

/** Strips into the group or the folder that stands right above them, behind what is in it. */
export function putIntoAbove(project: Project, ids: readonly string[], mint: () => string): Arranged {
  const [first] = topmost(project, ids);
  if (!first) return ok([]);
  const siblings = siblingsIn(project, parentId(project, first));
  const above = siblings[siblings.indexOf(first) - 1];
  if (!above || !isHolder(above)) return fail(`No group and no folder stands right above ${stripName(first)}.`);
  return moveStrips(project, ids, { within: above.id, after: siblingsIn(project, above.id).at(-1)?.id ?? null }, mint);
}

/** Strips out of the group or the folder in which they stand, behind it. */
export function takeOut(project: Project, ids: readonly string[], mint: () => string): Arranged {
  const [first] = topmost(project, ids);
  const holder = first && parentOf(project, first);
  if (!first || !holder)
    return fail(first ? `${stripName(first)} stands in no group and in no folder.` : "No strip is chosen.");
  const within = parentId(project, holder);
  if (holder.kind === "folder") return moveStrips(project, ids, { within, after: holder.id }, mint);
  // Out of a group in a folder: the sound leaves the group first.
  const group = groupOf(project, holder)?.id ?? null;
  const left = moveStrips(project, ids, { within: group, after: holder.id }, mint);
  if (!left.ok || within === group) return left;
  const then = applySteps(project, left.value);
  if (!then.ok) return fail(then.error.reason);
  const beside = moveStrips(then.value, ids, { within, after: holder.id }, mint);
  return beside.ok ? ok([...left.value, ...beside.value]) : beside;
}

/** Whether a strip is still there. */
export const standing = (project: Project, ids: readonly string[]): readonly Strip[] =>
  ids.flatMap((id) => findStrip(project, id) ?? []);
