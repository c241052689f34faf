"use client";

import { type KeyboardEvent, useState } from "react";
import type { Box } from "@/core/plots/axes";
import { getSpec } from "@/core/processors/model";
import { type ParamId, type Value, clampTo, valueIn } from "@/core/units/param-spec";
import { formatPlain } from "@/core/units/format";
import { isNoteLength, nearestNote } from "@/core/units/note-length";
import { beatsPerMinute } from "@/core/units/quantities";
import { round, stepValue } from "../../kit/value-line";
import { type EditorProps, heardOf } from "./editor";
import { Handle } from "./handle";
import type { DragPoint } from "../../kit/use-drag";

/** A value that a handle moves along one edge of the plot. */
export interface Axis {
  readonly id: ParamId;
  readonly place: (value: number) => number;
  readonly value: (place: number) => number;
  /** Which way an arrow to the right, or up, moves the value. */
  readonly more?: 1 | -1;
}

interface Props {
  readonly editor: EditorProps;
  readonly box: Box;
  /** null where the handle stands fast in that direction, at `at`. */
  readonly across: Axis | null;
  readonly upward: Axis | null;
  readonly at?: { readonly x?: number; readonly y?: number };
  readonly mark: string;
  readonly label: string;
  readonly selected: boolean;
  readonly dimmed?: boolean;
  readonly onSelect: () => void;
}

type Turned = Readonly<Record<ParamId, Value>>;

/** Half a handle stays within the plot. */
const MARGIN = 10;

const ARROWS: Record<string, readonly ["across" | "upward", 1 | -1]> = {
  ArrowRight: ["across", 1],
  ArrowLeft: ["across", -1],
  ArrowUp: ["upward", 1],
  ArrowDown: ["upward", -1],
};

/** A handle that moves one value across and one up and down: by the pointer or the arrow keys. */
export function PairHandle({ editor, box, across, upward, at = {}, onSelect, ...looks }: Props) {
  const { model, processor, tempo, onPreview, onTurn } = editor;
  const values = heardOf(model, processor, tempo);
  const [pulled, setPulled] = useState<Turned | null>(null);
  const axes = [across, upward].filter((axis) => axis !== null);
  const held = (axis: Axis): number => values[axis.id] ?? 0;
  const x = across ? across.place(held(across)) : (at.x ?? box.width / 2);
  const y = upward ? upward.place(held(upward)) : (at.y ?? box.height / 2);

  const moved = (axis: Axis, place: number): Turned => {
    const spec = getSpec(model, axis.id);
    const number = clampTo(spec, round(axis.value(place)));
    if (!isNoteLength(valueIn(processor.values, spec))) return { [axis.id]: number };
    return { [axis.id]: nearestNote(spec.unit === "Hz" ? 1000 / number : number, beatsPerMinute(tempo)) };
  };
  const move = (point: DragPoint) => {
    // A note length goes where the pointer is; a number moves by as much as the pointer does.
    const jumps = (axis: Axis) => isNoteLength(processor.values[axis.id]);
    const next = {
      ...(across && moved(across, jumps(across) ? point.x : x + point.dx)),
      ...(upward && moved(upward, jumps(upward) ? point.y : y + point.dy)),
    };
    setPulled(next);
    onPreview(next);
  };
  const end = (hasMoved: boolean) => {
    if (pulled && hasMoved) onTurn(pulled);
    else if (pulled) onPreview({});
    setPulled(null);
  };
  const key = (event: KeyboardEvent) => {
    const arrow = ARROWS[event.key];
    const axis = arrow && { across, upward }[arrow[0]];
    if (!axis || event.ctrlKey || event.altKey || event.metaKey) return;
    event.preventDefault();
    const spec = getSpec(model, axis.id);
    const direction = (arrow[1] * (axis.more ?? 1)) as 1 | -1;
    onTurn({ [axis.id]: stepValue(spec, valueIn(processor.values, spec), direction, event.shiftKey) });
  };
  const words = axes.map((axis) => {
    const spec = getSpec(model, axis.id);
    return formatPlain(spec, valueIn(processor.values, spec));
  });
  return (
    <Handle
      {...looks}
      width={box.width}
      x={Math.min(box.width - MARGIN, Math.max(MARGIN, x))}
      y={Math.min(box.height - MARGIN, Math.max(MARGIN, y))}
      text={words.join(", ")}
      onSelect={onSelect}
      onMove={move}
      onEnd={end}
      onKey={key}
      onReset={() => onTurn(Object.fromEntries(axes.map((axis) => [axis.id, getSpec(model, axis.id).default])))}
    />
  );
}
