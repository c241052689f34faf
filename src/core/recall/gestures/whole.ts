import { type Chain, type PresetRef, isOneSound } from "../../chains/chain";
import type { Step } from "../steps";
import equal from "fast-deep-equal";
import { type Hand, base, chainOf } from "./hand";

export function replaceInserts(hand: Hand, to: Chain): readonly Step[] {
  const from = chainOf(hand);
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setChain", from, to }];
}

/** The chain goes by a preset's name from now on; another version of what it was came along in the same set. */
export function follow(hand: Hand, next: PresetRef): readonly Step[] {
  const from = chainOf(hand).from ?? null;
  const to = from?.along && isOneSound(from, next) ? { along: from.along, ...next } : next;
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setFrom", from, to }];
}
