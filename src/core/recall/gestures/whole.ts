import type { Chain, From } from "../../chains/chain";
import type { Step } from "../step";
import equal from "fast-deep-equal";
import { type Hand, base, chainOf } from "./hand";

export function replaceInserts(hand: Hand, to: Chain): readonly Step[] {
  const from = chainOf(hand);
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setInserts", from, to }];
}

/** The chain goes by a preset's name from now on. */
export function follow(hand: Hand, to: From): readonly Step[] {
  const from = chainOf(hand).from ?? null;
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setFrom", from, to }];
}
