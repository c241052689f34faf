import type { Chain, ChainNode, Lane, Section, Split } from "../../chains/chain";
import { withoutLostTargets } from "../../chains/macros";
import { findList, findMisplaced, findNode, listsIn, mapNode, withNode, withoutNode } from "../../chains/tree";
import { type Result, fail, ok } from "../../result";
import type { Step } from "../steps";
import { type Hand, chainOf } from "./hand";
import { replaceInserts } from "./whole";

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
    panLaw: "pan",
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
