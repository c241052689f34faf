import type { Chain, Processor } from "../../chains/chain";
import type { Mend } from "../../chains/check";
import { type Place, findList, findNode, findProcessor } from "../../chains/tree";
import { defaultValues, getSpec } from "../../processors/model";
import { getModel } from "../../processors/models";
import { clampTo } from "../../units/param-spec";
import type { Step } from "../steps";
import { type Hand, chainOf } from "./hand";
import { putIn } from "./wiring";
import { switchOn, turn } from "./values";

/** The steps that mend a remark of the check. Law: the remark goes, and no other comes by it. */
export function mend(hand: Hand, how: Mend): readonly Step[] {
  switch (how.kind) {
    case "switchOff": {
      const off = switchOn(hand, [how.node], false);
      const place = findNode(chainOf(hand), how.node)?.place;
      return how.dB === undefined || !place
        ? off
        : [...off, ...putIn(hand, gainOf(hand, how.dB), { within: place.within, after: how.node })];
    }
    case "set":
      return turn(hand, how.node, how.values);
    case "limitAt": {
      const limiter = findProcessor(chainOf(hand), how.as);
      if (!limiter) return [];
      const { from: _, ...sound } = limiter;
      return putIn(hand, { ...sound, key: hand.mint() }, how.place);
    }
    case "turnDown":
      return turnDown(hand, how.before, how.dB);
  }
}

/** The gain that stands right before a place, and how far down it can go; null where there is none that can go further. */
function gainBefore(chain: Chain, { within, after }: Place, dB: number): { key: string; to: number } | null {
  const node = findList(chain, within)?.find((one) => one.key === after);
  if (node?.type !== "processor" || node.model !== "gain" || !node.enabled) return null;
  const now = node.values.gain;
  if (typeof now !== "number") return null;
  const to = clampTo(getSpec(getModel("gain"), "gain"), now + dB);
  return to < now ? { key: node.key, to } : null;
}

/** A gain that stands there already is turned down further, as far as it goes. */
function turnDown(hand: Hand, before: string | null, dB: number): readonly Step[] {
  const chain = chainOf(hand);
  const last = { within: null, after: chain.nodes.at(-1)?.key ?? null };
  const place = before === null ? last : findNode(chain, before)?.place;
  if (!place) return [];
  const standing = gainBefore(chain, place, dB);
  return standing ? turn(hand, standing.key, { gain: standing.to }) : putIn(hand, gainOf(hand, dB), place);
}

/** A gain of so many dB, as far as it goes. */
function gainOf({ mint }: Hand, dB: number): Processor {
  const gain = getModel("gain");
  const values = { ...defaultValues(gain), gain: clampTo(getSpec(gain, "gain"), dB) };
  return { type: "processor", key: mint(), model: gain.id, enabled: true, values };
}
