"use client";

import { type PointerEvent, useRef } from "react";

export interface DragPoint {
  /** Within the plot, in its own units. */
  readonly x: number;
  readonly y: number;
  /** Since the last event, a tenth of it with Shift. */
  readonly dx: number;
  readonly dy: number;
}

interface Drag {
  readonly onStart?: (point: DragPoint) => void;
  readonly onMove: (point: DragPoint) => void;
  readonly onEnd: (moved: boolean) => void;
}

const FINE = 0.1;

/** Pointer handlers for dragging something within a plot's svg. A press without movement, and a drag that is broken off, end with `moved` false. */
export function useDrag({ onStart, onMove, onEnd }: Drag) {
  const last = useRef<{ x: number; y: number } | null>(null);
  const moved = useRef(false);
  const place = (event: PointerEvent<SVGElement>) => {
    const svg = event.currentTarget.ownerSVGElement ?? (event.currentTarget as SVGSVGElement);
    const box = svg.getBoundingClientRect();
    const view = svg.viewBox.baseVal;
    return {
      x: ((event.clientX - box.left) / box.width) * view.width,
      y: ((event.clientY - box.top) / box.height) * view.height,
    };
  };
  const end = (hasMoved: boolean) => {
    if (last.current === null) return;
    last.current = null;
    onEnd(hasMoved);
  };
  return {
    onPointerDown(event: PointerEvent<SVGElement>) {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      last.current = place(event);
      moved.current = false;
      onStart?.({ ...last.current, dx: 0, dy: 0 });
    },
    onPointerMove(event: PointerEvent<SVGElement>) {
      if (last.current === null) return;
      const now = place(event);
      const share = event.shiftKey ? FINE : 1;
      const [dx, dy] = [(now.x - last.current.x) * share, (now.y - last.current.y) * share];
      last.current = now;
      if (dx === 0 && dy === 0) return;
      moved.current = true;
      onMove({ ...now, dx, dy });
    },
    onPointerUp: () => end(moved.current),
    onPointerCancel: () => end(false),
  };
}
