import { type Chain, type ChainNode, type PresetRef, originsOf } from "../chains/chain";
import { clip } from "../chains/clipping";
import { nodesIn } from "../chains/tree";
import { layersOf } from "./parts/source";
import type { Strip } from "./strip";

/** A node by itself, as a chain: a plugin alone, or what stands in a section with the macros that move something in it. */
function alone(chain: Chain, node: ChainNode): Chain {
  if (node.type !== "section") return { nodes: [node], macros: [] };
  const keys = node.nodes.map((n) => n.key);
  const { macros } = clip({ ...chain, nodes: [...node.nodes] }, keys);
  return { nodes: [...node.nodes], macros: [...macros] };
}

export interface Loaded {
  readonly from: PresetRef;
  /** As it is now. */
  readonly chain: Chain;
}

/** Everything in a strip that was loaded from a preset: whole chains, sections, plugins, instruments. */
export function loadedFrom(strip: Pick<Strip, "inserts" | "source">, preset: string): readonly Loaded[] {
  const layers = layersOf(strip);
  const chains = [strip.inserts, ...layers.map((layer) => layer.effects)];
  const within = chains.flatMap((chain) => nodesIn(chain.nodes).map((node) => ({ chain, node })));
  const played = layers.map(({ instrument, effects }) => ({ chain: effects, node: instrument }));
  return [
    ...chains.map((chain) => ({ from: chain.from, chain })),
    ...[...within, ...played].map(({ chain, node }) => ({
      from: node.type === "split" ? undefined : node.from,
      chain: alone(chain, node),
    })),
  ].flatMap(({ from, chain }) => {
    const one = from && originsOf(from).find((origin) => origin.preset === preset);
    return one ? [{ from: one, chain }] : [];
  });
}
