import equal from "fast-deep-equal";
import type { BeatsPerMinute } from "../units/quantities";
import { findSpec, heardValue } from "../processors/model";
import { findModel } from "../processors/models";
import { type ParamSpec, type Value, clampTo, positionOf, valueAt } from "../units/param-spec";
import { isNoteLength } from "../units/note-length";
import type { Chain, ChainNode, Lane, Macro, MacroTarget } from "./chain";
import { LANE_LEVEL, panSpecOf } from "./params";
import { findLane, findNode, nodesIn } from "./tree";

/*
 * A macro moves several values at once, each from one end to another, which may run backwards. The values are the truth:
 * a macro stands where they are, and moving it writes them.
 */

/** On and off, as a target's ends are written. */
const ENABLED: ParamSpec = {
  id: "enabled",
  name: "On",
  unit: "",
  min: 0,
  max: 1,
  default: 1,
  taper: "linear",
  choices: [
    { value: 0, label: "Off" },
    { value: 1, label: "On" },
  ],
};

const laneSpecs = (lane: Lane): Readonly<Record<string, ParamSpec>> => ({
  enabled: ENABLED,
  level: LANE_LEVEL,
  pan: panSpecOf(lane),
});

const aimOf = (chain: Chain, key: string): ChainNode | Lane | null =>
  findNode(chain, key)?.node ?? findLane(chain, key);

/** What a target moves: its description, null where it is not there or cannot be moved. */
export function findTargetSpec(chain: Chain, { node, param }: Pick<MacroTarget, "node" | "param">): ParamSpec | null {
  const aim = aimOf(chain, node);
  if (!aim) return null;
  if (!("type" in aim)) return laneSpecs(aim)[param] ?? null;
  if (param === "enabled") return aim.type === "split" ? null : ENABLED;
  const model = aim.type === "processor" ? findModel(aim.model) : null;
  return model ? findSpec(model, param) : null;
}

/** The value that a target stands at now; note lengths as they stand. */
export function targetValue(chain: Chain, { node, param }: Pick<MacroTarget, "node" | "param">): Value | null {
  const aim = aimOf(chain, node);
  if (!aim) return null;
  if (param === "enabled") return "enabled" in aim ? Number(aim.enabled) : null;
  if (!("type" in aim)) return param === "level" ? aim.level : param === "pan" ? aim.pan : null;
  return aim.type === "processor" ? (aim.values[param] ?? null) : null;
}

/** What is wrong with a target, as a sentence; null where nothing is. */
export function findTargetProblem(chain: Chain, target: MacroTarget): string | null {
  const spec = findTargetSpec(chain, target);
  if (!spec) return `The macro is aimed at “${target.param}” of “${target.node}”, which is not in this chain.`;
  const out = [target.from, target.to].find((end) => end < spec.min || end > spec.max);
  return out === undefined ? null : `${spec.name} goes from ${spec.min} to ${spec.max}; ${out} is outside.`;
}

/** A bend of 1 leaves the beginning late and steep, −1 early; 0 is straight. */
const exponentOf = (bend: number): number => 4 ** bend;

/** What a target is set to at a place of its macro, 0 to 1. Laws: 0 gives `from`, 1 gives `to`. */
export function valueAtPlace(spec: ParamSpec, { from, to, bend }: MacroTarget, place: number): number {
  const share = Math.min(1, Math.max(0, place)) ** exponentOf(bend);
  if (spec.choices) return share < 0.5 ? from : to;
  if (share === 0) return from;
  if (share === 1) return to;
  const [begin, end] = [positionOf(spec, from), positionOf(spec, to)];
  return Number(valueAt(spec, begin + share * (end - begin)).toPrecision(6));
}

/** The place at which a macro gives a value; null where it gives none such, or all. */
export function placeOfValue(spec: ParamSpec, { from, to, bend }: MacroTarget, value: Value): number | null {
  if (isNoteLength(value) || from === to) return null;
  if (spec.choices) return value === to ? 1 : value === from ? 0 : null;
  const [begin, end] = [positionOf(spec, from), positionOf(spec, to)];
  const share = (positionOf(spec, value) - begin) / (end - begin);
  return share < -1e-6 || share > 1 + 1e-6 ? null : Math.min(1, Math.max(0, share)) ** (1 / exponentOf(bend));
}

/** Where an axis stands, by the first of its targets that tells; null where none does. */
export function placeOfAxis(chain: Chain, targets: readonly MacroTarget[]): number | null {
  for (const target of targets) {
    const spec = findTargetSpec(chain, target);
    const value = targetValue(chain, target);
    const place = spec && value !== null ? placeOfValue(spec, target, value) : null;
    if (place !== null) return place;
  }
  return null;
}

