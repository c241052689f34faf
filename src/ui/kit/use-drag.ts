"use client";

import { type PointerEvent, useEffect, useRef } from "react";

export interface DragPoint {
  /** Within the element, from its upper left: in the units of a plot's own view, else in pixels. */
  readonly x: number;
  readonly y: number;
  /** The whole of the element, in the same units. */
  readonly width: number;
  readonly height: number;
  /** Since the last event; a tenth of it while Shift is held, which is `fine`. */
  readonly dx: number;
  readonly dy: number;
  readonly fine: boolean;
}

/** How a drag ended: something was moved; it was only pressed; it was broken off, and nothing is to stay of it. */
export type DragEnd = "moved" | "pressed" | "broken off";

interface Drag {
  /** False where the press is not taken. */
  readonly onStart?: (point: DragPoint) => boolean | undefined;
  readonly onMove: (point: DragPoint) => void;
  readonly onEnd: (end: DragEnd) => void;
  /** Below this way of the pointer, in pixels, a press is a click: the first of a double-click too. */
  readonly begins?: number;
}

export const FINE = 0.1;

function boxOf(element: Element) {
  const svg = element instanceof SVGElement ? (element.ownerSVGElement ?? (element as SVGSVGElement)) : null;
  const box = (svg ?? element).getBoundingClientRect();
  return { box, width: svg?.viewBox.baseVal.width ?? box.width, height: svg?.viewBox.baseVal.height ?? box.height };
}

interface Pressed {
  readonly clientX: number;
  readonly clientY: number;
  last: { readonly x: number; readonly y: number };
  moved: boolean;
  readonly stopListening: () => void;
}

/** Presses that a drag has begun with. */
const TAKEN = new WeakSet<Event>();

/** Escape breaks off the drag that is under way, and nothing else hears it. Gives back the way to stop listening. */
function onEscape(breakOff: () => void): () => void {
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "Escape") return;
    event.preventDefault();
    event.stopImmediatePropagation();
    breakOff();
  };
  window.addEventListener("keydown", onKeyDown, { capture: true });
  return () => window.removeEventListener("keydown", onKeyDown, { capture: true });
}

/** Pointer handlers for whatever is turned or pulled by dragging: rulers, pads, handles on plots. */
export function useDrag({ onStart, onMove, onEnd, begins = 0 }: Drag) {
  const pressed = useRef<Pressed | null>(null);
  const pointOf = (event: PointerEvent<Element>, last: Pressed["last"] | null): DragPoint => {
    const { box, width, height } = boxOf(event.currentTarget);
    const x = ((event.clientX - box.left) / box.width) * width;
    const y = ((event.clientY - box.top) / box.height) * height;
    const share = event.shiftKey ? FINE : 1;
    const way = last ? { dx: (x - last.x) * share, dy: (y - last.y) * share } : { dx: 0, dy: 0 };
    return { x, y, width, height, ...way, fine: event.shiftKey };
  };
  const end = (how: DragEnd) => {
    if (pressed.current === null) return;
    pressed.current.stopListening();
    pressed.current = null;
    onEnd(how);
  };
  const ending = useRef(end);
  useEffect(() => {
    ending.current = end;
  });
  // What is taken from the screen while it is dragged is listened to no longer.
  useEffect(() => () => pressed.current?.stopListening(), []);
  return {
    onPointerDown(event: PointerEvent<Element>) {
      if (event.button !== 0) return;
      // Of several that lie in each other the innermost takes it; all else, as what closes menus, hears of it too.
      if (TAKEN.has(event.nativeEvent)) return;
      TAKEN.add(event.nativeEvent);
      const point = pointOf(event, null);
      if (onStart?.(point) === false) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      const stopListening = onEscape(() => ending.current("broken off"));
      pressed.current = { clientX: event.clientX, clientY: event.clientY, last: point, moved: false, stopListening };
    },
    onPointerMove(event: PointerEvent<Element>) {
      const { current } = pressed;
      if (current === null) return;
      if (!current.moved && Math.hypot(event.clientX - current.clientX, event.clientY - current.clientY) < begins)
        return;
      const point = pointOf(event, current.last);
      current.last = point;
      if (point.dx === 0 && point.dy === 0) return;
      current.moved = true;
      onMove(point);
    },
    onPointerUp: () => end(pressed.current?.moved ? "moved" : "pressed"),
    onPointerCancel: () => end("broken off"),
  };
}
