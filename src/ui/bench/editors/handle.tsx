"use client";

import type { KeyboardEvent } from "react";
import { cx } from "../../kit/class-names";
import { type DragPoint, useDrag } from "../../kit/use-drag";
import { type Wheel, useWheel } from "../../kit/use-wheel";

interface Props {
  /** How wide the plot is that it stands on. */
  readonly width: number;
  readonly x: number;
  readonly y: number;
  readonly mark: string;
  readonly label: string;
  readonly text: string;
  readonly selected: boolean;
  readonly dimmed?: boolean;
  readonly onSelect: () => void;
  readonly onMove: (point: DragPoint) => void;
  readonly onEnd: (moved: boolean) => void;
  readonly onKey: (event: KeyboardEvent) => void;
  readonly onReset: () => void;
  /** What the wheel turns, where there is a third value to it. */
  readonly wheel?: Wheel<number>;
}

const NOTHING_TO_TURN: Wheel<number> = {
  value: 0,
  step: (value) => value,
  onChange: () => undefined,
  onChangeEnd: () => undefined,
};

const SIZE = 18;

/** A square on a plot that is dragged, or moved by the arrow keys. */
export function Handle({
  width,
  x,
  y,
  mark,
  label,
  text,
  selected,
  dimmed,
  onSelect,
  onMove,
  onEnd,
  onKey,
  onReset,
  wheel,
}: Props) {
  const turned = useWheel(wheel ?? NOTHING_TO_TURN);
  const drag = useDrag({
    onStart: () => {
      onSelect();
      return true;
    },
    onMove,
    onEnd: (how) => onEnd(how === "moved"),
  });
  return (
    // Two values on one handle: its place across is told as the slider's, both stand in its text.
    <g
      ref={wheel ? turned : null}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuetext={text}
      aria-valuemin={0}
      aria-valuemax={width}
      aria-valuenow={Math.round(Math.min(width, Math.max(0, x)))}
      transform={`translate(${x} ${y})`}
      className="cursor-move touch-none outline-none [&:focus-visible>rect]:stroke-[3px]"
      onFocus={onSelect}
      onKeyDown={onKey}
      onDoubleClick={(event) => {
        event.stopPropagation();
        onReset();
      }}
      {...drag}
    >
      <rect x={-14} y={-14} width={28} height={28} fill="transparent" stroke="none" />
      <rect
        x={-SIZE / 2}
        y={-SIZE / 2}
        width={SIZE}
        height={SIZE}
        rx={2}
        fill="var(--card)"
        stroke={selected ? "var(--live)" : "var(--bound)"}
        strokeWidth={1.5}
        strokeDasharray={dimmed ? "2 2" : undefined}
      />
      <text textAnchor="middle" y={4} className={cx("num-small select-none", dimmed && "opacity-60")} fill="var(--ink)">
        {mark}
      </text>
    </g>
  );
}
