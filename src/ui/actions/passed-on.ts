import type { KeyboardEvent } from "react";
import { isPointed } from "./reached";

const PASSED = new WeakSet<Event>();

/** A key that something on screen would take, and that is none of its: with Ctrl or Alt it is the screen's. */
export function passOn(event: { readonly nativeEvent: Event; readonly preventDefault: () => void }): void {
  PASSED.add(event.nativeEvent);
  event.preventDefault();
}

/**
 * What opens a menu takes Enter, arrows and Space. With Ctrl or Alt they are the screen's, also where the hand has just chosen
 * from it; and Space plays on what the pointer pressed, as everywhere.
 */
export function passOnFromTrigger(event: KeyboardEvent): void {
  const isHeld = event.ctrlKey || event.metaKey || event.altKey;
  if (isHeld || (event.key === " " && isPointed(event.currentTarget))) passOn(event);
}

/** Whether somebody has done with an event what there was to do. */
export const isDone = (event: Event): boolean => event.defaultPrevented && !PASSED.has(event);
