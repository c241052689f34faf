import { EMPTY_CHAIN } from "../chains/chain";
import { fold } from "../names/words";
import { type Layer, type Source, layersOf } from "../strips/parts/source";

export const LAYER_TAKES = ["whole", "played", "effects"] as const;
/** What of an instrument is taken: all of it, what plays without the effects inside, or those effects alone. */
export type LayerTake = (typeof LAYER_TAKES)[number];

/** Whether a layer of an instrument has effects inside, so that it matters what of it is taken. */
export const hasEffectsInside = (source: Source): boolean =>
  layersOf({ source }).some(({ effects }) => effects.nodes.length > 0);

interface LayersInput {
  readonly now: Source;
  readonly wanted: Source;
  readonly take: LayerTake;
}

interface PlannedLayers {
  readonly source: Source;
  /** What finds no place, in a sentence each. */
  readonly left: readonly string[];
}

/**
 * Which layer here goes with each of those that are wanted, by its place: the first of its name, else the one in its place; each
 * once.
 */
function partnersOf(wanted: readonly Layer[], here: readonly Layer[]): ReadonlyMap<number, number> {
  const partners = new Map<number, number>();
  const isFree = (at: number) => at >= 0 && at < here.length && ![...partners.values()].includes(at);
  const pair = (find: (layer: Layer, at: number) => number) =>
    wanted.forEach((layer, at) => {
      if (partners.has(at)) return;
      const partner = find(layer, at);
      if (isFree(partner)) partners.set(at, partner);
    });
  pair((layer) => here.findIndex(({ name }, at) => isFree(at) && fold(name) === fold(layer.name)));
  pair((_, at) => at);
  return partners;
}

/** An instrument as it would be with this of another one taken. */
export function planLayers({ now, wanted, take }: LayersInput): PlannedLayers {
  if (take === "whole" || wanted.type !== "layers") return { source: wanted, left: [] };
  const here = layersOf({ source: now });
  const partners = partnersOf(wanted.layers, here);
  if (take === "played") {
    const effectsOf = (at: number) => here[partners.get(at) ?? -1]?.effects ?? EMPTY_CHAIN;
    const layers = wanted.layers.map((layer, at) => ({ ...layer, effects: effectsOf(at) }));
    return { source: { ...wanted, layers }, left: [] };
  }
  const effects = new Map([...partners].map(([at, partner]) => [partner, wanted.layers[at]?.effects ?? EMPTY_CHAIN]));
  const left = wanted.layers
    .filter((layer, at) => !partners.has(at) && layer.effects.nodes.length > 0)
    .map(({ name }) => `There is no layer for the effects inside “${name}”; they are left out.`);
  if (now.type !== "layers") return { source: now, left };
  const layers = now.layers.map((layer, at) => ({ ...layer, effects: effects.get(at) ?? layer.effects }));
  return { source: { ...now, layers }, left };
}
