"use client";

import { Waypoints } from "lucide-react";
import { type KeyboardEvent, type ReactNode, useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { type ParamSpec, type Value, clampTo, positionOf, valueAt } from "@/core/units/param-spec";
import { heardValue } from "@/core/processors/model";
import { formatHeard, formatPlain, formatValue, parseValue } from "@/core/units/format";
import { NOTES, beatsOf, isNoteLength } from "@/core/units/note-length";
import { beatsPerMinute } from "@/core/units/quantities";
import { cx } from "./class-names";
import { giveBack } from "./keep-focus";
import { FINE, useDrag } from "./use-drag";
import { useWheel } from "./use-wheel";

interface Props {
  readonly spec: ParamSpec;
  readonly label?: string;
  readonly value: Value;
  /** As it was saved; marked on the ruler, and the value stands in ochre where it differs. */
  readonly saved?: Value | undefined;
  readonly tempo: number;
  /** Names of the macros that move it. */
  readonly movedBy?: readonly string[];
  /** Called when it is taken hold of; true where the touch was for something else, and the value stays. */
  readonly onTouch?: (() => boolean) | undefined;
  readonly onChange: (value: Value) => void;
  readonly onChangeEnd: (value: Value) => void;
}

const NOTE_STEPS = NOTES.map((note) => ({ note, feel: "straight" as const })).toSorted(
  (a, b) => beatsOf(a) - beatsOf(b),
);

/** The next longer or shorter note length. */
function stepNote(value: Value, direction: 1 | -1): Value {
  if (!isNoteLength(value)) return value;
  const longer = direction > 0;
  const list = longer ? NOTE_STEPS : NOTE_STEPS.toReversed();
  return list.find((n) => (longer ? beatsOf(n) > beatsOf(value) : beatsOf(n) < beatsOf(value))) ?? value;
}

const COARSE = 1 / 40;

/** What an arrow key makes of a value: a step of the parameter, a tenth of it with Shift. */
export function stepValue(spec: ParamSpec, value: Value, direction: 1 | -1, fine: boolean): Value {
  if (isNoteLength(value)) return stepNote(value, direction);
  if (spec.step !== undefined) return clampTo(spec, round(value + direction * spec.step * (fine ? FINE : 1)));
  return round(valueAt(spec, positionOf(spec, value) + direction * COARSE * (fine ? FINE : 1)));
}

/** Dragging and stepping land on numbers that a person would type. */
export const round = (value: number): number => Number(value.toPrecision(4));

/** In pixels. */
const DRAG_BEGINS = 3;

const STEPS: Partial<Record<string, 1 | -1>> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };

const isHeld = ({ ctrlKey, altKey, metaKey }: Pick<KeyboardEvent, "ctrlKey" | "altKey" | "metaKey">): boolean =>
  ctrlKey || altKey || metaKey;

/** On a value a number that is typed is the value, wherever on the line the focus is. */
export const beginsNumber = (event: Pick<KeyboardEvent, "key" | "ctrlKey" | "altKey" | "metaKey">): boolean =>
  /^[0-9.,+\-−]$/.test(event.key) && !isHeld(event);

/** The ruler stands where the pointer is; fine, it goes on from where the value is. */
function useRulerDrag({ spec, value, onTouch, onChange, onChangeEnd }: Props) {
  const dragged = useRef<number | null>(null);
  /** What a drag that is broken off goes back to; by then `value` is what was previewed last. */
  const before = useRef(value);
  return useDrag({
    begins: DRAG_BEGINS,
    onStart: () => {
      if (onTouch?.()) return false;
      before.current = value;
      dragged.current = null;
      return true;
    },
    onMove: ({ x, dx, width, fine }) => {
      const from = dragged.current ?? (isNoteLength(value) ? null : value);
      const place = fine && from !== null ? positionOf(spec, from) + dx / width : x / width;
      dragged.current = round(valueAt(spec, place));
      onChange(dragged.current);
    },
    onEnd: (how) => {
      if (dragged.current === null) return;
      if (how === "moved") onChangeEnd(dragged.current);
      else onChange(before.current);
    },
  });
}