/**
 * What an axis takes on by a touch: the value as it stands, on its way to the end that is further off. Law: where the axis stands, it
 * stands too, so that nothing jumps when the macro is moved on. Null where the axis has it already, or it cannot be moved.
 */
export function learnedTarget(
  chain: Chain,
  targets: readonly MacroTarget[],
  touched: Pick<MacroTarget, "node" | "param">,
  tempo: BeatsPerMinute,
): MacroTarget | null {
  const spec = findTargetSpec(chain, touched);
  const value = targetValue(chain, touched);
  if (!spec || value === null) return null;
  if (targets.some(({ node, param }) => node === touched.node && param === touched.param)) return null;
  const place = placeOfAxis(chain, targets) ?? 0;
  return { ...touched, ...endsAround(spec, clampTo(spec, heardValue(spec, value, tempo)), place), bend: 0 };
}

/** Ends as far apart as the parameter allows, between which a value lies at a place. */
function endsAround(spec: ParamSpec, now: number, place: number): Pick<MacroTarget, "from" | "to"> {
  if (spec.choices) {
    const other = spec.choices.findLast((choice) => choice.value !== now)?.value ?? now;
    return place < 0.5 ? { from: now, to: other } : { from: other, to: now };
  }
  const at = positionOf(spec, now);
  /** How far apart they may be, where there is room on either side. */
  const width = (below: number, above: number) =>
    Math.min(place > 0 ? below / place : Infinity, place < 1 ? above / (1 - place) : Infinity);
  const [up, down] = [width(at, 1 - at), width(1 - at, at)];
  const reach = up >= down ? up : -down;
  // In the middle of a macro a value at its very end has no room on one side: it begins there, and jumps.
  if (reach === 0) return { from: now, to: at < 0.5 ? spec.max : spec.min };
  const end = (position: number) => Number(valueAt(spec, Math.min(1, Math.max(0, position))).toPrecision(6));
  return {
    from: place === 0 ? now : end(at - place * reach),
    to: place === 1 ? now : end(at + (1 - place) * reach),
  };
}

/** The names of the macros that move a value. */
export const macrosMoving = (chain: Chain, node: string, param: string): readonly string[] =>
  chain.macros
    .filter(({ axes }) => axes.some((targets) => targets.some((t) => t.node === node && t.param === param)))
    .map(({ name }) => name);

export interface Moved {
  readonly target: MacroTarget;
  readonly from: Value;
  readonly to: number;
}

/** All that changes when an axis is moved to a place. */
export const movesTo = (chain: Chain, targets: readonly MacroTarget[], place: number): readonly Moved[] =>
  targets.flatMap((target) => {
    const spec = findTargetSpec(chain, target);
    const from = targetValue(chain, target);
    if (!spec || from === null) return [];
    const to = valueAtPlace(spec, target, place);
    return equal(from, to) ? [] : [{ target, from, to }];
  });

/** The macros without the targets that are gone, or that another plugin under the same key cannot follow, and how many those were. */
export function withoutLostTargets(chain: Chain): { readonly macros: readonly Macro[]; readonly lost: number } {
  let lost = 0;
  const macros = chain.macros.map((macro): Macro => {
    const axes = macro.axes.map((targets) => {
      const kept = targets.filter((target) => findTargetProblem(chain, target) === null);
      lost += targets.length - kept.length;
      return kept.length === targets.length ? targets : kept;
    });
    return axes.every((targets, at) => targets === macro.axes[at]) ? macro : { ...macro, axes };
  });
  return { macros: lost === 0 ? chain.macros : macros, lost };
}

/** A macro that aims at other nodes, where what it aimed at has another key by now. */
export const retargeted = (macro: Macro, keys: ReadonlyMap<string, string>): Macro => ({
  ...macro,
  axes: macro.axes.map((targets) =>
    targets.map((target) => ({ ...target, node: keys.get(target.node) ?? target.node })),
  ),
});

/** The macros with a target for each copy beside its original's. */
export const withCopiedTargets = (macros: readonly Macro[], copies: ReadonlyMap<string, string>): readonly Macro[] =>
  macros.map((macro) => {
    const axes = macro.axes.map((targets) => [
      ...targets,
      ...targets.flatMap((target) => {
        const copy = copies.get(target.node);
        return copy === undefined ? [] : [{ ...target, node: copy }];
      }),
    ]);
    return axes.every((targets, at) => targets.length === macro.axes[at]!.length) ? macro : { ...macro, axes };
  });

/** One switch for every plugin of a chain. */
export const switchForAll = (chain: Chain, key: string, name: string): Macro => ({
  key,
  name,
  style: "switch",
  axes: [
    nodesIn(chain.nodes)
      .filter((node) => node.type === "processor")
      .map((node) => ({ node: node.key, param: "enabled", from: 0, to: 1, bend: 0 })),
  ],
});
