import type { Chain, Macro, MacroTarget } from "../../chains/chain";
import type { BeatsPerMinute } from "../../units/quantities";
import { learnedTarget, movesTo, withoutLostTargets } from "../../chains/macros";
import { findLane, withoutNode } from "../../chains/tree";
import type { Step } from "../steps";
import equal from "fast-deep-equal";
import { type Hand, base, chainOf } from "./hand";
import { setLane, switchOn, turn } from "./values";

export function setMacros(hand: Hand, to: readonly Macro[]): readonly Step[] {
  const from = chainOf(hand).macros;
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setMacros", from, to: [...to] }];
}

/** As `setMacros`, for macros that steps before this one have made of those that stand there. */
export const setMacrosFrom = (hand: Hand, from: readonly Macro[], to: readonly Macro[]): readonly Step[] =>
  equal(from, to) ? [] : [{ ...base(hand), kind: "setMacros", from: [...from], to: [...to] }];

/** The macros of a chain without what they aim at in a node. */
export const macrosWithout = (chain: Chain, key: string): Chain["macros"] => [
  ...withoutLostTargets(withoutNode(chain, key)).macros,
];

/** An axis of a macro takes on one more value, as it stands. */
export function learn(
  hand: Hand,
  { macro: key, axis }: { readonly macro: string; readonly axis: number },
  touched: Pick<MacroTarget, "node" | "param">,
  tempo: BeatsPerMinute,
): readonly Step[] {
  const chain = chainOf(hand);
  const targets = chain.macros.find((macro) => macro.key === key)?.axes[axis];
  const target = targets && learnedTarget(chain, targets, touched, tempo);
  if (!target) return [];
  const grown = (macro: Macro): Macro => ({
    ...macro,
    axes: macro.axes.map((own, at) => (at === axis ? [...own, target] : own)),
  });
  return setMacros(
    hand,
    chain.macros.map((macro) => (macro.key === key ? grown(macro) : macro)),
  );
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
