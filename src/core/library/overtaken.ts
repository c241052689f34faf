import equal from "fast-deep-equal";
import type { Card, Origin } from "../presets/preset";

/** Lists to which words are added, and from which they are taken: made anew from what stands there now, they lose nothing. */
const ADDED_TO: ReadonlySet<string> = new Set<keyof Card>(["tags", "dismissed", "alsoIn"]);

/** A field of a card, or of its origin, that two have changed at once. */
export interface Overtaken {
  readonly field: Exclude<keyof Card, "origin"> | keyof Origin;
  /** What stands there by now. */
  readonly now: unknown;
}

/**
 * What of a change was changed by another since it was thought of. `change` is what is to become of the card as it was
 * seen, `before`; `now` is what it has become. Where nothing is overtaken, the change can be made to `now` as well.
 */
export function findOvertaken(change: Partial<Card>, before: Card, now: Card): readonly Overtaken[] {
  const found: Overtaken[] = [];
  for (const field of Object.keys(change) as (keyof Card)[]) {
    if (ADDED_TO.has(field)) continue;
    if (field === "origin") found.push(...overtakenOrigin(change.origin ?? {}, before.origin, now.origin));
    else if (!equal(before[field], now[field]) && !equal(change[field], now[field]))
      found.push({ field, now: now[field] });
  }
  return found;
}

/** An origin is written as a whole: only what differs from what was seen is meant. */
function overtakenOrigin(change: Origin, before: Origin, now: Origin): readonly Overtaken[] {
  const fields = new Set([...Object.keys(change), ...Object.keys(before)]) as ReadonlySet<keyof Origin>;
  return [...fields]
    .filter((f) => !equal(change[f], before[f]) && !equal(before[f], now[f]) && !equal(change[f], now[f]))
    .map((field) => ({ field, now: now[field] }));
}
