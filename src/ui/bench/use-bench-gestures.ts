"use client";

import { type Chain, type Processor, processorName, processorsOf } from "@/core/chains/chain";
import type { Difference } from "@/core/chains/differences";
import { defaultValues } from "@/core/processors/model";
import { getModel } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import type { Step } from "@/core/recall/step";
import { mintKey } from "../projects/mint";
import type { Bench as BenchState } from "./use-bench";

/** What can be done on the bench, by hand or by key. */
export function useBenchGestures(bench: BenchState) {
  const { gesture, selected, chain, saved } = bench;
  const processors = processorsOf(chain);
  const add = (modelId: string) => {
    const model = getModel(modelId);
    const key = mintKey();
    const node: Processor = {
      type: "processor",
      key,
      model: model.id,
      enabled: true,
      values: { ...defaultValues(model) },
    };
    void gesture(`Add ${model.name}`, (hand) =>
      gestures.putIn(hand, node, selected?.key ?? processors.at(-1)?.key ?? null),
    );
    bench.select(key);
  };
  const onSelected = (
    label: string,
    make: (hand: gestures.Hand, key: string) => ReturnType<typeof gestures.takeOut>,
  ) => {
    if (selected) void gesture(`${label} ${processorName(selected)}`, (hand) => make(hand, selected.key));
  };
  return {
    add,
    putBack: (difference: Difference) =>
      void gesture("Put back", (hand) =>
        stepsToPutBack(hand, difference, { saved: saved?.chain ?? chain, now: chain }),
      ),
    takeOut: () => onSelected("Take out", gestures.takeOut),
    moveBy: (by: 1 | -1) => onSelected("Move", (hand, key) => gestures.move(hand, key, by)),
    toggle: () =>
      selected &&
      onSelected(selected.enabled ? "Switch off" : "Switch on", (hand, key) =>
        gestures.switchOn(hand, key, !selected.enabled),
      ),
    backToSaved: () => saved && void gesture("Back to saved", (hand) => gestures.replaceInserts(hand, saved.chain)),
    step: (by: 1 | -1) => {
      const at = processors.findIndex((p) => p.key === selected?.key);
      const next = processors[at + by];
      if (next) bench.select(next.key);
    },
  };
}

/** Behind the nearest of those before it in the saved chain that is still there. */
function placeOf(saved: Chain, key: string, now: readonly Processor[]): string | null {
  const keys = processorsOf(saved).map((p) => p.key);
  const before = keys.slice(0, keys.indexOf(key)).toReversed();
  return before.find((k) => now.some((p) => p.key === k)) ?? null;
}

interface Chains {
  readonly saved: Chain;
  readonly now: Chain;
}

/** The steps that take one difference back. */
function stepsToPutBack(hand: gestures.Hand, difference: Difference, { saved, now }: Chains): readonly Step[] {
  switch (difference.kind) {
    case "value":
      return gestures.turn(hand, difference.processor, { [difference.param]: difference.from });
    case "enabled":
      return gestures.switchOn(hand, difference.processor, difference.from);
    case "added":
      return gestures.takeOut(hand, difference.processor.key);
    case "removed":
      return gestures.putIn(hand, difference.processor, placeOf(saved, difference.processor.key, processorsOf(now)));
    case "order":
      return [];
  }
}
