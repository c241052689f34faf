import { MOST_STRIPS } from "../documents/limits";
import type { Problem } from "../documents/problem";
import { findStripProblem } from "../strips/problems";
import { type StripLead, leadsOf } from "../strips/leads";
import { PART } from "../strips/parts";
import { type Strip, stripName } from "../strips/strip";
import { type Project, outputStrip, stripsById } from "./project";
import { findNestedInItself } from "./nesting";
import { findLoop, findLooped } from "./signal-flow";

/** Strips that were looked at by themselves, and nothing was wrong: no strip is ever changed, it is another then. */
const FAULTLESS = new WeakSet<Strip>();

function findOwnProblem(strip: Strip, path: string): Problem | null {
  if (FAULTLESS.has(strip)) return null;
  const problem = findStripProblem(strip, path);
  if (!problem) FAULTLESS.add(strip);
  return problem;
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
    const problem = findOwnProblem(strip, path);
    if (problem) return problem;
    const lost = findLost(strip, strips);
    if (lost) return { path: `${path}.${lost.at}`, message: `${stripName(strip)} ${lost.leads} ${lost.what}.` };
  }
  const looped = findLooped(project);
  if (looped === null) return findNestedProblem(project);
  return {
    path: pathOfLead(project, looped),
    message: `A loop in the signal flow: ${(findLoop(project, looped) ?? []).join(" → ")}.`,
  };
}

/** The first reference of a strip to one that is not here, or that cannot be what it is there. */
function findLost(
  strip: Strip,
  strips: ReadonlyMap<string, Strip>,
): { readonly at: string; readonly leads: string; readonly what: string } | null {
  for (const lead of leadsOf(strip)) {
    const { aims } = PART[lead.part];
    const what = wrongWith(lead, strips);
    if (aims && what !== null) return { at: `${lead.part}${aims.at(lead.n)}`, leads: aims.leads, what };
  }
  return null;
}

function wrongWith({ way, to }: StripLead, strips: ReadonlyMap<string, Strip>): string | null {
  if ("external" in to) return null;
  const there = strips.get(to.strip);
  if (!there) return "a strip that is not here";
  if (way === null) return there.kind === "folder" ? null : "a strip that is no folder";
  return there.kind === "folder" ? "a folder, which carries no sound" : null;
}

/** Where a strip leads on along a loop: its output, one of its sends, or what it keys. */
function pathOfLead(project: Project, id: string): string {
  const at = project.strips.findIndex((strip) => strip.id === id);
  const isOn = (to: string) => findLoop(project, to) !== null;
  const strip = project.strips[at]!;
  const output = outputStrip(strip.routing.output);
  if (output !== null && isOn(output)) return `strips[${at}].routing.output`;
  const send = strip.sends.findIndex(({ to }) => "strip" in to && isOn(to.strip));
  return send < 0 ? `strips[${at}]` : `strips[${at}].sends[${send}].to`;
}

/** Of a project without a loop in its signal flow: a folder that stands within itself. */
function findNestedProblem(project: Project): Problem | null {
  const nested = findNestedInItself(project.strips);
  return (
    nested && {
      path: `strips[${project.strips.indexOf(nested)}].look.folder`,
      message: `${stripName(nested)} stands within itself.`,
    }
  );
}
