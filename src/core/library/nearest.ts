import type { Content } from "../presets/preset";
import { distanceBetween } from "./near-copies";

/** What a sound is looked for: the place that it is for, and what stands there. */
export interface Sought {
  /** "Cello, low": the strip, or what is known of its purpose. */
  readonly place: string;
  readonly content: Content;
  /** Tags that were measured of it. */
  readonly measured: readonly string[];
}

interface Offered {
  readonly content: Content;
  readonly measured: readonly string[];
  readonly card: { readonly name: string; readonly purpose: string; readonly tags: readonly string[] };
}

/** Words of two letters say little of what a sound is for. */
const wordsOf = (text: string): ReadonlySet<string> =>
  new Set(
    text
      .toLowerCase()
      .split(/[^\p{L}\p{N}]+/u)
      .filter((word) => word.length > 2),
  );

/** The share of those in either that are in both, 0 to 1; 0 where there are none. */
function alike(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  const either = new Set([...a, ...b]).size;
  return either === 0 ? 0 : [...a].filter((one) => b.has(one)).length / either;
}

/** How near a sound is to what is sought, 0 to 3: by purpose, by what was measured, by its values where the plugins are the same. */
export function nearness({ card, content, measured }: Offered, sought: Sought): number {
  const purpose = wordsOf([card.name, card.purpose, ...card.tags].join(" "));
  const place = wordsOf(sought.place);
  const named = [...place].some((word) => purpose.has(word)) ? 1 : 0;
  const apart = distanceBetween(content, sought.content);
  return named + alike(new Set(measured), new Set(sought.measured)) + (Number.isFinite(apart) ? 1 - apart : 0);
}

/** The nearest first; those that are equally near stay in their order. */
export const nearestFirst = <T extends Offered>(rows: readonly T[], sought: Sought): readonly T[] =>
  rows
    .map((row) => ({ row, near: nearness(row, sought) }))
    .toSorted((a, b) => b.near - a.near)
    .map(({ row }) => row);
