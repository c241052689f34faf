"use client";

import equal from "fast-deep-equal";
import { useState } from "react";
import { EMPTY_CHAIN } from "@/core/chains/chain";
import { getModel } from "@/core/processors/models";
import type { ParamId, Value } from "@/core/units/param-spec";
import * as gestures from "@/core/recall/gestures";
import { type Layer, layersOf } from "@/core/strips/parts/source";
import { hear } from "../../listening/listening";
import { soundAt } from "../../listening/strip-sound";
import { useStarts } from "../../settings/starts";
import { mintKey } from "../../kit/mint";
import type { Bench } from "../use-bench";

export interface Instrument {
  /** With the value that is being dragged. */
  readonly layers: readonly Layer[];
  readonly selected: Layer | null;
  readonly select: (key: string | null) => void;
  readonly add: (model: string, sample?: { readonly hash: string; readonly name: string }) => Promise<void>;
  readonly change: (label: string, key: string, change: (layer: Layer) => Layer) => void;
  readonly remove: (key: string) => void;
  readonly preview: (key: string, values: Readonly<Record<ParamId, Value>>) => void;
  readonly turn: (key: string, values: Readonly<Record<ParamId, Value>>) => void;
}

const turned = (layer: Layer, values: Readonly<Record<ParamId, Value>>): Layer => ({
  ...layer,
  instrument: { ...layer.instrument, values: { ...layer.instrument.values, ...values } },
});

/** The layers of an instrument strip; null where the strip on the bench is none, or where effects inside it are open. */
export function useInstrument(bench: Bench): Instrument | null {
  const { strip, place, gesture, chain, tempo } = bench;
  const start = useStarts(strip?.kind ?? null);
  // Not chosen yet: an instrument with nothing behind it opens with its first layer.
  const [selectedKey, select] = useState<string | null | undefined>(undefined);
  const [dragged, setDragged] = useState<readonly Layer[] | null>(null);
  if (!strip || strip.kind !== "instrument" || place.layer !== null) return null;
  const standing = layersOf(strip);
  const layers = dragged ?? standing;
  const set = (label: string, make: (now: readonly Layer[]) => readonly Layer[]) => {
    setDragged(null);
    void gesture(label, (hand) => gestures.setLayers(hand, make(layersOf(hand.strip))));
  };
  const replaced = (key: string, change: (layer: Layer) => Layer) => (now: readonly Layer[]) =>
    now.map((layer) => (layer.key === key ? change(layer) : layer));
  return {
    layers,
    selected:
      selectedKey === undefined && chain.nodes.length === 0
        ? (layers[0] ?? null)
        : (layers.find((l) => l.key === selectedKey) ?? null),
    select,
    add: async (model, sample) => {
      const key = mintKey();
      const instrument = await start(model);
      const layer: Layer = {
        key,
        name: sample?.name ?? getModel(model).name,
        instrument: { ...instrument, ...(sample === undefined ? {} : { state: { hash: sample.hash } }) },
        keys: { low: 0, high: 127 },
        velocities: { low: 0, high: 127 },
        effects: EMPTY_CHAIN,
      };
      set(`Add ${layer.name}`, (now) => [...now, layer]);
      select(key);
    },
    change: (label, key, change) => set(label, replaced(key, change)),
    remove: (key) => set("Take out a layer", (now) => now.filter((l) => l.key !== key)),
    preview: (key, values) => {
      const live = standing.map((layer) => (layer.key === key ? turned(layer, values) : layer));
      setDragged(equal(live, standing) ? null : live);
      if (strip.source.type !== "layers") return;
      const playing = { source: { ...strip.source, layers: live } };
      hear(soundAt(chain, { name: strip.look.name, tempo, strip: playing }), true);
    },
    turn: (key, values) =>
      set(
        "Turn an instrument",
        replaced(key, (layer) => turned(layer, values)),
      ),
  };
}
