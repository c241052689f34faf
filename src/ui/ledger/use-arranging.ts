"use client";

import { useState } from "react";
import { counted } from "@/core/names/count";
import { type Project, findStrip } from "@/core/projects/project";
import * as arrange from "@/core/recall/arrange";
import type { Step } from "@/core/recall/steps";
import { fail } from "@/core/result";
import { type Strip, stripName } from "@/core/strips/strip";
import { type Action, useActions } from "../actions/actions";
import type { MenuGroup } from "../kit/menu";
import { mintKey } from "../kit/mint";
import { sayError } from "../kit/say";
import { muteSteps } from "./cards/values";
import type { ColumnId } from "./views/layout";
import { type Turning, orRefuse } from "./use-turning";

interface Arranging {
  readonly project: Project;
  /** The rows that are shown. */
  readonly rows: readonly Strip[];
  /** Why they cannot be moved among each other; null where they can. */
  readonly stuck: string | null;
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
  const hold = (word: "Group" | "Folder") => () => {
    const label = word === "Group" ? `Group ${what}` : `Put ${what} into a folder`;
    const [fresh] = made(label, (now) => {
      const make = word === "Group" ? arrange.groupStrips : arrange.folderStrips;
      const held = make(now, chosen, arrange.nameForHolder(now, chosen, word), mintKey);
      if (held.ok) return { steps: held.value.steps, strips: [held.value.holder] };
      sayError(held.error);
      return NOTHING_MADE;
    });
    if (fresh !== undefined) openCard(fresh, "look");
  };
  return { duplicate, receive, group: hold("Group"), folder: hold("Folder") };
}

interface Made {
  readonly steps: readonly Step[];
  readonly strips: readonly string[];
}

const NOTHING_MADE: Made = { steps: [], strips: [] };

/** Each thing that is done with strips as wholes. */
function stripGestures(arranging: Arranging, onAsk: () => void) {
  const { project, rows, stuck, chosen, turning, openCard } = arranging;
  const has = chosen.length > 0;
  const [first] = chosen;
  const one = chosen.length === 1 && first !== undefined ? findStrip(project, first) : null;
  const what = one ? stripName(one) : counted(chosen.length, "strip");
  const { change } = turning;
  const sounding = arrange.standing(project, chosen).filter(({ kind }) => kind !== "folder");
  const allMuted = sounding.length > 0 && sounding.every(({ level }) => level.mute);
  const remove = () => {
    // What stood in a folder goes on to the folder around it, or to none: nobody needs to be asked.
    if (arrange.findBereft(project, chosen).some(({ part }) => part !== "look")) return onAsk();
    change(
      `Remove ${what}`,
      orRefuse((now) =>
        arrange.removeStrips(now, chosen, arrange.firstHeirs(arrange.findBereft(now, chosen)), mintKey),
      ),
    );
  };
  const moved =
    (label: string, how: (now: Project) => arrange.Arranged): (() => void) =>
    () =>
      change(label, orRefuse(how));
  const nudge = (by: 1 | -1) =>
    moved(`Move ${what} ${by > 0 ? "down" : "up"}`, (now) =>
      stuck === null
        ? arrange.nudgeStrips(now, chosen, { by, among: new Set(rows.map(({ id }) => id)) }, mintKey)
        : fail(stuck),
    );

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

type StripGestures = ReturnType<typeof stripGestures>;
type Keyed = Action & { readonly keys: readonly string[] };

const GROUP = "Strips";

/** What is done with strips, each with its key. */
function stripActions(arranging: Arranging, does: StripGestures): readonly Keyed[] {
  const shared = { group: GROUP, enabled: does.has };
  return [
    { ...shared, id: "strip-rename", title: "Name and mark…", keys: ["F2"], run: does.rename },
    { ...shared, id: "strip-mute", title: does.allMuted ? "Unmute" : "Mute", keys: ["M"], run: does.mute },
    ...orderActions(arranging, does),
    { ...shared, id: "strip-duplicate", title: "Duplicate", keys: ["Ctrl+D"], run: does.duplicate },
    {
      id: "strip-receive",
      title: "Receive its outputs on strips of their own",
      group: GROUP,
      keys: [],
      enabled: does.receives,
      run: does.receive,
    },
    // The rows take that key themselves: in the library beside it would be for something else.
    { ...shared, id: "strip-remove", title: "Remove…", keys: ["Delete"], native: true, run: does.remove },
  ];
}

/** Where strips stand. */
function orderActions(
  { chosen }: Arranging,
  { has, what, moved, nudge, group, folder }: StripGestures,
): readonly Keyed[] {
  const shared = { group: GROUP, enabled: has };
  return [
    { ...shared, id: "strip-up", title: "Move up", keys: ["Alt+ArrowUp"], run: nudge(-1) },
    { ...shared, id: "strip-down", title: "Move down", keys: ["Alt+ArrowDown"], run: nudge(1) },
    { ...shared, id: "strip-group", title: "Group", keys: ["Ctrl+G"], run: group },
    { ...shared, id: "strip-folder", title: "Put into a folder", keys: ["Ctrl+Shift+G"], run: folder },
    {
      ...shared,
      id: "strip-in",
      title: "Put into the group or folder above",
      keys: ["Ctrl+]"],
      run: moved(`Put ${what} into what is above`, (now) => arrange.putIntoAbove(now, chosen, mintKey)),
    },
    {
      ...shared,
      id: "strip-out",
      title: "Take out of its group or folder",
      keys: ["Ctrl+["],
      run: moved(`Take ${what} out`, (now) => arrange.takeOut(now, chosen, mintKey)),
    },
  ];
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
    {
      id: "order",
      items: ["strip-up", "strip-down", "strip-group", "strip-folder", "strip-in", "strip-out"].map(item),
    },
    {
      id: "whole",
      items: [...(does.receives ? [item("strip-receive")] : []), item("strip-duplicate"), item("strip-remove")],
    },
  ];
  return { menu, removing, remove: does.remove, onRemoved: () => setRemoving(null) };
}
