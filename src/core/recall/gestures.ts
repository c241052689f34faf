import equal from "fast-deep-equal";
import {
  type Chain,
  type ChainNode,
  EMPTY_CHAIN,
  type From,
  type Lane,
  type Macro,
  type MacroTarget,
  type Processor,
  type Section,
  type Split,
  findProcessor,
} from "../chains/chain";
import { movesTo, withCopiedTargets, withoutLostTargets } from "../chains/macros";
import {
  type Place,
  findLane,
  findList,
  findMisplaced,
  findNode,
  keysIn,
  listsIn,
  mapNode,
  nodesIn,
  rekeyed,
  withNode,
  withoutNode,
} from "../chains/tree";
import type { ParamId, Value } from "../processors/param-spec";
import { type Result, fail, ok } from "../result";
import { type Strip, chainAt } from "../strips/strip";
import type { Step } from "./step";

/** One movement of the hand on a chain of a strip, as steps. `mint` makes ids of steps and keys of nodes. */
export interface Hand {
  readonly strip: Strip;
  readonly mint: () => string;
  /** The layer of an instrument whose effects are in hand; the strip's inserts where there is none. */
  readonly layer?: string | undefined;
}

const chainOf = ({ strip, layer }: Hand): Chain =>
  chainAt(strip, layer === undefined ? { part: "inserts" } : { part: "effects", layer }) ?? EMPTY_CHAIN;

const base = ({ strip, mint, layer }: Hand) => ({
  id: mint(),
  cell:
    layer === undefined
      ? { strip: strip.id, part: "inserts" as const }
      : { strip: strip.id, part: "effects" as const, layer },
  needs: [],
});

/** Sets values of one processor; what is the same already makes no step. */
export function turn(hand: Hand, node: string, values: Readonly<Record<ParamId, Value>>): readonly Step[] {
  const processor = findProcessor(chainOf(hand), node);
  return Object.entries(values).flatMap(([param, to]): Step[] => {
    const from = processor?.values[param];
    return from === undefined || equal(from, to) ? [] : [{ ...base(hand), kind: "setValue", node, param, from, to }];
  });
}

/** Switches plugins, sections and lanes on or off, all at once. */
export const switchOn = (hand: Hand, keys: readonly string[], to: boolean): readonly Step[] =>
  keys.flatMap((node): Step[] => {
    const chain = chainOf(hand);
    const thing = findNode(chain, node)?.node ?? findLane(chain, node);
    return thing && "enabled" in thing && thing.enabled !== to
      ? [{ ...base(hand), kind: "setEnabled", node, from: thing.enabled, to }]
      : [];
  });

/** null takes the name away, so that the model's shows. A section keeps its name. */
export function callIt(hand: Hand, key: string, to: string | null): readonly Step[] {
  const node = findNode(chainOf(hand), key)?.node;
  if (!node || node.type === "split") return [];
  const from = node.type === "section" ? node.name : (node.label ?? null);
  if (from === to || (node.type === "section" && to === null)) return [];
  return [{ ...base(hand), kind: "setLabel", node: key, from, to }];
}

export interface LaneSettings {
  readonly name: string;
  readonly enabled: boolean;
  readonly level: number;
  readonly pan: number;
}

export function setLane(hand: Hand, key: string, settings: Partial<LaneSettings>): readonly Step[] {
  const lane = findLane(chainOf(hand), key);
  if (!lane) return [];
  const { name, enabled, level, pan } = lane;
  const from = { name, enabled, level, pan };
  const to = { ...from, ...settings };
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setLane", node: key, from, to }];
}

export function keyBy(hand: Hand, node: string, to: Processor["keyInput"] | null): readonly Step[] {
  const processor = findProcessor(chainOf(hand), node);
  const from = processor?.keyInput ?? null;
  const wanted = to ?? null;
  return !processor || equal(from, wanted) ? [] : [{ ...base(hand), kind: "setKeyInput", node, from, to: wanted }];
}

export function setMacros(hand: Hand, to: readonly Macro[]): readonly Step[] {
  const from = chainOf(hand).macros;
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setMacros", from, to: [...to] }];
}

/** Moves one axis of a macro to a place, 0 to 1: its targets' values are written. */
export function moveMacro(hand: Hand, key: string, places: readonly (number | null)[]): readonly Step[] {
  const chain = chainOf(hand);
  const macro = chain.macros.find((m) => m.key === key);
  return (macro?.axes ?? []).flatMap((targets, axis) => {
    const place = places[axis];
    return place === null || place === undefined
      ? []
      : movesTo(chain, targets, place).flatMap(({ target, to }) => moveTarget(hand, target, to));
  });
}

