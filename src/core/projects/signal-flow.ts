import { leadsOf } from "../strips/leads";
import type { PartName } from "../strips/parts";
import { stripName } from "../strips/strip";
import { type Project, stripsById } from "./project";

/** Sound that goes from one strip to another; their ids. */
export interface Way {
  readonly from: string;
  readonly to: string;
}

/** By each strip, those to which its sound goes. */
export type Flow = ReadonlyMap<string, readonly string[]>;

/**
 * Where the sound of each strip goes, by whatever part of it, or of another, leads there: outputs, and keys of plugins. Only some of
 * that, where it is asked for: by the strip and the part that name another, and by that.
 */
export function flowOf(
  project: Project,
  counts: (strip: string, part: PartName, to: string) => boolean = () => true,
): Flow {
  const flow = new Map<string, string[]>();
  const lead = ({ from, to }: Way) => {
    const ways = flow.get(from);
    if (ways) ways.push(to);
    else flow.set(from, [to]);
  };
  for (const strip of project.strips)
    for (const { part, way, to } of leadsOf(strip))
      if (way !== null && "strip" in to && counts(strip.id, part, to.strip)) lead(wayOf(way, strip.id, to.strip));
  return flow;
}

/** The way between a strip and another that a part of it names. */
export const wayOf = (way: "out" | "in", strip: string, other: string): Way =>
  way === "out" ? { from: strip, to: other } : { from: other, to: strip };

/** Ids from one strip to another along the shortest way that the sound takes, both among them; null where it takes none. */
export function wayBetween(flow: Flow, from: string, to: string): readonly string[] | null {
  const cameFrom = new Map<string, string | null>([[from, null]]);
  const left = [from];
  for (let next = 0; next < left.length; next++) {
    const at = left[next]!;
    if (at === to) return wayBack(cameFrom, at);
    for (const beyond of flow.get(at) ?? [])
      if (!cameFrom.has(beyond)) {
        cameFrom.set(beyond, at);
        left.push(beyond);
      }
  }
  return null;
}

function wayBack(cameFrom: ReadonlyMap<string, string | null>, end: string): readonly string[] {
  const way: string[] = [];
  for (let at: string | null = end; at !== null; at = cameFrom.get(at) ?? null) way.push(at);
  return way.toReversed();
}

/** The names along the shortest loop in the signal flow that goes through a strip; null where the sound never comes back to it. */
export function findLoop(project: Project, start: string): readonly string[] | null {
  const flow = flowOf(project);
  const back = (flow.get(start) ?? []).flatMap((to) => {
    const way = wayBetween(flow, to, start);
    return way ? [way] : [];
  });
  const [shortest] = back.toSorted((a, b) => a.length - b.length);
  return shortest ? namesAlong(project, [start, ...shortest]) : null;
}

/** What strips are called, by their ids. */
export const namesAlong = (project: Project, ids: readonly string[]): readonly string[] => {
  const strips = stripsById(project);
  return ids.flatMap((id) => {
    const strip = strips.get(id);
    return strip ? [stripName(strip)] : [];
  });
};

/** The id of a strip on a loop in the signal flow; null where the sound gets out from everywhere. Each strip is walked once. */
export function findLooped(project: Project): string | null {
  const flow = flowOf(project);
  const walked = new Set<string>();
  for (const { id } of project.strips) {
    /** Those on the way from the first to the one that is looked at, each with how many of its ways were tried. */
    const way: { readonly id: string; readonly ways: readonly string[]; tried: number }[] = [];
    const onWay = new Set<string>();
    const enter = (strip: string) => {
      walked.add(strip);
      onWay.add(strip);
      way.push({ id: strip, ways: flow.get(strip) ?? [], tried: 0 });
    };
    if (!walked.has(id)) enter(id);
    for (let at = way.at(-1); at; at = way.at(-1)) {
      const to = at.ways[at.tried++];
      if (to === undefined) {
        onWay.delete(at.id);
        way.pop();
      } else if (onWay.has(to)) return to;
      else if (!walked.has(to)) enter(to);
    }
  }
  return null;
}
