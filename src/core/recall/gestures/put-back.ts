import type { Chain } from "../../chains/chain";
import type { Difference } from "../../chains/differences";
import { type Place, findList, findNode } from "../../chains/tree";
import type { Step } from "../steps";
import { layersOf } from "../../strips/parts/source";
import { type Hand, chainOf } from "./hand";
import { changeLayer } from "./layers";
import { setMacros } from "./macros";
import { setLane, switchOn, turn } from "./values";
import { putIn, takeOut } from "./wiring";

/** Where it was saved, behind the nearest of those before it there that is still here; last where its group is gone. */
function savedPlace(saved: Chain, now: Chain, key: string): Place {
  const place = findNode(saved, key)?.place ?? { within: null, after: null };
  const within = findList(now, place.within) ? place.within : null;
  const here = new Set((findList(now, within) ?? []).map((n) => n.key));
  const siblings = (findList(saved, place.within) ?? []).map((n) => n.key);
  const before = siblings.slice(0, siblings.indexOf(key)).toReversed();
  return { within, after: before.find((k) => here.has(k)) ?? null };
}

/** The steps that take back one difference of all that sounds in a strip: of its inserts, an instrument, or what is inside one. */
export function putBackInStrip(hand: Hand, difference: Difference, saved: Chain): readonly Step[] {
  const key = "processor" in difference && typeof difference.processor === "string" ? difference.processor : null;
  const layer = layersOf(hand.strip).find(
    ({ instrument, effects }) => key !== null && (instrument.key === key || findNode(effects, key) !== null),
  );
  if (!layer || hand.layer !== undefined) return putBack(hand, difference, saved);
  if (layer.instrument.key !== key) return putBack({ ...hand, layer: layer.key }, difference, saved);
  return changeLayer(hand, layer.key, (now) => {
    const { values, enabled } = now.instrument;
    if (difference.kind === "value")
      return { ...now, instrument: { ...now.instrument, values: { ...values, [difference.param]: difference.from } } };
    const on = difference.kind === "enabled" ? difference.from : enabled;
    return { ...now, instrument: { ...now.instrument, enabled: on } };
  });
}

/** The steps that take back one difference of the chain in hand from how it was saved. */
export function putBack(hand: Hand, difference: Difference, saved: Chain): readonly Step[] {
  switch (difference.kind) {
    case "value":
      return turn(hand, difference.processor, { [difference.param]: difference.from });
    case "enabled":
      return switchOn(hand, [difference.processor], difference.from);
    case "section":
      return switchOn(hand, [difference.section], difference.from);
    case "lane":
      return setLane(hand, difference.lane, { [difference.setting]: difference.from });
    case "added":
      return takeOut(hand, difference.processor.key);
    case "removed":
      return putIn(hand, difference.processor, savedPlace(saved, chainOf(hand), difference.processor.key));
    case "macros":
      return setMacros(hand, saved.macros);
    case "order":
      return [];
  }
}
