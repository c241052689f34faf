"use client";

import { useEffect, useId, useRef } from "react";
import { create } from "zustand";
import type { KeyUse } from "@/core/settings/keys";
import { isPointed, watchReach } from "./reached";
import { isDone } from "./passed-on";

/** Something that can be done. Keys, the action field and the sheet of shortcuts all read these. */
export interface Action {
  readonly id: string;
  readonly title: string;
  readonly group: string;
  /** As in "Ctrl+K", "Shift+Enter", "/": any of them does it. */
  readonly keys?: readonly string[];
  /** Left out where it cannot be done now; then it is neither listed nor run. */
  readonly enabled?: boolean;
  /** Only by its key: arrows and the like, which make no sense in the field. */
  readonly keyOnly?: boolean;
  /** It takes back or does again what was done: it is listed behind all that does something new. */
  readonly past?: boolean;
  /** The key is the browser's own, and left to it: it is only told. */
  readonly native?: boolean;
  readonly run: () => void;
}

/** Where actions are offered: by the screen in front, or by what stands around every screen. */
type Where = "screen" | "everywhere";

interface Registry {
  /** What screens offer stands before what is offered everywhere, whichever came first; of each the newest first. The first wins. */
  readonly lists: readonly { readonly owner: string; readonly where: Where; readonly actions: readonly Action[] }[];
}

const useRegistry = create<Registry>(() => ({ lists: [] }));

const put = (owner: string, where: Where, actions: readonly Action[]): void =>
  useRegistry.setState(({ lists }) => {
    const entry = { owner, where, actions };
    if (lists.some((l) => l.owner === owner)) return { lists: lists.map((l) => (l.owner === owner ? entry : l)) };
    const [screens, others] = [lists.filter((l) => l.where === "screen"), lists.filter((l) => l.where !== "screen")];
    return { lists: where === "screen" ? [entry, ...lists] : [...screens, entry, ...others] };
  });

const drop = (owner: string): void =>
  useRegistry.setState(({ lists }) => ({ lists: lists.filter((l) => l.owner !== owner) }));

const outline = (actions: readonly Action[]): string => JSON.stringify(actions.map(({ run: _, ...rest }) => rest));

/** Offers actions while the component is there. What they do is always the newest; the list is told anew when it reads differently. */
export function useActions(actions: readonly Action[], where: Where = "screen"): void {
  const owner = useId();
  const newest = useRef(actions);
  const text = outline(actions);
  useEffect(() => {
    newest.current = actions;
  });
  useEffect(() => {
    const stable = newest.current.map((action, at) => ({ ...action, run: () => newest.current[at]?.run() }));
    put(owner, where, stable);
  }, [owner, where, text]);
  useEffect(() => () => drop(owner), [owner]);
}

const isEnabled = (action: Action): boolean => action.enabled !== false;

/** All that can be done now, what the screen itself offers first; of two with one id the newer. */
export function useEnabledActions(): readonly Action[] {
  const lists = useRegistry((r) => r.lists);
  const seen = new Set<string>();
  return lists
    .flatMap((l) => l.actions)
    .filter(isEnabled)
    .filter(({ id }) => !seen.has(id) && seen.add(id));
}

const NAMED: Record<string, string> = { " ": "Space", Esc: "Escape" };

/** A key press as actions write it. Shift is named only where the character does not show it. */
export function keyOf(event: Pick<KeyboardEvent, "key" | "ctrlKey" | "metaKey" | "altKey" | "shiftKey">): string {
  const { altKey, shiftKey } = event;
  const control = event.ctrlKey || event.metaKey;
  const key = NAMED[event.key] ?? event.key;
  const isSign = key.length === 1 && !/[a-z]/i.test(key) && !control && !altKey;
  const held = [control ? "Ctrl" : "", altKey ? "Alt" : "", shiftKey && !isSign ? "Shift" : ""].filter(
    (word) => word !== "",
  );
  return [...held, key.length === 1 ? key.toUpperCase() : key].join("+");
}

const TYPING = "input, textarea, select, [contenteditable=true]";
const PRESSED = "button, a, summary, [role=switch], [role=checkbox], [role=radio], [role=menuitem], [role=tab]";

