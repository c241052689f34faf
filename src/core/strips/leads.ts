import type { StripRef } from "../chains/chain";
import { type PartName, eachPart } from "./parts";
import type { Strip } from "./strip";

/** Where a part of a strip leads, or what it hears. */
export interface StripLead {
  readonly part: PartName;
  readonly way: "out" | "in" | null;
  readonly to: StripRef;
  /** Which of those of its part it is, from 0. */
  readonly n: number;
}

const KNOWN = new WeakMap<Strip, readonly StripLead[]>();

/** All that a strip leads to, or hears. Worked out once for each: no strip is ever changed, it is another then. */
export function leadsOf(strip: Strip): readonly StripLead[] {
  const known = KNOWN.get(strip);
  if (known) return known;
  const leads = eachPart(strip, (part, { aims }, value) =>
    aims ? aims.of(value).map((to, n): StripLead => ({ part, way: aims.way, to, n })) : [],
  ).flat();
  KNOWN.set(strip, leads);
  return leads;
}
