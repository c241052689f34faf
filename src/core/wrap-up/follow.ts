import { EMPTY_CHAIN } from "../chains/chain";
import { findNode } from "../chains/tree";
import { type Content, isStrips } from "../presets/preset";
import { type Project, findStrip } from "../projects/project";
import { type Kept, followSet } from "../recall/gestures/follow-set";
import { changeLayer } from "../recall/gestures/layers";
import { follow } from "../recall/gestures/whole";
import { replaceNode } from "../recall/gestures/wiring";
import type { Step } from "../recall/steps";
import { type Strip, chainAt } from "../strips/strip";
import { layersOf } from "../strips/layers";
import type { Find } from "./finds";

/* After something is kept, what it is of in the project goes by its name. */

function followPlugin(strip: Strip, { layer, node = "" }: Find["place"], { from, mint }: Kept): readonly Step[] {
  const hand = { strip, mint, ...(layer === undefined ? {} : { layer }) };
  if (layersOf(strip).some(({ key, instrument }) => key === layer && instrument.key === node))
    return changeLayer(hand, layer ?? "", (now) => ({ ...now, instrument: { ...now.instrument, from } }));
  const found = findNode(chainAt(strip, layer) ?? EMPTY_CHAIN, node)?.node;
  return found && found.type !== "split" ? replaceNode(hand, { ...found, from }) : [];
}

/** The steps by which what was found in a project goes by the preset that it was kept as. `kept`: what that holds. */
export function followFind(project: Project, find: Find, kept: Content, how: Kept): readonly Step[] {
  const { level, place, content } = find;
  if (level === "set") return isStrips(content) ? followSet(content, kept, project.strips, how) : [];
  const strip = findStrip(project, place.strip);
  if (!strip || level === "sends") return [];
  if (level === "plugin") return followPlugin(strip, place, how);
  return follow({ strip, mint: how.mint, ...(place.layer === undefined ? {} : { layer: place.layer }) }, how.from);
}