function moveTarget(hand: Hand, { node, param }: MacroTarget, to: number): readonly Step[] {
  if (param === "enabled") return switchOn(hand, [node], to === 1);
  if (findLane(chainOf(hand), node)) return setLane(hand, node, { [param]: to });
  return turn(hand, node, { [param]: to });
}

const placeInStep = ({ after, within }: Place) => ({ after, ...(within === null ? {} : { within }) });

/** Puts a node in a place. */
export const putIn = (hand: Hand, node: ChainNode, place: Place): readonly Step[] => [
  { ...base(hand), kind: "placeNode", node: node.key, from: null, to: { node, ...placeInStep(place) } },
];

/** Takes a node out, with all that it holds; macros lose what they aimed at in it. */
export function takeOut(hand: Hand, key: string): readonly Step[] {
  const chain = chainOf(hand);
  const found = findNode(chain, key);
  if (!found) return [];
  const { macros, lost } = withoutLostTargets(withoutNode(chain, key));
  return [
    ...(lost > 0 ? setMacros(hand, macros) : []),
    {
      ...base(hand),
      kind: "placeNode",
      node: key,
      from: { node: found.node, ...placeInStep(found.place) },
      to: null,
    },
  ];
}

/** How many macro targets a node takes with it when it goes. */
export const targetsLostWith = (chain: Chain, key: string): number => withoutLostTargets(withoutNode(chain, key)).lost;

/** A copy right behind a node; macros aim at it as they do at the original. */
export function duplicate(hand: Hand, key: string): { readonly steps: readonly Step[]; readonly key: string } | null {
  const chain = chainOf(hand);
  const found = findNode(chain, key);
  if (!found) return null;
  const { node, keys } = rekeyed(found.node, hand.mint);
  const place = { ...found.place, after: key };
  const macros = withCopiedTargets(chain.macros, keys);
  return { steps: [...putIn(hand, node, place), ...setMacros(hand, macros)], key: node.key };
}

/** Moves a node to a place; nothing where it stands there, and the reason where it may not. */
export function moveTo(hand: Hand, key: string, place: Place): Result<readonly Step[], string> {
  const chain = chainOf(hand);
  const found = findNode(chain, key);
  if (!found) return ok([]);
  const keys = keysIn(found.node);
  if (place.after === key || (place.within !== null && keys.includes(place.within))) return ok([]);
  if (equal(found.place, place)) return ok([]);
  const misplaced = findMisplaced(withoutNode(chain, key), found.node, place.within);
  if (misplaced) return fail(misplaced);
  return ok([{ ...base(hand), kind: "moveNode", node: key, from: placeInStep(found.place), to: placeInStep(place) }]);
}

/**
 * One place to the left (−1) or right (1). At the end of a lane or section it steps out of it; a section beside it is
 * stepped into; a split is stepped over.
 */
export function move(hand: Hand, key: string, by: 1 | -1): readonly Step[] {
  const chain = chainOf(hand);
  const found = findNode(chain, key);
  const siblings = found && findList(chain, found.place.within);
  if (!found || !siblings) return [];
  const at = siblings.indexOf(found.node);
  const to = placeBeside({ chain, siblings, at, within: found.place.within }, found.node, by);
  const steps = to && moveTo(hand, key, to);
  return steps?.ok ? steps.value : [];
}

interface Standing {
  readonly chain: Chain;
  readonly siblings: readonly ChainNode[];
  readonly at: number;
  readonly within: string | null;
}

function placeBeside({ chain, siblings, at, within }: Standing, node: ChainNode, by: 1 | -1): Place | null {
  const beside = siblings[at + by];
  if (beside?.type === "section" && node.type !== "section")
    return { within: beside.key, after: by > 0 ? null : (beside.nodes.at(-1)?.key ?? null) };
  if (beside) return { within, after: by > 0 ? beside.key : (siblings[at - 2]?.key ?? null) };
  const holder = nodesIn(chain.nodes).find((n) => listsIn(n).some((list) => list.key === within));
  const outside = holder && findNode(chain, holder.key)?.place;
  return holder && outside ? { within: outside.within, after: by > 0 ? holder.key : outside.after } : null;
}

/** To the lane above (−1) or below (1) of the same split, at about the same place. */
export function moveAcross(hand: Hand, key: string, by: 1 | -1): readonly Step[] {
  const chain = chainOf(hand);
  const found = findNode(chain, key);
  const split = nodesIn(chain.nodes).find(
    (n): n is Split => n.type === "split" && n.lanes.some((lane) => lane.key === found?.place.within),
  );
  const at = split?.lanes.findIndex((lane) => lane.key === found?.place.within) ?? -1;
  const lane = split?.lanes[at + by];
  if (!found || !split || !lane) return [];
  const place = split.lanes[at]!.nodes.findIndex((n) => n.key === key);
  const steps = moveTo(hand, key, {
    within: lane.key,
    after: lane.nodes[place - 1]?.key ?? lane.nodes.at(-1)?.key ?? null,
  });
  return steps.ok ? steps.value : [];
}

