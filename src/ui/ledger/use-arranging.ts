"use client";

import { useState } from "react";
import { counted } from "@/core/names/count";
import { type Project, findStrip } from "@/core/projects/project";
import * as arrange from "@/core/recall/arrange";
import type { Step } from "@/core/recall/steps";
import { type Strip, stripName } from "@/core/strips/strip";
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

/** What makes new strips out of those that are chosen, which are chosen then. */
function makingGestures({ chosen, turning, choose, openCard }: Arranging, one: Strip | null, what: string) {
  const { change } = turning;
  const made = (label: string, make: (now: Project) => Made) => {
    let strips: readonly string[] = [];
    change(label, (now) => {
      const { steps, strips: fresh } = make(now);
      strips = fresh;
      return steps;
    });
    if (strips.length > 0) choose(strips);
    return strips;
  };
  const duplicate = () => void made(`Duplicate ${what}`, (now) => arrange.duplicateStrips(now, chosen, mintKey));
  const receive = () =>
    void made(`Receive the outputs of ${what}`, (now) => {
      const instrument = one && findStrip(now, one.id);
      return instrument ? arrange.receiveOutputs(now, instrument, mintKey) : NOTHING_MADE;
    });
  const group = () => {
    const [fresh] = made(`Group ${what}`, (now) => {
      const grouped = arrange.groupStrips(now, chosen, arrange.nameForGroup(now, chosen), mintKey);
      if (grouped.ok) return { steps: grouped.value.steps, strips: [grouped.value.group] };
      sayError(grouped.error);
      return NOTHING_MADE;
    });
    if (fresh !== undefined) openCard(fresh, "look");
  };
  return { duplicate, receive, group };
}

interface Made {
  readonly steps: readonly Step[];
  readonly strips: readonly string[];
}

const NOTHING_MADE: Made = { steps: [], strips: [] };

/** Each thing that is done with strips as wholes. */
function stripGestures(arranging: Arranging, onAsk: () => void) {
  const { project, chosen, turning, openCard } = arranging;
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
  const moved =
    (label: string, how: (now: Project) => arrange.Arranged): (() => void) =>
    () =>
      change(label, orRefuse(how));
  const nudge = (by: 1 | -1) =>
    moved(`Move ${what} ${by > 0 ? "down" : "up"}`, (now) => arrange.nudgeStrips(now, chosen, by, mintKey));

  const mute = () => change(allMuted ? `Unmute ${what}` : `Mute ${what}`, muteSteps(chosen, !allMuted));
  return {
    has,
    what,
    allMuted,
    receives: one !== null && arrange.freeOutputs(project, one).length > 0,
    ...makingGestures(arranging, one, what),
    rename: () => first && openCard(first, "look"),
    remove,
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
