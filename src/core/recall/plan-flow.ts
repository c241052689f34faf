import type { Project } from "../projects/project";
import { type Flow, type Way, flowOf, wayBetween } from "../projects/signal-flow";
import type { PartName } from "../strips/parts";

/** What a plan would have lead from strip to strip, by a part of one of the two. */
export interface Lead extends Way {
  /** The strip whose part it is. */
  readonly strip: string;
  readonly part: PartName;
}

export type Replaced = ReadonlyMap<string, ReadonlySet<string>>;

/** What a plan would change of the signal flow. */
export interface Leads {
  /** Cells whose ways of before are given up, "cello routing"; each with the strips to which they lead on. */
  readonly replaced: Replaced;
  readonly leads: readonly Lead[];
}

export const cellKey = (strip: string, part: PartName): string => `${strip} ${part}`;
export const leadKey = ({ strip, part, from, to }: Lead): string => `${cellKey(strip, part)} ${from} ${to}`;

/** By each lead that would close a loop, the ids along that loop, from its beginning back to it. */
export type Loops = ReadonlyMap<string, readonly string[]>;

/**
 * Which leads would close a loop. Outputs come before sends, and these before keys, whatever stands first in the plan, so that what
 * is refused depends on what is wanted and not on what was there: a second time the same is refused. An output that is
 * refused stays as it was; everything else that is refused is left out.
 */
export function findLoops(project: Project, { replaced, leads }: Leads): Loops {
  const ordered = [
    ...leads.filter(({ part }) => part === "routing"),
    ...leads.filter(({ part }) => part !== "routing"),
  ];
  const loops = new Map<string, readonly string[]>();
  const stays = new Set<string>();
  for (;;) {
    const flow = flowWithout(project, new Map([...replaced].filter(([cell]) => !stays.has(cell))));
    const refused = ordered.find((lead) => {
      if (loops.has(leadKey(lead))) return false;
      const back = wayBetween(flow, lead.to, lead.from);
      if (!back) flow.set(lead.from, [...(flow.get(lead.from) ?? []), lead.to]);
      else loops.set(leadKey(lead), [lead.from, ...back]);
      return back !== null && lead.part === "routing";
    });
    if (!refused) return loops;
    // With its output as it was, others may close a loop that did not before; those that are no outputs are looked at anew.
    stays.add(cellKey(refused.strip, "routing"));
    for (const lead of ordered) if (lead.part !== "routing") loops.delete(leadKey(lead));
  }
}

/** The signal flow without what some cells lead to, but for what they go on leading to. */
function flowWithout(project: Project, replaced: Replaced): Map<string, readonly string[]> {
  const flow: Flow = flowOf(project, (strip, part, to) => replaced.get(cellKey(strip, part))?.has(to) ?? true);
  return new Map(flow);
}
