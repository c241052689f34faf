import { isBus } from "../../documents/strip-kinds";
import type { Project } from "../../projects/project";
import { type Flow, flowOf, wayBetween } from "../../projects/signal-flow";
import type { Strip } from "../../strips/strip";

/*
 * Which strips another may be led to, or hear, so that no loop comes about. What stands already is offered too: it is what is
 * chosen.
 */

/** Strips that are led somewhere at once: by their outputs, their sends, the keys of their plugins. */
type Some = readonly Pick<Strip, "id">[];

const isFree = (flow: Flow, strips: Some, other: string): boolean =>
  strips.every(({ id }) => id !== other && wayBetween(flow, other, id) === null);

/** Buses to which the sound of all of some strips may go. */
export function outputsFor(project: Project, strips: Some): readonly Strip[] {
  const flow = flowOf(project);
  return project.strips.filter(({ id, kind }) => (kind === "group" || kind === "main") && isFree(flow, strips, id));
}

/** Buses that all of some strips may send to. */
export function sendTargetsFor(project: Project, strips: Some): readonly Strip[] {
  const flow = flowOf(project);
  return project.strips.filter(({ id, kind }) => isBus(kind) && isFree(flow, strips, id));
}

/** Strips that may key plugins of another. */
export function keysFor(project: Project, strip: Pick<Strip, "id">): readonly Strip[] {
  const flow = flowOf(project);
  return project.strips.filter(
    ({ id, kind }) => kind !== "folder" && id !== strip.id && wayBetween(flow, strip.id, id) === null,
  );
}
