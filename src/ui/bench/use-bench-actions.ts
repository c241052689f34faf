"use client";

import { EFFECTS } from "@/core/processors/models";
import { layersOf } from "@/core/strips/parts/source";
import { stripName } from "@/core/strips/strip";
import { historyActions } from "../projects/history";
import { type Action, useActions } from "../actions/actions";
import { setDifference } from "../listening/listening";
import { useListening } from "../listening/state";
import { orSay, sayError } from "../kit/say";
import { openSave } from "../save/save";
import { printSheet } from "../keeping/print-sheet";
import { quickKeyOf } from "./chain/quick-models";
import type { Bench as BenchState } from "./use-bench";
import type { useBenchGestures } from "./use-bench-gestures";

type Hands = ReturnType<typeof useBenchGestures>;

const group = "Bench";

/** The ways from plugin to plugin, alone or with those between. */
function choosingActions(act: Hands): readonly Action[] {
  return [
    { id: "next-plugin", title: "Next plugin", group, keys: ["ArrowRight"], keyOnly: true, run: () => act.step(1) },
    {
      id: "previous-plugin",
      title: "Previous plugin",
      group,
      keys: ["ArrowLeft"],
      keyOnly: true,
      run: () => act.step(-1),
    },
    {
      id: "also-next",
      title: "Choose the next plugin, too",
      group,
      keys: ["Shift+ArrowRight"],
      keyOnly: true,
      run: () => act.step(1, "upTo"),
    },
    {
      id: "also-previous",
      title: "Choose the plugin before, too",
      group,
      keys: ["Shift+ArrowLeft"],
      keyOnly: true,
      run: () => act.step(-1, "upTo"),
    },
  ];
}

/** What is done to the plugin in hand. */
function pluginActions({ selected, chosen, differences, reference, saved }: BenchState, act: Hands): readonly Action[] {
  const has = selected !== null;
  return [
    {
      id: "on-off",
      title: chosen.length > 1 ? "Switch these plugins on or off" : "Switch this plugin on or off",
      group,
      keys: ["O"],
      enabled: has,
      run: act.toggle,
    },
    {
      id: "take-out",
      title: chosen.length > 1 ? "Take these plugins out" : "Take this plugin out",
      group,
      keys: ["Delete"],
      enabled: has,
      run: act.takeOut,
    },
    {
      id: "save-plugin",
      title: selected?.type === "section" ? "Save this section…" : "Save this plugin…",
      group,
      enabled: has && selected.type !== "split",
      run: () => selected && act.saveNode(selected.key),
    },
    {
      id: "difference",
      title: "Hear only what this plugin does",
      group,
      keys: ["I"],
      enabled: has,
      run: () => setDifference(useListening.getState().difference === selected?.key ? null : (selected?.key ?? null)),
    },
    {
      id: "take-newest",
      title: `Take version ${saved?.newest} of “${reference?.name}”`,
      group,
      enabled: reference !== null && (saved?.newest ?? 0) > reference.version,
      run: act.takeNewest,
    },
    {
      id: "back-to-saved",
      title: "Back to saved",
      group,
      enabled: differences.length > 0,
      run: () => void act.backToSaved(),
    },
  ];
}

/** Where the plugin in hand stands, and what is put around it. */
function wiringActions({ selected }: BenchState, act: Hands): readonly Action[] {
  const has = selected !== null;
  return [
    { id: "duplicate", title: "Duplicate this plugin", group, keys: ["U"], enabled: has, run: act.duplicate },
    {
      id: "section",
      title: "Make a section of what is chosen",
      group,
      keys: ["G"],
      enabled: has,
      run: act.makeSection,
    },
    { id: "lanes", title: "Split what is chosen into lanes", group, keys: ["P"], enabled: has, run: act.makeLanes },
    {
      id: "bands",
      title: "Split what is chosen into bands",
      group,
      keys: ["Shift+P"],
      enabled: has,
      run: act.makeBands,
    },
    {
      id: "move-left",
      title: "Move this plugin earlier",
      group,
      keys: ["Alt+ArrowLeft"],
      enabled: has,
      run: () => act.moveBy(-1),
    },
    {
      id: "move-right",
      title: "Move this plugin later",
      group,
      keys: ["Alt+ArrowRight"],
      enabled: has,
      run: () => act.moveBy(1),
    },
    {
      id: "move-up",
      title: "Move to the lane above",
      group,
      keys: ["Alt+ArrowUp"],
      enabled: has,
      run: () => act.moveAcross(-1),
    },
    {
      id: "move-down",
      title: "Move to the lane below",
      group,
      keys: ["Alt+ArrowDown"],
      enabled: has,
      run: () => act.moveAcross(1),
    },
  ];
}

/** The keys are the system's own (use-clipboard.ts); from a menu the clipboard is asked for. */
function clipboardActions({ chosen }: BenchState, act: Hands): readonly Action[] {
  const has = chosen.length > 0;
  const copy = async (): Promise<boolean> => {
    const text = act.copied();
    if (text !== null) await navigator.clipboard.writeText(text);
    return text !== null;
  };
  const cut = async () => {
    if (await copy()) act.takeOut();
  };
  const paste = async () => {
    if (!act.paste(await navigator.clipboard.readText())) sayError("There are no plugins on the clipboard.");
  };
  const native = { group, native: true };
  return [
    { ...native, id: "copy", title: "Copy", keys: ["Ctrl+C"], enabled: has, run: () => orSay(copy()) },
    { ...native, id: "cut", title: "Cut", keys: ["Ctrl+X"], enabled: has, run: () => orSay(cut()) },
    { ...native, id: "paste", title: "Paste", keys: ["Ctrl+V"], run: () => orSay(paste()) },
  ];
}

export function useBenchActions(bench: BenchState, act: Hands, saveAgain: () => void) {
  const { editing, strip, place } = bench;
  const canSave = Boolean(strip && (bench.chain.nodes.length > 0 || layersOf(strip).length > 0));
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
      run: () =>
        place.project &&
        strip &&
        openSave({
          project: place.project,
          strips: [strip.id],
          ...(place.layer === null ? {} : { layer: place.layer }),
        }),
    },
    {
      id: "recall-sheet",
      title: "Recall sheet of this sound, as PDF",
      group,
      enabled: canSave,
      run: () => strip && place.project && printSheet({ project: place.project, strips: [strip.id] }, stripName(strip)),
    },
    ...choosingActions(act),
    ...pluginActions(bench, act),
    ...clipboardActions(bench, act),
    ...wiringActions(bench, act),
    ...EFFECTS.map((model) => {
      const key = quickKeyOf(model.id);
      return {
        id: `add-${model.id}`,
        title: `Add ${model.name}`,
        group: "Add a plugin",
        ...(key ? { keys: [key] } : {}),
        run: () => act.add(model.id),
      };
    }),
  ]);
}
