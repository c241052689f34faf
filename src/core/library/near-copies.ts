import { type Processor, processorsOf } from "../chains/chain";
import { type Content, chainOf } from "../presets/preset";
import { findModel } from "../processors/models";
import { type ParamSpec, type Value, positionOf } from "../processors/param-spec";
import { isNoteLength } from "../units/note-length";

/** What is compared: a preset with its content's fingerprint. */
export interface Copyable {
  readonly id: string;
  readonly content: Content;
  readonly fingerprint: string;
}

/** Presets that are set the same, or nearly. */
export interface NearCopies {
  readonly ids: readonly string[];
  /** The furthest two neighbours of it are apart, 0 to 1; 0 for the same fingerprint. */
  readonly distance: number;
}

/** Only what has the same plugins in the same order, in a preset of the same kind, can be nearly the same. */
function outlineOf(content: Content): string {
  const models = processorsOf(chainOf(content)).map((p) => p.model);
  return `${content.kind} ${models.join(" ")}`;
}

/** How far two values of a parameter are apart, 0 to 1 along its ruler; a choice is the same or not. */
function apart(spec: ParamSpec, a: Value | undefined, b: Value | undefined): number {
  if (a === undefined || b === undefined || isNoteLength(a) || isNoteLength(b)) return equal(a, b) ? 0 : 1;
  if (spec.choices) return a === b ? 0 : 1;
  return Math.abs(positionOf(spec, a) - positionOf(spec, b));
}

const equal = (a: Value | undefined, b: Value | undefined): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What a band or a tap is switched on by, beside its other values. */
const SWITCHES = ["used", "on"];

/** False for a value of a band or a tap that is switched off. */
function isHeard({ values }: Processor, id: string): boolean {
  const [unit, name = ""] = id.split(".");
  return SWITCHES.includes(name) || SWITCHES.every((one) => values[`${unit}.${one}`] !== 0);
}

function processorsApart(a: Processor, b: Processor): number {
  const heard = (findModel(a.model)?.params ?? []).filter(({ id }) => isHeard(a, id) || isHeard(b, id));
  const ways = heard.map((spec) => apart(spec, a.values[spec.id], b.values[spec.id]));
  return Math.max(a.enabled === b.enabled ? 0 : 1, ...ways);
}

/**
 * How far two contents are apart: the longest way between two of their values along the ruler of their parameter, 0 to 1.
 * Bands and taps that are off in both do not count. Infinity where they do not have the same plugins in the same order.
 */
export function distanceBetween(a: Content, b: Content): number {
  if (outlineOf(a) !== outlineOf(b)) return Number.POSITIVE_INFINITY;
  const others = processorsOf(chainOf(b));
  return Math.max(0, ...processorsOf(chainOf(a)).map((processor, at) => processorsApart(processor, others[at]!)));
}

/**
 * Groups of presets of which each is within `within` of another of its group. The largest stand first; presets that have no
 * near copy are left out. Those that stand together in one list of `apart` are no near copies of each other.
 */
export function findNearCopies(
  presets: readonly Copyable[],
  within: number,
  apart: readonly (readonly string[])[] = [],
): readonly NearCopies[] {
  const areApart = apartness(apart);
  const buckets = new Map<string, Copyable[]>();
  for (const preset of presets) {
    const outline = outlineOf(preset.content);
    // Without plugins there is nothing to compare by.
    if (processorsOf(chainOf(preset.content)).length === 0) continue;
    buckets.set(outline, [...(buckets.get(outline) ?? []), preset]);
  }
  return [...buckets.values()]
    .flatMap((bucket) => groupsIn(bucket, within, areApart))
    .toSorted((a, b) => b.ids.length - a.ids.length || a.distance - b.distance);
}

/** Whether two were said to stay beside each other. */
function apartness(apart: readonly (readonly string[])[]): (a: string, b: string) => boolean {
  const groupsOf = new Map<string, Set<number>>();
  for (const [at, ids] of apart.entries())
    for (const id of ids) groupsOf.set(id, (groupsOf.get(id) ?? new Set()).add(at));
  return (a, b) => {
    const [of, others] = [groupsOf.get(a), groupsOf.get(b)];
    return of !== undefined && others !== undefined && [...of].some((at) => others.has(at));
  };
}

type Apart = ReturnType<typeof apartness>;

function groupsIn(bucket: readonly Copyable[], within: number, areApart: Apart): readonly NearCopies[] {
  const groups: { members: Copyable[]; distance: number }[] = [];
  for (const preset of bucket) {
    const joined = { members: [preset], distance: 0 };
    for (const group of [...groups]) {
      const nearest = Math.min(
        ...group.members.map((m) => {
          if (areApart(m.id, preset.id)) return Number.POSITIVE_INFINITY;
          return m.fingerprint === preset.fingerprint ? 0 : distanceBetween(m.content, preset.content);
        }),
      );
      if (nearest > within) continue;
      joined.members.push(...group.members);
      joined.distance = Math.max(joined.distance, group.distance, nearest);
      groups.splice(groups.indexOf(group), 1);
    }
    groups.push(joined);
  }
  return groups
    .filter((group) => group.members.length > 1)
    .map(({ members, distance }) => ({ ids: members.map((m) => m.id), distance }));
}
