import type { z } from "zod";
import { MOST_STRIPS } from "../documents/limits";
import type { Problem } from "../documents/problem";
import { withoutClashes } from "../names/free";
import { type Strip, completeStrip, stripName } from "../strips/strip";
import { findStripProblem } from "../strips/problems";
import { type Output, ROUTING } from "../strips/parts/routing";
import type { ProjectSchema } from "./schema";

export type Project = Readonly<z.infer<typeof ProjectSchema>>;

export const findStrip = (project: Project, id: string): Strip | null =>
  project.strips.find((s) => s.id === id) ?? null;

const MAPS = new WeakMap<Project, ReadonlyMap<string, Strip>>();

/** Strips by id, for what looks up many. Projects never change: it is made once for each. */
function stripsById(project: Project): ReadonlyMap<string, Strip> {
  const known = MAPS.get(project) ?? new Map(project.strips.map((strip) => [strip.id, strip]));
  MAPS.set(project, known);
  return known;
}

export function getStrip(project: Project, id: string): Strip {
  const strip = findStrip(project, id);
  if (!strip) throw new Error(`${project.id} has no strip ${id}`);
  return strip;
}

/** A name as no other strip has it: "Lead", "Lead 2". `self` may go on having it. */
export function freeStripName(project: Project, name: string, self?: string): string {
  const others = project.strips.filter(({ id }) => id !== self);
  return withoutClashes([name], others.map(stripName))[0]!;
}

/** The strip that an output leads to; null for a socket, for nowhere and for what stands outside. */
export const outputStrip = (output: Output): string | null => (output && "strip" in output ? output.strip : null);

/** How a strip is called by its id; null for one that is not here. */
export const nameIn =
  (project: Project) =>
  (id: string): string | null => {
    const strip = findStrip(project, id);
    return strip ? stripName(strip) : null;
  };

/** "Main", "Strings", "Out 1–2", "nowhere". */
export function describeOutput(project: Project, output: Output): string {
  const words = ROUTING.words({ output }, { kind: "audio", nameOf: nameIn(project) });
  return output && "external" in output ? `${words} (not here)` : words;
}

/** The names along a loop in the signal flow that starts at a strip; null where the sound gets out. */
export function findLoop(project: Project, start: string): readonly string[] | null {
  const strips = stripsById(project);
  const way: string[] = [];
  for (let strip = strips.get(start); strip && way.length <= project.strips.length; ) {
    way.push(stripName(strip));
    const to = outputStrip(strip.routing.output);
    if (to === start) return [...way, way[0]!];
    strip = to === null ? undefined : strips.get(to);
  }
  return null;
}

/** A strip from which the sound goes round in a loop; null where it gets out from everywhere. Each strip is walked once. */
function findLooped(project: Project): Strip | null {
  const strips = stripsById(project);
  const walkOf = new Map<string, number>();
  for (const [walk, start] of project.strips.entries()) {
    let strip: Strip | undefined = start;
    while (strip && !walkOf.has(strip.id)) {
      walkOf.set(strip.id, walk);
      const to = outputStrip(strip.routing.output);
      strip = to === null ? undefined : strips.get(to);
    }
    if (strip && walkOf.get(strip.id) === walk) return strip;
  }
  return null;
}

/** The group that a strip goes to; null where it goes elsewhere. */
function groupOf(project: Project, strip: Strip): Strip | null {
  const to = outputStrip(strip.routing.output);
  const above = to === null ? undefined : stripsById(project).get(to);
  return above?.kind === "group" ? above : null;
}

/** Where a strip stands under its group: 0 for one that goes straight to the main output. Deeper than 8 is as 8. */
export function depthOf(project: Project, strip: Strip): number {
  let depth = 0;
  for (let above = groupOf(project, strip); above && depth < 8; above = groupOf(project, above)) depth += 1;
  return depth;
}

/** Strips in the order of the ledger: each group before its members, the rest as they stand. */
export function ledgerOrder(project: Project): readonly Strip[] {
  const members = new Map<string | null, Strip[]>();
  for (const strip of project.strips) {
    const above = groupOf(project, strip)?.id ?? null;
    members.set(above, [...(members.get(above) ?? []), strip]);
  }
  const order: Strip[] = [];
  const left = (members.get(null) ?? []).toReversed();
  for (let strip = left.pop(); strip; strip = left.pop()) {
    order.push(strip);
    if (strip.kind === "group") left.push(...(members.get(strip.id) ?? []).toReversed());
  }
  return order;
}

/** What a schema cannot see: so many strips, that exist, ids used once, no loop. The first problem, null for none. */
export function findProjectProblem(project: Project): Problem | null {
  if (project.strips.length > MOST_STRIPS)
    return { path: "strips", message: `A project has ${MOST_STRIPS} strips at the most.` };
  const strips = stripsById(project);
  const ids = new Set<string>();
  for (const [at, strip] of project.strips.entries()) {
    const path = `strips[${at}]`;
    if (ids.has(strip.id)) return { path: `${path}.id`, message: `The id “${strip.id}” is used twice.` };
    ids.add(strip.id);
    const problem = findStripProblem(strip, path);
    if (problem) return problem;
    const to = outputStrip(strip.routing.output);
    if (to !== null && !strips.has(to))
      return { path: `${path}.routing.output`, message: `${stripName(strip)} goes to a strip that is not here.` };
  }
  const looped = findLooped(project);
  if (!looped) return null;
  const way = findLoop(project, looped.id) ?? [];
  const path = `strips[${project.strips.indexOf(looped)}].routing.output`;
  return { path, message: `A loop in the signal flow: ${way.join(" → ")}.` };
}

export const completeProject = (project: Project): Project => ({
  ...project,
  strips: project.strips.map(completeStrip),
});
