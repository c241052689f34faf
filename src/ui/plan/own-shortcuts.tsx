"use client";

import { useQueries, useQueryClient } from "@tanstack/react-query";
import { create } from "zustand";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { findModel } from "@/core/processors/models";
import { type Shortcut, withShortcut } from "@/core/settings/settings";
import { type Action, useActions } from "../actions/actions";
import { orSay, say, sayError } from "../kit/say";
import { useRecall } from "./recall";
import { useSettings } from "../settings/settings";

/** What the screen in front does with a shortcut instead of applying a sound to the project in hand. */
interface Bench {
  readonly put: (preset: PresetRow) => void;
  readonly add: (model: string) => void;
}

/** The bench lends its hands while it is on screen. */
export const useBenchForShortcuts = create<{ readonly bench: Bench | null }>(() => ({ bench: null }));

/** The shortcut of a thing, and how it is given another. */
export function useShortcutOf(does: Shortcut["does"]) {
  const { settings, change } = useSettings();
  const written = JSON.stringify(does);
  const found = settings.shortcuts.find((s) => JSON.stringify(s.does) === written);
  return {
    keys: found?.keys ?? null,
    setKeys: (keys: string | null) => orSay(change((now) => withShortcut(now, does, keys))),
  };
}

const presetOf = ({ does }: Shortcut): string | null => ("preset" in does ? does.preset : null);

/** The person's own shortcuts, on every screen. */
export function useOwnShortcuts(): void {
  const queries = useQueryClient();
  const recall = useRecall();
  const bench = useBenchForShortcuts((s) => s.bench);
  const { settings } = useSettings();
  const { shortcuts } = settings;
  const presets = shortcuts.flatMap((s) => presetOf(s) ?? []);
  const rows = useQueries({
    queries: presets.map((id) => ({
      queryKey: [...KEYS.preset(id), "detail"],
      queryFn: () => api.getPreset(id),
    })),
    combine: (answers) =>
      new Map(answers.map(({ data }, at) => [presets[at] ?? "", data?.place === "library" ? data.preset : null])),
  });
  const apply = async (id: string) => {
    try {
      const { preset, place } = await queries.fetchQuery({
        queryKey: [...KEYS.preset(id), "detail"],
        queryFn: () => api.getPreset(id),
      });
      if (place !== "library") throw new Error("It is in the bin.");
      if (bench) bench.put(preset);
      else recall.apply(preset);
    } catch {
      sayError("The sound of this shortcut is not here any more. Give the key to another on its card.");
    }
  };
  const actions = shortcuts.map((shortcut): Action => {
    const { keys, does } = shortcut;
    const shared = { group: "Your shortcuts", keys: [keys] };
    if ("model" in does) {
      const name = findModel(does.model)?.name ?? does.model;
      const add = () => (bench ? bench.add(does.model) : say(`Open the bench first; then this key adds ${name}.`));
      return { ...shared, id: `own-add-${does.model}`, title: `Add ${name}`, run: add };
    }
    const name = rows.get(does.preset)?.card.name ?? "a sound that is gone";
    return {
      ...shared,
      id: `own-apply-${does.preset}`,
      title: `Apply “${name}”`,
      run: () => void apply(does.preset),
    };
  });
  useActions(actions, "everywhere");
}
