import type { z } from "zod";
import type { Problem } from "../documents/problem";
import { type Output, type Strip, completeStrip, findStripProblem, stripName } from "../strips/strip";
import type { ProjectSchema } from "./schema";

export type Project = Readonly<z.infer<typeof ProjectSchema>>;

export const findStrip = (project: Project, id: string): Strip | null =>
  project.strips.find((s) => s.id === id) ?? null;

export function getStrip(project: Project, id: string): Strip {
  const strip = findStrip(project, id);
  if (!strip) throw new Error(`${project.id} has no strip ${id}`);
  return strip;
}

/** The strip that an output leads to; null for a socket, for nowhere and for what stands outside. */
export const outputStrip = (output: Output): string | null => (output && "strip" in output ? output.strip : null);

/** "Main", "Strings", "Out 1–2", "nowhere". */
export function describeOutput(project: Project, output: Output): string {
  if (!output) return "nowhere";
  if ("hardware" in output) return output.hardware;
  if ("external" in output) return `${output.name} (not here)`;
  const strip = findStrip(project, output.strip);
  return strip ? stripName(strip) : "nowhere";
}

/** The names along a loop in the signal flow that starts at a strip; null where the sound gets out. */
export function findLoop(project: Project, start: string): readonly string[] | null {
  const way: string[] = [];
  let at: string | null = start;
  while (at !== null) {
    const strip: Strip | null = findStrip(project, at);
    if (!strip) return null;
    way.push(stripName(strip));
    at = outputStrip(strip.routing.output);
    if (at === start) return [...way, way[0]!];
    if (way.length > project.strips.length) return null;
  }
  return null;
}

/** Where a strip stands under its group: 0 for one that goes straight to the main output. */
export function depthOf(project: Project, strip: Strip): number {
  let depth = 0;
  let above = outputStrip(strip.routing.output);
  while (above !== null && depth < 8) {
    const parent = findStrip(project, above);
    if (!parent || parent.kind !== "group") break;
    depth += 1;
    above = outputStrip(parent.routing.output);
  }
  return depth;
}

/** Strips in the order of the ledger: each group before its members, the rest as they stand. */
export function ledgerOrder(project: Project): readonly Strip[] {
  const members = (id: string | null): readonly Strip[] =>
    project.strips.filter((s) => {
      const above = outputStrip(s.routing.output);
      const parent = above === null ? null : findStrip(project, above);
      return (parent?.kind === "group" ? parent.id : null) === id;
    });
  const below = (strip: Strip): readonly Strip[] =>
    strip.kind === "group" ? [strip, ...members(strip.id).flatMap(below)] : [strip];
  return members(null).flatMap(below);
}

/** What a schema cannot see: strips that exist, ids used once, no loop. The first problem, null for none. */
export function findProjectProblem(project: Project): Problem | null {
  const ids = new Set<string>();
  for (const [at, strip] of project.strips.entries()) {
    const path = `strips[${at}]`;
    if (ids.has(strip.id)) return { path: `${path}.id`, message: `The id “${strip.id}” is used twice.` };
    ids.add(strip.id);
    const problem = findStripProblem(strip, path);
    if (problem) return problem;
    const to = outputStrip(strip.routing.output);
    if (to !== null && !findStrip(project, to))
      return { path: `${path}.routing.output`, message: `${stripName(strip)} goes to a strip that is not here.` };
    const loop = findLoop(project, strip.id);
    if (loop) return { path: `${path}.routing.output`, message: `A loop in the signal flow: ${loop.join(" → ")}.` };
  }
  return null;
}

export const completeProject = (project: Project): Project => ({
  ...project,
  strips: project.strips.map(completeStrip),
});
