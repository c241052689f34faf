"use client";

import { showKey, useEnabledActions } from "../../actions/actions";
import type { MenuGroup } from "../../kit/menu";

/** What the menu of the chain offers of the actions of the bench, in its order. */
const GROUPS: readonly (readonly string[])[] = [
  ["on-off", "difference", "save-plugin", "take-out"],
  ["copy", "cut", "paste", "duplicate"],
  ["section", "lanes", "bands"],
  ["move-left", "move-right"],
];

/** The actions of the bench on what is chosen, as lists for a right-click. */
export function useChainMenu(): readonly MenuGroup[] {
  const actions = useEnabledActions();
  return GROUPS.map((ids) => ({
    id: ids.join(" "),
    items: ids.flatMap((id) => {
      const action = actions.find((a) => a.id === id);
      if (!action) return [];
      const [key] = action.keys ?? [];
      return { id, label: action.title, onChoose: action.run, ...(key === undefined ? {} : { beside: showKey(key) }) };
    }),
  }));
}
