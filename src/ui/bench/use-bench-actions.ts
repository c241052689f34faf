"use client";

import { MODELS } from "@/core/processors/models";
import { historyActions } from "../projects/history";
import { type Action, useActions } from "../actions/actions";
import { openSave } from "../save/save";
import { quickKeyOf } from "./quick-models";
import type { Bench as BenchState } from "./use-bench";
import type { useBenchGestures } from "./use-bench-gestures";

type Hands = ReturnType<typeof useBenchGestures>;

const group = "Bench";

/** What is done to the plugin in hand, and the ways to the others. */
function pluginActions({ selected, differences }: BenchState, hand: Hands): readonly Action[] {
  const has = selected !== null;
  return [
    { id: "next-plugin", title: "Next plugin", group, keys: ["ArrowRight"], keyOnly: true, run: () => hand.step(1) },
    {
      id: "previous-plugin",
      title: "Previous plugin",
      group,
      keys: ["ArrowLeft"],
      keyOnly: true,
      run: () => hand.step(-1),
    },
    {
      id: "on-off",
      title: selected?.enabled ? "Switch this plugin off" : "Switch this plugin on",
      group,
      keys: ["O"],
      enabled: has,
      run: hand.toggle,
    },
    { id: "take-out", title: "Take this plugin out", group, keys: ["Delete"], enabled: has, run: hand.takeOut },
    {
      id: "move-left",
      title: "Move this plugin earlier",
      group,
      keys: ["Alt+ArrowLeft"],
      enabled: has,
      run: () => hand.moveBy(-1),
    },
    {
      id: "move-right",
      title: "Move this plugin later",
      group,
      keys: ["Alt+ArrowRight"],
      enabled: has,
      run: () => hand.moveBy(1),
    },
    {
      id: "back-to-saved",
      title: "Back to saved",
      group,
      enabled: differences.length > 0,
      run: () => void hand.backToSaved(),
    },
  ];
}

export function useBenchActions(bench: BenchState, hand: Hands, saveAgain: () => void) {
  const { editing, strip, place } = bench;
  const canSave = Boolean(strip && strip.inserts.nodes.length > 0);
  useActions([
    ...historyActions(editing, group),
    {
      id: "save-again",
      title: bench.reference ? "Save new version" : "Save…",
      group,
      keys: ["Ctrl+S"],
      enabled: canSave,
      run: saveAgain,
    },
    {
      id: "save-as",
      title: "Save as…",
      group,
      keys: ["Ctrl+Shift+S"],
      enabled: canSave,
      run: () => place.project && strip && openSave({ project: place.project, strip: strip.id }),
    },
    ...pluginActions(bench, hand),
    ...MODELS.map((model) => {
      const key = quickKeyOf(model.id);
      return {
        id: `add-${model.id}`,
        title: `Add ${model.name}`,
        group: "Add a plugin",
        ...(key ? { keys: [key] } : {}),
        run: () => hand.add(model.id),
      };
    }),
  ]);
}
