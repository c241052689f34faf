"use client";

import { useRef } from "react";
import type { Macro } from "@/core/chains/chain";
import { type DragPoint, useDrag } from "../../kit/use-drag";

interface PadProps {
  readonly macro: Macro;
  readonly places: readonly (number | null)[];
  readonly onMove: (places: readonly number[]) => void;
  readonly onPreview: (places: readonly number[]) => void;
}

const PAD = { width: 232, height: 96 };
const PAD_STEP = 0.05;

/** Two axes on one field. */
export function Pad({ macro, places, onMove, onPreview }: PadProps) {
  const dragged = useRef<readonly number[] | null>(null);
  const [x, y] = [places[0] ?? 0, places[1] ?? 0];
  const before = useRef<readonly number[]>([x, y]);
  const held = (place: number) => Math.min(1, Math.max(0, place));
  const go = (point: DragPoint) => {
    dragged.current = [held(point.x / point.width), held(1 - point.y / point.height)];
    onPreview(dragged.current);
  };
  const drag = useDrag({
    onStart: (point) => {
      before.current = [x, y];
      go(point);
      return true;
    },
    onMove: go,
    onEnd: (how) => {
      if (how === "broken off") onPreview(before.current);
      else if (dragged.current) onMove(dragged.current);
    },
  });
  const percent = (place: number | null | undefined) =>
    place === null || place === undefined ? "–" : `${Math.round(100 * place)} %`;
  return (
    <svg
      role="slider"
      tabIndex={0}
      aria-label={macro.name}
      aria-valuenow={Math.round(100 * x)}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuetext={`across ${percent(places[0])}, up ${percent(places[1])}`}
      viewBox={`0 0 ${PAD.width} ${PAD.height}`}
      className="plot block w-full cursor-crosshair touch-none rounded-card border border-edge bg-ground"
      onKeyDown={(event) => {
        const step = event.shiftKey ? PAD_STEP / 5 : PAD_STEP;
        const ways: Record<string, readonly [number, number]> = {
          ArrowRight: [step, 0],
          ArrowLeft: [-step, 0],
          ArrowUp: [0, step],
          ArrowDown: [0, -step],
        };
        const way = ways[event.key];
        if (!way || event.altKey || event.ctrlKey || event.metaKey) return;
        event.preventDefault();
        onMove([held(x + way[0]), held(y + way[1])]);
      }}
      {...drag}
    >
      <path className="axis" d={`M${PAD.width / 2} 0V${PAD.height}M0 ${PAD.height / 2}H${PAD.width}`} />
      <path
        d={`M${x * PAD.width} 0V${PAD.height}M0 ${(1 - y) * PAD.height}H${PAD.width}`}
        style={{ stroke: "var(--live)", strokeWidth: 1, opacity: 0.5 }}
      />
      <rect
        x={Math.min(PAD.width - 10, Math.max(0, x * PAD.width - 5))}
        y={Math.min(PAD.height - 10, Math.max(0, (1 - y) * PAD.height - 5))}
        width={10}
        height={10}
        rx={2}
        fill="var(--card)"
        stroke="var(--live)"
        strokeWidth={1.5}
      />
    </svg>
  );
}