const LABELLED = "grid-cols-[minmax(72px,92px)_minmax(64px,204px)_minmax(86px,96px)]";
const BARE = "grid-cols-[minmax(64px,1fr)_56px]";

/** What stands in the field that a key opens: its figure, or, by Enter, what `stands` there, to be typed over by words and notes, too. */
function typedBy(event: KeyboardEvent, stands: string): string | null {
  if (beginsNumber(event)) return event.key;
  return event.key === "Enter" && !event.shiftKey && !isHeld(event) ? stands : null;
}

/** The value that a key leads to; null where it is not for that. */
function turnedBy(event: KeyboardEvent, spec: ParamSpec, value: Value): Value | null {
  if (isHeld(event)) return null;
  const step = STEPS[event.key];
  if (step) return stepValue(spec, value, step, event.shiftKey);
  if (event.key === "Home") return spec.min;
  if (event.key === "End") return spec.max;
  return event.key === "Delete" || event.key === "Backspace" ? spec.default : null;
}

/** Label, ruler, number: drag, type, step by arrows or the wheel (Shift is fine), double-click for the default. */
export function ValueLine(props: Props) {
  const { spec, label = spec.name, value, saved, tempo, onChangeEnd } = props;
  const bpm = beatsPerMinute(tempo);
  const drag = useRulerDrag(props);
  const heard = heardValue(spec, value, bpm);
  const place = (v: Value) => `${(100 * positionOf(spec, heardValue(spec, v, bpm))).toFixed(2)}%`;
  const differs = saved !== undefined && formatPlain(spec, saved) !== formatPlain(spec, value);
  const heardAs = formatHeard(spec, value, bpm);
  const [typed, setTyped] = useState<string | null>(null);
  const onKeyDown = (event: KeyboardEvent) => {
    const begun = typedBy(event, formatPlain(spec, value));
    const next = turnedBy(event, spec, value);
    if (begun === null && next === null) return;
    event.preventDefault();
    if (props.onTouch?.()) return;
    if (begun !== null) setTyped(begun);
    else if (next !== null) onChangeEnd(next);
  };
  const wheel = useWheel({
    value,
    step: (now, direction, fine) => stepValue(spec, now, direction, fine),
    onChange: (next) => !props.onTouch?.() && props.onChange(next),
    onChangeEnd,
  });
  return (
    <div ref={wheel} className={cx("grid h-[30px] items-center gap-[10px]", label === "" ? BARE : LABELLED)}>
      {label === "" ? (
        <span className="hidden" />
      ) : (
        <LineLabel name={label} movedBy={props.movedBy ?? []}>
          {heardAs && (
            <span className="num-small pl-[6px] text-soft">
              {heardAs.text} {heardAs.unit}
            </span>
          )}
        </LineLabel>
      )}
      <div
        role="slider"
        tabIndex={0}
        aria-label={spec.name}
        aria-valuemin={spec.min}
        aria-valuemax={spec.max}
        aria-valuenow={heard}
        aria-valuetext={formatPlain(spec, value)}
        className="relative h-5 cursor-ew-resize touch-none rounded-card"
        onKeyDown={onKeyDown}
        onDoubleClick={() => !props.onTouch?.() && onChangeEnd(spec.default)}
        {...drag}
      >
        <Ticks />
        <i
          className="absolute top-[13px] h-[5px] w-[1.5px] -translate-x-1/2 bg-soft"
          style={{ left: place(spec.default) }}
        />
        {differs && (
          <i
            className="absolute top-[12px] size-[6px] -translate-x-1/2 rounded-full border border-edit border-dashed"
            style={{ left: place(saved) }}
          />
        )}
        <i
          className={cx(
            "absolute top-[3px] -translate-x-1/2 border-x-[5px] border-x-transparent border-t-[7px]",
            differs ? "border-t-edit" : "border-t-live",
          )}
          style={{ left: place(value) }}
        />
      </div>
      <ValueField {...{ spec, value, differs, typed, onChangeEnd }} onTyped={setTyped} />
    </div>
  );
}

interface LabelProps {
  readonly name: string;
  readonly movedBy: readonly string[];
  readonly children?: ReactNode;
}