const isPlain = ({ ctrlKey, metaKey, altKey }: KeyboardEvent): boolean => !ctrlKey && !metaKey && !altKey;

/** While a menu is open it has the keyboard. */
const MENU = "[role=menu]";

/** Whether a press belongs to what has the focus: all to a menu, letters to a field, Space and Enter to a button. */
function belongsToFocus(event: KeyboardEvent, key: string): boolean {
  if (document.querySelector(MENU)) return true;
  const { target } = event;
  if (!(target instanceof Element)) return false;
  if (target.closest(TYPING)) return key === "Ctrl+A" || isPlain(event);
  const control = target.closest(PRESSED);
  if (!control || (key !== "Space" && key !== "Enter")) return false;
  return key === "Enter" || pressedBySpace(control);
}

/** A tile is opened by Enter or a click: on it, as on what the pointer pressed, Space plays. */
const pressedBySpace = (control: Element): boolean => !isPointed(control) && control.closest("[data-node]") === null;

/** How long the second press of two may take, in milliseconds. */
const SECOND_PRESS = 1500;

/**
 * The first press of two that was made, and until when it counts. A press that begins no pair, or comes too late, is a
 * press of its own.
 */
let begun: { readonly press: string; readonly until: number } | null = null;

/** What has been pressed so far: this key, or this as the second of two. `at`: when it was pressed, whenever it is read. */
function pressed(key: string, at: number, actions: readonly Action[]): string {
  const both = begun && begun.until > at ? `${begun.press} ${key}` : null;
  begun = null;
  return both !== null && actions.some((a) => a.keys?.includes(both)) ? both : key;
}

/** Something else has read it, or it is only held for another. */
const isTaken = (event: KeyboardEvent): boolean =>
  isDone(event) || event.isComposing || ["Shift", "Control", "Alt", "Meta"].includes(event.key);

/** One listener for all keys. What a control has already taken is left alone. */
export function useActionKeys(): void {
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const key = keyOf(event);
      if (isTaken(event) || belongsToFocus(event, key)) return;
      const inSheet = document.querySelector(SHEET) !== null;
      // The newest that has the key owns it, also while it cannot be done: no other may act in its place.
      const actions = useRegistry.getState().lists.flatMap((l) => l.actions);
      const keys = pressed(key, event.timeStamp, actions);
      const action = actions.find((a) => a.keys?.includes(keys));
      if (action?.native) return;
      if (!action && !inSheet && actions.some((a) => a.keys?.some((k) => k.startsWith(`${keys} `)))) {
        begun = { press: keys, until: event.timeStamp + SECOND_PRESS };
        event.preventDefault();
        return;
      }
      if (!action || !isEnabled(action) || (inSheet && !SAFE_IN_SHEET.has(action.id))) return;
      event.preventDefault();
      action.run();
    };
    window.addEventListener("keydown", onKeyDown);
    const stopWatching = watchReach();
    return () => {
      stopWatching();
      window.removeEventListener("keydown", onKeyDown);
    };
  }, []);
}

/** A sheet that is open, or on its way: what is typed for it must not be done behind it. */
const SHEET = "[role=dialog], [data-opening]";

/** A sheet takes the keyboard; the sound can still be heard and compared. */
const SAFE_IN_SHEET = new Set(["play", "dry", "ab", "match"]);

const SIGNS: Record<string, string> = { ArrowUp: "↑", ArrowDown: "↓", ArrowLeft: "←", ArrowRight: "→", Escape: "Esc" };

/** "Ctrl+Shift+Z" as it is shown: "Ctrl Shift Z"; two presses one after the other as "Q, V". */
export const showKey = (keys: string): string =>
  keys
    .split(" ")
    .map((press) =>
      press
        .split("+")
        .map((part) => SIGNS[part] ?? part)
        .join(" "),
    )
    .join(", ");

/** Every key that does something here, with what it does. */
export const useKeyUses = (): readonly KeyUse[] =>
  useEnabledActions().flatMap(({ keys, title, id }) => (keys ?? []).map((k) => ({ keys: k, title, id })));
