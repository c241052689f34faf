import type { z } from "zod";
import { withoutClashes } from "../names/free";
import { type Strip, completeStrip, stripName } from "../strips/strip";
import { type Output, ROUTING } from "../strips/parts/routing";
import type { ProjectSchema } from "./schema";

export type Project = Readonly<z.infer<typeof ProjectSchema>>;

export const findStrip = (project: Project, id: string): Strip | null =>
  project.strips.find((s) => s.id === id) ?? null;

const MAPS = new WeakMap<Project, ReadonlyMap<string, Strip>>();

/** Strips by id, for what looks up many. Projects never change: it is made once for each. */
export function stripsById(project: Project): ReadonlyMap<string, Strip> {
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

/** What of a project is heard and said of it: what is kept of its past, and for the eye, is left out. */
export function withoutKept(project: Project): Project {
  const { mixes: _, views: __, ...bare } = project;
  return bare;
}

export const completeProject = (project: Project): Project => ({
  ...project,
  strips: project.strips.map(completeStrip),
});