/** What a value is called, marked where macros move it. */
export function LineLabel({ name, movedBy, children }: LabelProps) {
  const words = `Moved by ${movedBy.join(", ")}`;
  return (
    <span className="truncate">
      {name}
      {movedBy.length > 0 && (
        <span title={words} className="pl-[5px] align-[1px] text-live">
          <Waypoints size={12} role="img" aria-label={words} className="inline" />
        </span>
      )}
      {children}
    </span>
  );
}

function Ticks() {
  return (
    <svg
      className="plot absolute inset-x-0 top-[9px] h-[6px] w-full"
      preserveAspectRatio="none"
      viewBox="0 0 100 6"
      aria-hidden="true"
    >
      <path d="M0 4.5H100M0 0V4.5M100 0V4.5" stroke="var(--bound)" />
      <path
        d="M10 2.5V4.5M20 2.5V4.5M30 2.5V4.5M40 2.5V4.5M50 2.5V4.5M60 2.5V4.5M70 2.5V4.5M80 2.5V4.5M90 2.5V4.5"
        stroke="var(--edge)"
      />
    </svg>
  );
}

interface FieldProps {
  readonly spec: ParamSpec;
  readonly value: Value;
  readonly differs: boolean;
  /** What is being typed; null where nothing is. */
  readonly typed: string | null;
  readonly onTyped: (typed: string | null) => void;
  readonly onChangeEnd: (value: Value) => void;
}

/** The number itself: a press begins to type it over. */
function ValueField({ spec, value, differs, typed, onTyped, onChangeEnd }: FieldProps) {
  const written = formatValue(spec, value);
  if (typed !== null) return <TypedValue {...{ spec, value, typed, onTyped, onChangeEnd }} />;
  return (
    <button
      type="button"
      aria-label={`${spec.name}: ${formatPlain(spec, value)}. Type a value`}
      onClick={() => onTyped(formatPlain(spec, value))}
      onKeyDown={(event) => {
        if (!beginsNumber(event)) return;
        event.preventDefault();
        onTyped(event.key);
      }}
      className={cx("num rounded-card px-1 text-right hover:bg-sunk", differs && "text-edit")}
    >
      {written.text}
      {written.unit !== "" && <span className="unit">{written.unit}</span>}
    </button>
  );
}

interface TypedProps extends Omit<FieldProps, "differs" | "typed"> {
  readonly typed: string;
}

/** A value as it is typed: Enter or leaving takes it, with a word when it is not understood; Escape does not. */
export function TypedValue({ spec, value, typed, onTyped, onChangeEnd }: TypedProps) {
  const [fault, setFault] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const { current } = field;
    if (!current) return;
    current.focus();
    // What stood there is typed over; what was typed to begin with is gone on from.
    if (current.value === formatPlain(spec, value)) current.select();
    // Only when typing begins: later letters must not be selected over.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const commit = () => {
    const parsed = parseValue(spec, typed);
    if (!parsed.ok) return setFault(parsed.error);
    onTyped(null);
    if (formatPlain(spec, parsed.value) !== formatPlain(spec, value)) onChangeEnd(parsed.value);
  };
  const leave = () => onTyped(null);
  return (
    <span className="relative">
      <input
        ref={field}
        aria-label={spec.name}
        aria-invalid={fault !== null}
        className="num w-full rounded-card border border-live bg-card px-1 text-right"
        value={typed}
        onChange={(event) => onTyped(event.target.value)}
        onBlur={() => (parseValue(spec, typed).ok ? commit() : leave())}
        onKeyDown={(event) => {
          if (event.key !== "Enter" && event.key !== "Escape") return;
          event.preventDefault();
          flushSync(event.key === "Enter" ? commit : leave);
          if (!event.currentTarget.isConnected) giveBack(event.currentTarget);
        }}
      />
      {fault && (
        <span
          role="alert"
          className="absolute top-7 right-0 z-20 w-56 rounded-card border border-alert bg-alert-tint px-2 py-1 text-small"
        >
          {fault}
        </span>
      )}
    </span>
  );
}
