"use client";

import { type RefCallback, useCallback, useEffect, useRef } from "react";
import { onLeaving } from "@/clients/leaving";

export interface Wheel<T> {
  readonly value: T;
  /** What one notch makes of a value: up is 1; fine with Shift. */
  readonly step: (value: T, direction: 1 | -1, fine: boolean) => T;
  readonly onChange: (value: T) => void;
  readonly onChangeEnd: (value: T) => void;
}

/** The wheel rests when it has not turned for so long: in milliseconds. */
const RESTS_AFTER = 350;

/**
 * Turns a value by the wheel: heard with each notch, done once when the wheel rests. For the element that the pointer is over;
 * what lies around it is not scrolled meanwhile.
 */
export function useWheel<T>(wheel: Wheel<T>): RefCallback<Element> {
  const newest = useRef(wheel);
  const turned = useRef<{ readonly value: T; readonly timer: ReturnType<typeof setTimeout> } | null>(null);
  useEffect(() => {
    newest.current = wheel;
  });
  return useCallback((element: Element | null) => {
    if (!element) return;
    const rest = () => {
      const { current } = turned;
      turned.current = null;
      if (!current) return;
      clearTimeout(current.timer);
      newest.current.onChangeEnd(current.value);
    };
    const stay = onLeaving(rest);
    const onWheel = (event: Event) => {
      const { deltaX, deltaY, shiftKey, ctrlKey } = event as WheelEvent;
      // With Control the page is made larger. With Shift some browsers turn the wheel sideways.
      const way = deltaY || deltaX;
      if (ctrlKey || way === 0) return;
      event.preventDefault();
      const { value, step, onChange } = newest.current;
      const next = step(turned.current ? turned.current.value : value, way < 0 ? 1 : -1, shiftKey);
      if (turned.current) clearTimeout(turned.current.timer);
      turned.current = { value: next, timer: setTimeout(rest, RESTS_AFTER) };
      onChange(next);
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => {
      element.removeEventListener("wheel", onWheel);
      stay();
      rest();
    };
  }, []);
}
