import { fromsIn } from "../chains/tree";
import { SOURCE } from "../strips/parts/source";
import { presetsIn } from "../strips/strip";
import { type Content, chainOf, isStrips } from "./preset";

/** The presets that something inside was loaded from: plugins, sections and instruments that are presets by themselves. */
export function heldPresets(content: Content): readonly string[] {
  if (content.kind === "plugin") return [];
  if (isStrips(content))
    return [...new Set(content.strips.flatMap((strip) => presetsIn(strip).map((from) => from.preset)))];
  const source = content.kind === "strip" ? content.strip.source : undefined;
  const froms = [...fromsIn(chainOf(content).nodes), ...(source ? SOURCE.presets(source) : [])];
  return [...new Set(froms.map((from) => from.preset))];
}
