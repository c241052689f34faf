import type { Chain, PresetRef } from "../../chains/chain";
import type { Step } from "../steps";
import equal from "fast-deep-equal";
import { type Hand, base, chainOf } from "./hand";

export function replaceInserts(hand: Hand, to: Chain): readonly Step[] {
  const from = chainOf(hand);
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setChain", from, to }];
}

/** The chain goes by a preset's name from now on. */
export function follow(hand: Hand, to: PresetRef): readonly Step[] {
  const from = chainOf(hand).from ?? null;
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setFrom", from, to }];
}
