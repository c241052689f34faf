import { type Layer, layersOf } from "../../strips/parts/source";
import type { Step } from "../steps";
import equal from "fast-deep-equal";
import type { Hand } from "./hand";

/** Layers of the strip's instrument, as a whole. */
export function setLayers({ strip, mint }: Hand, layers: readonly Layer[]): readonly Step[] {
  const from = strip.source;
  if (from.type !== "layers") return [];
  const to = { ...from, layers: [...layers] };
  return equal(from, to) ? [] : [{ id: mint(), kind: "setPart", strip: strip.id, part: "source", from, to }];
}

/** One layer of the strip's instrument, made into another. */
export const changeLayer = (hand: Hand, key: string, change: (now: Layer) => Layer): readonly Step[] =>
  setLayers(
    hand,
    layersOf(hand.strip).map((layer) => (layer.key === key ? change(layer) : layer)),
  );
