import type { Action } from "../actions/actions";
import { chooseStrips } from "../projects/in-hand";
import type { Rows } from "./use-rows";

/** Walking over rows, and choosing them. */
export function rowActions({ rows, at, cursor, choose, moveTo }: Rows): readonly Action[] {
  const group = "Project";
  const walk = { group, keyOnly: true } as const;
  return [
    { ...walk, id: "down", title: "Next strip", keys: ["ArrowDown"], run: () => moveTo(at + 1, "only") },
    { ...walk, id: "up", title: "Previous strip", keys: ["ArrowUp"], run: () => moveTo(at - 1, "only") },
    { ...walk, id: "first", title: "First strip", keys: ["Home"], run: () => moveTo(0, "only") },
    { ...walk, id: "last", title: "Last strip", keys: ["End"], run: () => moveTo(rows.length - 1, "only") },
    {
      ...walk,
      id: "more-down",
      title: "Choose the next as well",
      keys: ["Shift+ArrowDown"],
      run: () => moveTo(at + 1, "range"),
    },
    {
      ...walk,
      id: "more-up",
      title: "Choose the previous as well",
      keys: ["Shift+ArrowUp"],
      run: () => moveTo(at - 1, "range"),
    },
    {
      ...walk,
      id: "toggle",
      title: "Choose or leave this strip",
      keys: ["Ctrl+Space"],
      run: () => cursor && choose(cursor.id, "toggle"),
    },
    { id: "all", title: "Choose all strips", group, keys: ["Ctrl+A"], run: () => chooseStrips(rows.map((r) => r.id)) },
    { id: "none", title: "Choose no strip", group, keys: ["Escape"], run: () => chooseStrips([]) },
  ];
}
