import equal from "fast-deep-equal";
import type { Chain, ChainNode, From, Processor } from "../chains/chain";
import { findProcessor } from "../chains/chain";
import type { ParamId, Value } from "../processors/param-spec";
import type { Strip } from "../strips/strip";
import type { Step } from "./step";

/** One movement of the hand on a strip's inserts, as steps. `mint` makes ids of steps. */
export interface Hand {
  readonly strip: Strip;
  readonly mint: () => string;
}

const base = ({ strip, mint }: Hand) => ({
  id: mint(),
  cell: { strip: strip.id, part: "inserts" as const },
  needs: [],
});

/** Sets values of one processor; what is the same already makes no step. */
export function turn(hand: Hand, node: string, values: Readonly<Record<ParamId, Value>>): readonly Step[] {
  const processor = findProcessor(hand.strip.inserts, node);
  return Object.entries(values).flatMap(([param, to]): Step[] => {
    const from = processor?.values[param];
    return from === undefined || equal(from, to) ? [] : [{ ...base(hand), kind: "setValue", node, param, from, to }];
  });
}

export function switchOn(hand: Hand, node: string, to: boolean): readonly Step[] {
  const from = findProcessor(hand.strip.inserts, node)?.enabled;
  return from === undefined || from === to ? [] : [{ ...base(hand), kind: "setEnabled", node, from, to }];
}

/** null takes the name away, so that the model's shows. */
export function callIt(hand: Hand, node: string, to: string | null): readonly Step[] {
  const processor = findProcessor(hand.strip.inserts, node);
  const from = processor?.label ?? null;
  return !processor || from === to ? [] : [{ ...base(hand), kind: "setLabel", node, from, to }];
}

const before = ({ nodes }: Chain, at: number): string | null => nodes[at - 1]?.key ?? null;

/** Puts a processor behind another; first where `after` is null. */
export const putIn = (hand: Hand, node: ChainNode, after: string | null): readonly Step[] => [
  { ...base(hand), kind: "placeNode", node: node.key, from: null, to: { node, after } },
];

export function takeOut(hand: Hand, key: string): readonly Step[] {
  const { inserts } = hand.strip;
  const at = inserts.nodes.findIndex((n) => n.key === key);
  const node = inserts.nodes[at];
  return node
    ? [{ ...base(hand), kind: "placeNode", node: key, from: { node, after: before(inserts, at) }, to: null }]
    : [];
}

/** One place to the left (−1) or right (1); nothing at the ends. */
export function move(hand: Hand, key: string, by: 1 | -1): readonly Step[] {
  const { inserts } = hand.strip;
  const at = inserts.nodes.findIndex((n) => n.key === key);
  const others = inserts.nodes.filter((n) => n.key !== key);
  const to = at + by;
  if (at < 0 || to < 0 || to >= inserts.nodes.length) return [];
  return [
    {
      ...base(hand),
      kind: "moveNode",
      node: key,
      from: { after: before(inserts, at) },
      to: { after: others[to - 1]?.key ?? null },
    },
  ];
}

export function replaceInserts(hand: Hand, to: Chain): readonly Step[] {
  const from = hand.strip.inserts;
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setInserts", from, to }];
}

/** The chain goes by a preset's name from now on. */
export function follow(hand: Hand, to: From): readonly Step[] {
  const from = hand.strip.inserts.from ?? null;
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setFrom", from, to }];
}

/** One plugin goes by a preset's name from now on. */
export function followPlugin(hand: Hand, processor: Processor, from: From): readonly Step[] {
  const to = { ...processor, from };
  return equal(processor, to) ? [] : [{ ...base(hand), kind: "setNode", node: processor.key, from: processor, to }];
}
