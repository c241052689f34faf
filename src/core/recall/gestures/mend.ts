import type { Processor } from "../../chains/chain";
import type { Mend } from "../../chains/check";
import { findList, findNode, findProcessor } from "../../chains/tree";
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

/** A gain that stands there already is turned down further, as far as it goes. */
function turnDown(hand: Hand, before: string | null, dB: number): readonly Step[] {
  const chain = chainOf(hand);
  const place =
    before === null ? { within: null, after: chain.nodes.at(-1)?.key ?? null } : findNode(chain, before)?.place;
  if (!place) return [];
  const gain = getModel("gain");
  const spec = getSpec(gain, "gain");
  const standing = findList(chain, place.within)?.find((node) => node.key === place.after);
  if (standing?.type === "processor" && standing.model === gain.id && standing.enabled) {
    const now = standing.values.gain;
    const to = clampTo(spec, (typeof now === "number" ? now : 0) + dB);
    if (to < (typeof now === "number" ? now : 0)) return turn(hand, standing.key, { gain: to });
  }
  return putIn(hand, gainOf(hand, dB), place);
}

/** A gain of so many dB, as far as it goes. */
function gainOf({ mint }: Hand, dB: number): Processor {
  const gain = getModel("gain");
  const values = { ...defaultValues(gain), gain: clampTo(getSpec(gain, "gain"), dB) };
  return { type: "processor", key: mint(), model: gain.id, enabled: true, values };
}
