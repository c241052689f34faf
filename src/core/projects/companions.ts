import { PART, eachPart } from "../strips/parts";
import type { Strip } from "../strips/strip";
import type { Project } from "./project";

/** A strip that belongs with others: sound goes to it, or comes from it. */
export interface Companion {
  readonly strip: Strip;
  /** What it is to them: "Cello, Voice send to it", one for each way. */
  readonly ways: readonly CompanionWay[];
}

export interface CompanionWay {
  /** Those of the chosen that lead to it, or hear it; that come from it, or stand in it. */
  readonly strips: readonly Strip[];
  /** Between the names and "it": "goes to", "is keyed by". */
  readonly leads: string;
  /** Whether the chosen lead to it; else it leads to them. */
  readonly isTheirs: boolean;
}

/** Where each part of a strip leads, or what it hears, by the ids of strips. */
const ledTo = (strip: Strip): readonly (readonly [leads: string, id: string])[] =>
  eachPart(strip, (_, { aims }, value) =>
    aims ? aims.of(value).flatMap((ref) => ("strip" in ref ? [[aims.leads, ref.strip] as const] : [])) : [],
  ).flat();

/** Groups and folders come by what stands in them, instruments by what their outputs feed; other strips that lead to one do not. */
const comesAlong = (leads: string, to: Strip): boolean =>
  (leads === PART.routing.aims?.leads && to.kind === "group") ||
  leads === PART.source.aims?.leads ||
  leads === PART.look.aims?.leads;

/**
 * What belongs with some strips and is not among them: buses that they send to, groups that they go to, strips that key them, members
 * of groups, strips that play their outputs. A main output belongs with all, and is not offered. In the order of the project.
 */
export function findCompanions(project: Project, ids: readonly string[]): readonly Companion[] {
  const chosen = new Set(ids);
  const ways = new Map<string, Map<string, CompanionWay>>();
  const add = (id: string, strip: Strip, { leads, isTheirs }: Omit<CompanionWay, "strips">) => {
    const known = ways.get(id) ?? new Map<string, CompanionWay>();
    const key = `${leads} ${isTheirs}`;
    const strips = known.get(key)?.strips ?? [];
    if (!strips.includes(strip)) known.set(key, { strips: [...strips, strip], leads, isTheirs });
    ways.set(id, known);
  };
  const here = new Map(project.strips.map((strip) => [strip.id, strip]));
  for (const strip of project.strips)
    for (const [leads, id] of ledTo(strip)) {
      const to = here.get(id);
      if (!to) continue;
      if (chosen.has(strip.id) && !chosen.has(id) && to.kind !== "main") add(id, strip, { leads, isTheirs: true });
      if (chosen.has(id) && !chosen.has(strip.id) && comesAlong(leads, to))
        add(strip.id, to, { leads, isTheirs: false });
    }
  return project.strips.flatMap((strip) => {
    const found = ways.get(strip.id);
    return found ? [{ strip, ways: [...found.values()] }] : [];
  });
}
