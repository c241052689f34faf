import type { Processor } from "../chains/chain";
import { type Content, isStrips } from "../presets/preset";
import { processorsIn, processorsOn } from "../presets/processors-in";
import { findModel } from "../processors/models";
import { type ParamSpec, type Value, positionOf } from "../units/param-spec";
import { isNoteLength } from "../units/note-length";
import { type Apart, type Point, Unions, joinAll, joinNear } from "./near-join";

/** What is compared: a preset with its content's fingerprint. */
export interface Copyable {
  readonly id: string;
  readonly content: Content;
  readonly fingerprint: string;
}

/** Presets that are set the same, or nearly. */
export interface NearCopies {
  readonly ids: readonly string[];
  /** How far the two of it that are furthest from each other are apart, 0 to 1; 0 for the same fingerprint. */
  readonly distance: number;
}

/** Only what has the same plugins in the same order, on the same kinds of strips, in a preset of the same kind, can be nearly the same. */
function outlineOf(content: Content): string {
  const modelsOf = (processors: readonly Processor[]) => processors.map((p) => p.model).join(" ");
  if (!isStrips(content)) return `${content.kind} ${modelsOf(processorsIn(content))}`;
  return [content.kind, ...content.strips.map((strip) => `${strip.kind} ${modelsOf(processorsOn(strip))}`)].join("\n");
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

/** A parameter, and what must be on for it to count. */
interface Ruled {
  readonly spec: ParamSpec;
  readonly switches: readonly string[];
}

/** By model; read once, for a library of many. */
const RULED = new Map<string, readonly Ruled[]>();

function paramsOf(model: string): readonly Ruled[] {
  const known = RULED.get(model);
  if (known) return known;
  const params = (findModel(model)?.params ?? []).map((spec) => {
    const [unit, name = ""] = spec.id.split(".");
    return { spec, switches: SWITCHES.includes(name) ? [] : SWITCHES.map((one) => `${unit}.${one}`) };
  });
  RULED.set(model, params);
  return params;
}

/** False for a value of a band or a tap that is switched off. */
const isHeard = ({ values }: Processor, { switches }: Ruled): boolean => switches.every((one) => values[one] !== 0);

function processorsApart(a: Processor, b: Processor): number {
  const heard = paramsOf(a.model).filter((param) => isHeard(a, param) || isHeard(b, param));
  const ways = heard.map(({ spec }) => apart(spec, a.values[spec.id], b.values[spec.id]));
  return Math.max(a.enabled === b.enabled ? 0 : 1, ...ways);
}

/**
 * How far two contents are apart: the longest way between two of their values along the ruler of their parameter, 0 to 1.
 * Bands and taps that are off in both do not count. Infinity where they do not have the same plugins in the same order.
 */
export function distanceBetween(a: Content, b: Content): number {
  if (outlineOf(a) !== outlineOf(b)) return Number.POSITIVE_INFINITY;
  const others = processorsIn(b);
  return Math.max(0, ...processorsIn(a).map((processor, at) => processorsApart(processor, others[at]!)));
}

/** What of a preset is compared with others, in little room: the preset itself need not be kept. */
export interface Nearness {
  readonly id: string;
  readonly fingerprint: string;
  /** The plugins in their order. */
  readonly outline: string;
  /** All that is the same or not: what is on, choices, note lengths. Where it differs the distance is 1. */
  readonly exact: string;
  /** Where all other values stand on their rulers; those of bands and taps that are off stand at 0. */
  readonly point: Point;
}

/** null for what has no plugins: there is nothing to compare it by. */
export function nearnessOf({ id, content, fingerprint }: Copyable): Nearness | null {
  const processors = processorsIn(content);
  if (processors.length === 0) return null;
  const exact: string[] = [];
  const point: number[] = [];
  for (const processor of processors) {
    exact.push(processor.enabled ? "on" : "off");
    for (const param of paramsOf(processor.model)) {
      const { spec } = param;
      const value = processor.values[spec.id];
      if (!isHeard(processor, param)) {
        exact.push("-");
        point.push(0);
      } else if (value === undefined || isNoteLength(value) || spec.choices) exact.push(JSON.stringify(value) ?? "");
      else {
        exact.push("#");
        point.push(positionOf(spec, value));
      }
    }
  }
  return { id, fingerprint, outline: outlineOf(content), exact: exact.join(" "), point: Float64Array.from(point) };
}

/** The same by something, each list in the order in which they came. */
function groupBy<T>(list: Iterable<T>, keyOf: (one: T) => string): readonly T[][] {
  const groups = new Map<string, T[]>();
  for (const one of list) {
    const group = groups.get(keyOf(one));
    if (group) group.push(one);
    else groups.set(keyOf(one), [one]);
  }
  return [...groups.values()];
}

/**
 * Groups of presets of which each is within `within` of another of its group. The largest stand first; presets that have no
 * near copy are left out. Those that stand together in one list of `apart` are no near copies of each other. `onProgress`
 * hears what share of them has been compared.
 */
export function findNearCopies(
  presets: readonly Nearness[],
  within: number,
  apart: readonly (readonly string[])[] = [],
  onProgress: (share: number) => void = () => undefined,
): readonly NearCopies[] {
  const numbers = new Map(presets.map((preset, n) => [preset.id, n]));
  const all = { within, unions: new Unions(presets.length), apart: apartness(apart, numbers) };
  const numbersOf = (some: readonly Nearness[]) => some.map((preset) => numbers.get(preset.id)!);
  let done = 0;
  const onJoined = (count: number) => onProgress((done += count) / presets.length);
  for (const outline of groupBy(presets, (p) => p.outline)) {
    for (const same of groupBy(outline, (p) => p.fingerprint)) joinAll(numbersOf(same), all.unions, all.apart);
    // Nothing is further away than a switch.
    if (within >= 1) joinAll(numbersOf(outline), all.unions, all.apart);
    else
      for (const alike of groupBy(outline, (p) => p.exact))
        joinNear(
          alike.map((p) => p.point),
          numbersOf(alike),
          { ...all, onJoined },
        );
  }
  return groupBy(presets, (p) => String(all.unions.of(numbers.get(p.id)!)))
    .filter((group) => group.length > 1)
    .map((group) => ({ ids: group.map((p) => p.id), distance: widthOf(group) }))
    .toSorted((a, b) => b.ids.length - a.ids.length || a.distance - b.distance);
}

/** The longest way along one ruler between any two of a group. */
function widthOf(group: readonly Nearness[]): number {
  const [first, ...others] = group as [Nearness, ...Nearness[]];
  if (others.every((p) => p.fingerprint === first.fingerprint)) return 0;
  if (others.some((p) => p.exact !== first.exact)) return 1;
  let width = 0;
  for (let axis = 0; axis < first.point.length; axis++) {
    let [low, high] = [first.point[axis]!, first.point[axis]!];
    for (const { point } of others) {
      low = Math.min(low, point[axis]!);
      high = Math.max(high, point[axis]!);
    }
    width = Math.max(width, high - low);
  }
  return width;
}

/** Whether two were said to stay beside each other, by their numbers. */
function apartness(apart: readonly (readonly string[])[], numbers: ReadonlyMap<string, number>): Apart {
  const groupsOf = new Map<number, Set<number>>();
  for (const [at, ids] of apart.entries())
    for (const id of ids) {
      const number = numbers.get(id);
      if (number !== undefined) groupsOf.set(number, (groupsOf.get(number) ?? new Set()).add(at));
    }
  return {
    has: (one) => groupsOf.has(one),
    are: (a, b) => {
      const [of, others] = [groupsOf.get(a), groupsOf.get(b)];
      return of !== undefined && others !== undefined && [...of].some((at) => others.has(at));
    },
  };
}
