"use client";

import { counted } from "@/core/names/count";
import { useDraggable } from "@dnd-kit/core";
import { type KeyboardEvent, type MouseEvent, useRef } from "react";
import { type Processor, processorName } from "@/core/chains/chain";
import { type Model, getSpec } from "@/core/processors/model";
import { findModel } from "@/core/processors/models";
import { type ParamSpec, type Value, positionOf, valueAt, valueIn } from "@/core/units/param-spec";
import { formatPlain } from "@/core/units/format";
import { isNoteLength } from "@/core/units/note-length";
import { cx } from "../../kit/class-names";
import { Shape } from "../../kit/shape";
import { useDrag } from "../../kit/use-drag";
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
        : `${counted(differs, "value differs", "values differ")} from its preset`;
  const state = `${processor.enabled ? "" : ", off"}${words ? `, ${words}` : ""}`;
  return (
    <div
      ref={setNodeRef}
      data-tile
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
const DRAG_BEGINS = 2;

/** The value that people reach for first: dragged sideways, stepped by the arrow keys. */
function Lead({ processor, view }: Pick<Props, "processor" | "view">) {
  const model = findModel(processor.model);
  if (!model) return null;
  if (!processor.enabled) return <span className="num-small flex-none text-[11px] text-soft">off</span>;
  return <LeadValue processor={processor} view={view} model={model} />;
}

function LeadValue({ processor, view, model }: Pick<Props, "processor" | "view"> & { readonly model: Model }) {
  const spec = getSpec(model, model.lead);
  const value = valueIn(processor.values, spec);
  const start = useRef<{ readonly value: Value; way: number; now: Value }>({ value, way: 0, now: value });
  const drag = useDrag({
    begins: DRAG_BEGINS,
    onStart: () => {
      start.current = { value, way: 0, now: value };
      return true;
    },
    onMove: ({ dx }) => {
      const { current } = start;
      current.way += dx;
      current.now = draggedTo(spec, current.value, current.way);
      view.onPreviewLead(processor.key, current.now);
    },
    onEnd: (how) => {
      const { value: before, now } = start.current;
      if (how === "moved" && now !== before) view.onLead(processor.key, now);
      else if (how === "broken off") view.onPreviewLead(processor.key, before);
    },
  });
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
      {...drag}
    >
      {formatPlain(spec, value).replace(".0 ", " ")}
    </span>
  );
}

function draggedTo(spec: ParamSpec, value: Value, pixels: number): Value {
  if (isNoteLength(value)) return Math.abs(pixels) < 24 ? value : stepValue(spec, value, pixels > 0 ? 1 : -1, false);
  return round(valueAt(spec, positionOf(spec, value) + pixels / TRAVEL));
}
