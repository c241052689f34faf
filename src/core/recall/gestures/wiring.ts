import type { Chain, ChainNode, Split } from "../../chains/chain";
import type { Clipping } from "../../chains/clipping";
import { withCopiedTargets, withoutLostTargets } from "../../chains/macros";
import {
  type Place,
  findList,
  findMisplaced,
  findNode,
  keysIn,
  listsIn,
  nodesIn,
  rekeyed,
  withoutNode,
} from "../../chains/tree";
import { type Result, fail, ok } from "../../result";
import type { Step } from "../steps";
import equal from "fast-deep-equal";
import { placeInStep } from "../steps/place";
import { type Hand, base, chainOf } from "./hand";
import { setMacros } from "./macros";

/** Puts a node in a place. */
export const putIn = (hand: Hand, node: ChainNode, place: Place): readonly Step[] => [
  { ...base(hand), kind: "placeNode", node: node.key, from: null, to: { node, ...placeInStep(place) } },
];

/** Where what is added goes: behind a node, last into a section; last of all where there is none. */
export function placeBehind(chain: Chain, node: ChainNode | null): Place {
  if (!node) return { within: null, after: chain.nodes.at(-1)?.key ?? null };
  if (node.type === "section") return { within: node.key, after: lastOf(node.nodes) };
  return { within: findNode(chain, node.key)?.place.within ?? null, after: node.key };
}

/** A place as it stands by now: last in its list where what it was behind is gone, last of all where its list is. */
function nearestPlace(chain: Chain, { within, after }: Place): Place {
  const list = findList(chain, within);
  if (!list) return { within: null, after: lastOf(chain.nodes) };
  const isThere = after === null || list.some(({ key }) => key === after);
  return { within, after: isThere ? after : lastOf(list) };
}

/** Puts a node in a place that was named a moment ago, or where that would be now. */
export const putInNear = (hand: Hand, node: ChainNode, place: Place): readonly Step[] =>
  putIn(hand, node, nearestPlace(chainOf(hand), place));

/** Puts copied nodes in a place, one behind the other, and their macros behind those of the chain. */
export function paste(hand: Hand, { nodes, macros }: Clipping, place: Place): readonly Step[] {
  let { after } = place;
  const steps = nodes.flatMap((node) => {
    const step = putIn(hand, node, { within: place.within, after });
    after = node.key;
    return step;
  });
  return [...steps, ...(macros.length > 0 ? setMacros(hand, [...chainOf(hand).macros, ...macros]) : [])];
}

/** Takes nodes out, each with all that it holds; macros lose what they aimed at in them. */
export function takeOut(hand: Hand, ...keys: readonly string[]): readonly Step[] {
  let chain = chainOf(hand);
  const steps = keys.flatMap((key): readonly Step[] => {
    // It may have gone with a group that held it.
    const found = findNode(chain, key);
    if (!found) return [];
    chain = withoutNode(chain, key);
    const from = { node: found.node, ...placeInStep(found.place) };
    return [{ ...base(hand), kind: "placeNode", node: key, from, to: null }];
  });
  const { macros, lost } = withoutLostTargets(chain);
  return [...(lost > 0 ? setMacros(hand, macros) : []), ...steps];
}

/** How many macro targets nodes take with them when they go. */
export const targetsLostWith = (chain: Chain, keys: readonly string[]): number =>
  withoutLostTargets(keys.reduce(withoutNode, chain)).lost;

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
  if (!beside) return placeOutside(chain, within, by);
  if (beside.type === "section" && node.type !== "section")
    return { within: beside.key, after: by > 0 ? null : lastOf(beside.nodes) };
  return { within, after: by > 0 ? beside.key : (siblings[at - 2]?.key ?? null) };
}

const lastOf = (nodes: readonly ChainNode[]): string | null => nodes.at(-1)?.key ?? null;

/** Right before or behind the section or split that a list belongs to; null at the top. */
function placeOutside(chain: Chain, within: string | null, by: 1 | -1): Place | null {
  const holder = nodesIn(chain.nodes).find((n) => listsIn(n).some((list) => list.key === within));
  const place = holder && findNode(chain, holder.key)?.place;
  return holder && place ? { within: place.within, after: by > 0 ? holder.key : place.after } : null;
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
