"use client";

import { useDraggable } from "@dnd-kit/core";
import { type KeyboardEvent, type MouseEvent, useRef } from "react";
import { type Processor, processorName } from "@/core/chains/chain";
import { getSpec } from "@/core/processors/model";
import { findModel } from "@/core/processors/models";
import { type ParamSpec, type Value, positionOf, valueAt } from "@/core/units/param-spec";
import { formatPlain } from "@/core/units/format";
import { isNoteLength } from "@/core/units/note-length";
import { cx } from "../../kit/class-names";
import { Shape } from "../../kit/shape";
import { round, stepValue } from "../../kit/value-line";
import type { ChainView } from "./chain-view";

interface Props {
  readonly processor: Processor;
  readonly view: ChainView;
  /** Within lanes tiles are lower. */
  readonly small: boolean;
}

const howOf = (event: MouseEvent): "only" | "also" | "upTo" =>
  event.shiftKey ? "upTo" : event.ctrlKey || event.metaKey ? "also" : "only";

/** One plugin of the chain: its shape, whether signal arrives, its name and its lead value, which is changed right here. */
export function Tile({ processor, view, small }: Props) {
  const { key } = processor;
  const isSelected = view.selected === key;
  const isChosen = view.chosen.has(key);
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: key });
  const { onKeyDown: _, ...pointer } = listeners ?? {};
  const size = small ? { width: 112, height: 34 } : { width: 138, height: 50 };
  const differs = view.changed.get(key);
  const words =
    differs === undefined
      ? null
      : differs === 0
        ? "new since it was saved"
        : `${differs} value${differs === 1 ? "" : "s"} differ${differs === 1 ? "s" : ""} from its preset`;
  const state = `${processor.enabled ? "" : ", off"}${words ? `, ${words}` : ""}`;
  return (
    <div
      ref={setNodeRef}
      className={cx("grid flex-none grid-cols-[minmax(0,1fr)] gap-[3px]", isDragging && "opacity-40")}
      style={{ width: size.width }}
    >
      <button
        type="button"
        {...pointer}
        aria-roledescription={attributes["aria-roledescription"]}
        aria-pressed={isSelected}
        aria-label={`${processorName(processor)}${state}`}
        data-node={key}
        onClick={(event) => view.onSelect(key, howOf(event))}
        className="relative block touch-none rounded-card text-left"
      >
        <Shape
          processor={processor}
          tempo={view.tempo}
          {...size}
          className={cx(isSelected && "border-live! outline outline-live", isChosen && !isSelected && "border-live!")}
        />
        <i
          ref={view.light(key)}
          title="Signal arrives"
          className="absolute top-[5px] left-[5px] size-[6px] rounded-full border border-edge data-[level=arrives]:border-live data-[level=arrives]:bg-live data-[level=clips]:rounded-none data-[level=clips]:border-alert data-[level=clips]:bg-alert"
        />
      </button>
      <span className="flex items-baseline justify-between gap-2 text-small">
        <span className="truncate" title={processorName(processor)}>
          {processorName(processor)}
          {words && (
            <span className="num-small text-[11px] text-edit" title={`${words[0]!.toUpperCase()}${words.slice(1)}`}>
              {" "}
              {differs === 0 ? "+" : `·${differs}`}
            </span>
          )}
        </span>
        <Lead processor={processor} view={view} />
      </span>
    </div>
  );
}

/** How far the pointer goes for the whole range, in pixels. */
const TRAVEL = 160;

/** The value that people reach for first: dragged sideways, stepped by the arrow keys. */
function Lead({ processor, view }: Pick<Props, "processor" | "view">) {
  const model = findModel(processor.model);
  const start = useRef<{ x: number; value: Value; now: Value } | null>(null);
  if (!model) return null;
  if (!processor.enabled) return <span className="num-small flex-none text-[11px] text-soft">off</span>;
  const spec = getSpec(model, model.lead);
  const value = processor.values[model.lead] ?? spec.default;
  const onKeyDown = (event: KeyboardEvent) => {
    const direction = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key] as 1 | -1 | undefined;
    if (!direction || event.altKey || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    view.onLead(processor.key, stepValue(spec, value, direction, event.shiftKey));
  };
  return (
    <span
      role="slider"
      tabIndex={0}
      aria-label={`${processorName(processor)}: ${spec.name}`}
      aria-valuemin={spec.min}
      aria-valuemax={spec.max}
      aria-valuenow={isNoteLength(value) ? spec.min : value}
      aria-valuetext={formatPlain(spec, value)}
      title={`${spec.name}: drag sideways`}
      className="num-small flex-none cursor-ew-resize touch-none rounded-card text-[11px] text-soft hover:text-ink"
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        start.current = { x: event.clientX, value, now: value };
      }}
      onPointerMove={(event) => {
        if (!start.current || Math.abs(event.clientX - start.current.x) < 2) return;
        start.current.now = draggedTo(spec, start.current.value, event.clientX - start.current.x);
        view.onPreviewLead(processor.key, start.current.now);
      }}
      onPointerUp={() => {
        const end = start.current;
        start.current = null;
        if (end && end.now !== end.value) view.onLead(processor.key, end.now);
      }}
    >
      {formatPlain(spec, value).replace(".0 ", " ")}
    </span>
  );
}

function draggedTo(spec: ParamSpec, value: Value, pixels: number): Value {
  if (isNoteLength(value)) return Math.abs(pixels) < 24 ? value : stepValue(spec, value, pixels > 0 ? 1 : -1, false);
  return round(valueAt(spec, positionOf(spec, value) + pixels / TRAVEL));
}