/** One node in the place of another of the same key. */
export function replaceNode(hand: Hand, to: ChainNode): readonly Step[] {
  const from = findNode(chainOf(hand), to.key)?.node;
  return !from || equal(from, to) ? [] : [{ ...base(hand), kind: "setNode", node: to.key, from, to }];
}

/** Other lanes for a split; macros lose what they aimed at in a lane that is gone. */
export function replaceSplit(hand: Hand, to: Split): readonly Step[] {
  const chain = chainOf(hand);
  const after = mapNode(chain, to.key, () => to);
  const { macros } = withoutLostTargets(after);
  return replaceInserts(hand, { ...after, macros: [...macros] });
}

/** Lanes around nodes that stand beside each other: they become the first lane, the second is the sound as it is. */
export function splitAround(hand: Hand, keys: readonly string[], by: Split["by"]): GroupResult {
  const lane = (name: string, nodes: readonly ChainNode[]): Lane => ({
    key: hand.mint(),
    name,
    enabled: true,
    level: 0,
    pan: 0,
    nodes: [...nodes] as Lane["nodes"],
  });
  return groupUp(hand, keys, (nodes) => ({
    type: "split",
    key: hand.mint(),
    by,
    lanes: by.way === "bands" ? [lane("Low", nodes), lane("High", [])] : [lane("Lane 1", nodes), lane("Lane 2", [])],
  }));
}

/** A section around nodes that stand beside each other at the top of the chain. */
export const sectionAround = (hand: Hand, keys: readonly string[], name: string): GroupResult =>
  groupUp(hand, keys, (nodes) => ({
    type: "section",
    key: hand.mint(),
    name,
    enabled: true,
    nodes: [...nodes] as Section["nodes"],
  }));

export type GroupResult = Result<{ readonly steps: readonly Step[]; readonly key: string }, string>;

/** Takes a stretch of nodes out of its list and puts what is made of them in their place. */
function groupUp(hand: Hand, keys: readonly string[], make: (nodes: readonly ChainNode[]) => ChainNode): GroupResult {
  const chain = chainOf(hand);
  const found = keys.map((key) => findNode(chain, key)).filter((f) => f !== null);
  const within = found[0]?.place.within ?? null;
  const siblings = findList(chain, within) ?? [];
  const ats = found.map((f) => siblings.indexOf(f.node)).toSorted((a, b) => a - b);
  if (ats.includes(-1)) return fail("Choose plugins that stand in the same part of the chain.");
  if (ats.some((at, n) => n > 0 && at !== ats[n - 1]! + 1)) return fail("Choose plugins that stand side by side.");
  const nodes = ats.map((at) => siblings[at]!);
  const group = make(nodes);
  const last = ats.at(-1);
  const rest = nodes.reduce((c, node) => withoutNode(c, node.key), chain);
  const misplaced = findMisplaced(rest, group, within);
  if (misplaced) return fail(`${misplaced[0]!.toUpperCase()}${misplaced.slice(1)}`);
  const after = last === undefined ? (siblings.at(-1)?.key ?? null) : (siblings[ats[0]! - 1]?.key ?? null);
  return ok({ steps: changeWiring(hand, withNode(rest, group, { within, after })), key: group.key });
}

/** What a section or a split's lanes hold, in its place. */
export function dissolve(hand: Hand, key: string): readonly Step[] {
  const chain = chainOf(hand);
  const found = findNode(chain, key);
  if (!found || found.node.type === "processor") return [];
  const inner = listsIn(found.node).flatMap((list) => list.nodes);
  let to = withoutNode(chain, key);
  let { after } = found.place;
  for (const node of inner) {
    to = withNode(to, node, { within: found.place.within, after });
    after = node.key;
  }
  return changeWiring(hand, { ...to, macros: [...withoutLostTargets(to).macros] });
}

/** The whole chain in one step: for changes of wiring that touch many nodes. */
const changeWiring = (hand: Hand, to: Chain): readonly Step[] => replaceInserts(hand, to);

export function replaceInserts(hand: Hand, to: Chain): readonly Step[] {
  const from = chainOf(hand);
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setInserts", from, to }];
}

/** The chain goes by a preset's name from now on. */
export function follow(hand: Hand, to: From): readonly Step[] {
  const from = chainOf(hand).from ?? null;
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setFrom", from, to }];
}
