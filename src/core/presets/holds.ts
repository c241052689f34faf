import { nodesIn } from "../chains/tree";
import { layersOf } from "../strips/parts/source";
import { type Content, chainOf } from "./preset";

/** The presets that something inside was loaded from: plugins, sections and instruments that are presets by themselves. */
export function heldPresets(content: Content): readonly string[] {
  if (content.kind === "plugin") return [];
  const source = content.kind === "strip" ? content.strip.source : undefined;
  const layers = source ? layersOf({ source }) : [];
  const nodes = [
    ...nodesIn(chainOf(content).nodes),
    ...layers.flatMap((layer) => [layer.instrument, ...nodesIn(layer.effects.nodes)]),
  ];
  const froms = nodes.flatMap((node) => (node.type === "split" ? [] : (node.from ?? [])));
  return [...new Set(froms.map((from) => from.preset))];
}
