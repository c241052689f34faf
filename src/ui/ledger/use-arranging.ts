"use client";

import { useState } from "react";
import { counted } from "@/core/names/count";
import { type Project, findStrip } from "@/core/projects/project";
import * as arrange from "@/core/recall/arrange";
import { stripName } from "@/core/strips/strip";
import { type Action, useActions } from "../actions/actions";
import type { MenuGroup } from "../kit/menu";
import { mintKey } from "../kit/mint";
import { sayError } from "../kit/say";
import { muteSteps } from "./cards/values";
import type { ColumnId } from "./columns";
import { type Turning, orRefuse } from "./use-turning";

interface Arranging {
  readonly project: Project;
  readonly chosen: readonly string[];
  readonly turning: Turning;
  readonly choose: (strips: readonly string[]) => void;
  readonly openCard: (strip: string, column: ColumnId) => void;
}

/** Each thing that is done with strips as wholes. */
function stripGestures({ project, chosen, turning, choose, openCard }: Arranging, onAsk: () => void) {
  const has = chosen.length > 0;
  const [first] = chosen;
  const one = chosen.length === 1 && first !== undefined ? findStrip(project, first) : null;
  const what = one ? stripName(one) : counted(chosen.length, "strip");
  const { change } = turning;
  const allMuted = has && arrange.standing(project, chosen).every(({ level }) => level.mute);
  const remove = () => {
    if (arrange.findBereft(project, chosen).length > 0) return onAsk();
    change(
      `Remove ${what}`,
      orRefuse((now) => arrange.removeStrips(now, chosen, () => null, mintKey)),
    );
  };
  const duplicate = () => {
    let copies: readonly string[] = [];
    change(`Duplicate ${what}`, (now) => {
      const made = arrange.duplicateStrips(now, chosen, mintKey);
      copies = made.strips;
      return made.steps;
    });
    if (copies.length > 0) choose(copies);
  };
  const group = () => {
    let made: string | null = null;
    change(`Group ${what}`, (now) => {
      const grouped = arrange.groupStrips(now, chosen, arrange.nameForGroup(now, chosen), mintKey);
      if (!grouped.ok) {
        sayError(grouped.error);
        return [];
      }
      made = grouped.value.group;
      return grouped.value.steps;
    });
    if (made === null) return;
    choose([made]);
    openCard(made, "look");
  };
  const moved =
    (label: string, how: (now: Project) => arrange.Arranged): (() => void) =>
    () =>
      change(label, orRefuse(how));
  const nudge = (by: 1 | -1) =>
    moved(`Move ${what} ${by > 0 ? "down" : "up"}`, (now) => arrange.nudgeStrips(now, chosen, by, mintKey));

  const receive = () => {
    let made: readonly string[] = [];
    change(`Receive the outputs of ${what}`, (now) => {
      const instrument = one && findStrip(now, one.id);
      const received = instrument ? arrange.receiveOutputs(now, instrument, mintKey) : null;
      made = received?.strips ?? [];
      return received?.steps ?? [];
    });
    if (made.length > 0) choose(made);
  };
  const mute = () => change(allMuted ? `Unmute ${what}` : `Mute ${what}`, muteSteps(chosen, !allMuted));
  return {
    has,
    what,
    allMuted,
    receives: one !== null && arrange.freeOutputs(project, one).length > 0,
    receive,
    rename: () => first && openCard(first, "look"),
    remove,
    duplicate,
    group,
    moved,
    nudge,
    mute,
  };
}

/** Each of these with its key. */
function stripActions({ chosen }: Arranging, does: ReturnType<typeof stripGestures>) {
  const { has, what, allMuted, moved, nudge } = does;
  const section = "Strips";
  const actions: readonly (Action & { readonly keys: readonly string[] })[] = [
    {
      id: "strip-rename",
      title: "Name and mark…",
      group: section,
      keys: ["F2"],
      enabled: has,
      run: does.rename,
    },
    {
      id: "strip-mute",
      title: allMuted ? "Unmute" : "Mute",
      group: section,
      keys: ["M"],
      enabled: has,
      run: does.mute,
    },
    { id: "strip-up", title: "Move up", group: section, keys: ["Alt+ArrowUp"], enabled: has, run: nudge(-1) },
    { id: "strip-down", title: "Move down", group: section, keys: ["Alt+ArrowDown"], enabled: has, run: nudge(1) },
    { id: "strip-group", title: "Group", group: section, keys: ["Ctrl+G"], enabled: has, run: does.group },
    {
      id: "strip-in",
      title: "Put into the group above",
      group: section,
      keys: ["Ctrl+]"],
      enabled: has,
      run: moved(`Put ${what} into a group`, (now) => arrange.putInGroupAbove(now, chosen, mintKey)),
    },
    {
      id: "strip-out",
      title: "Take out of its group",
      group: section,
      keys: ["Ctrl+["],
      enabled: has,
      run: moved(`Take ${what} out of its group`, (now) => arrange.takeOutOfGroup(now, chosen, mintKey)),
    },
    { id: "strip-duplicate", title: "Duplicate", group: section, keys: ["Ctrl+D"], enabled: has, run: does.duplicate },
    {
      id: "strip-receive",
      title: "Receive its outputs on strips of their own",
      group: section,
      keys: [],
      enabled: does.receives,
      run: does.receive,
    },
    // The rows take that key themselves: in the library beside it would be for something else.
    {
      id: "strip-remove",
      title: "Remove…",
      group: section,
      keys: ["Delete"],
      native: true,
      enabled: has,
      run: does.remove,
    },
  ];
  return actions;
}

/** All that is done with strips as wholes: by key, in the field of actions, and in the menu of a row. */
export function useArranging(arranging: Arranging) {
  /** Strips that are to go, of which others hear, or to which they lead: where those go is asked first. */
  const [removing, setRemoving] = useState<readonly string[] | null>(null);
  const does = stripGestures(arranging, () => setRemoving(arranging.chosen));
  const actions = stripActions(arranging, does);
  const { what } = does;
  useActions(actions.map((action) => ({ ...action, title: `${action.title.replace("…", "")}: ${what}` })));

  const item = (id: string) => {
    const { title, keys, run } = actions.find((action) => action.id === id)!;
    return { id, label: title, beside: keys[0]?.replace("+", " ").replace("Arrow", ""), onChoose: run };
  };
  const menu: readonly MenuGroup[] = [
    { id: "look", items: [item("strip-rename"), item("strip-mute")] },
    { id: "order", items: ["strip-up", "strip-down", "strip-group", "strip-in", "strip-out"].map(item) },
    {
      id: "whole",
      items: [...(does.receives ? [item("strip-receive")] : []), item("strip-duplicate"), item("strip-remove")],
    },
  ];
  return { menu, removing, remove: does.remove, onRemoved: () => setRemoving(null) };
}
