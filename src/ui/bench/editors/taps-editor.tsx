"use client";

import { Plus } from "lucide-react";
import { type KeyboardEvent, useState } from "react";
import { lineOf as lineBetween } from "@/core/plots/axes";
import { delayMarks, delaySpan, delayX } from "@/core/plots/delay";
import { type ParamId, type Value, clampTo } from "@/core/units/param-spec";
import { getSpec } from "@/core/processors/model";
import { type Tap, tapsOf } from "@/core/processors/delay/multitap-delay/design";
import { type TapNumber, tapParam } from "@/core/processors/delay/multitap-delay/taps";
import { formatNumber, formatPan, formatPlain } from "@/core/units/format";
import { isNoteLength, nearestNote } from "@/core/units/note-length";
import { beatsPerMinute } from "@/core/units/quantities";
import { Button } from "../../kit/button";
import { Segments } from "../../kit/segments";
import { Toggle } from "../../kit/toggle";
import { ValueLine, round, stepValue } from "../../kit/value-line";
import { type EditorProps, heardOf, lineOf } from "./editor";
import { Handle } from "./handle";
import type { DragPoint } from "../../kit/use-drag";

const BOX = { width: 812, height: 190 };
const MIDDLE = BOX.height / 2;
/** Room above and below, so that a tap at the side can be taken hold of. */
const REACH = MIDDLE - 14;

type Turned = Readonly<Record<ParamId, Value>>;

const panY = (pan: number): number => MIDDLE + (pan / 100) * REACH;

/** The delay: each tap is a square at its time, from left (top) to right (bottom). */
export function TapsEditor(props: EditorProps) {
  const { model, processor, saved, tempo, onPreview, onTurn } = props;
  const values = heardOf(model, processor, tempo);
  const taps = tapsOf(values);
  const used = taps.filter((t) => t.on);
  const free = taps.find((t) => !t.on)?.number;
  const span = delaySpan(model, values);
  const [chosen, setChosen] = useState<TapNumber | null>(null);
  const [pulled, setPulled] = useState<Turned | null>(null);
  const tap = used.find((t) => t.number === chosen) ?? used[0] ?? null;
  const faint = delayMarks(model, values, BOX).find((m) => m.kind === "faint");
  const preview = (next: Turned) => {
    setPulled(next);
    onPreview(next);
  };
  const end = (moved: boolean) => {
    if (pulled && moved) onTurn(pulled);
    else if (pulled) onPreview({});
    setPulled(null);
  };
  const savedTaps = saved
    ? tapsOf(heardOf(model, saved, tempo)).filter((t, at) => t.on && t.time !== taps[at]?.time)
    : [];
  return (
    <div className="grid gap-3">
      <div className="relative rounded-card border border-edge bg-card">
        <svg
          className="plot block w-full touch-none"
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          role="group"
          aria-label="Taps in time and pan"
        >
          {[0, 0.2, 0.4, 0.6, 0.8].map((share) => (
            <g key={share}>
              <path
                className="axis"
                d={lineBetween([delayX(share * span, span, BOX), 0], [delayX(share * span, span, BOX), BOX.height])}
              />
              <text
                x={delayX(share * span, span, BOX) + 4}
                y={BOX.height - 5}
                className="num-small"
                fill="var(--faint)"
              >
                {formatNumber(share * span, 0)} ms
              </text>
            </g>
          ))}
          <path className="axis" d={lineBetween([0, MIDDLE], [BOX.width, MIDDLE])} style={{ stroke: "var(--edge)" }} />
          <path className="faint" d={faint?.path ?? ""} />
          {savedTaps.map((t) => (
            <path
              key={t.number}
              className="ghost"
              d={lineBetween([delayX(t.time, span, BOX), MIDDLE - 24], [delayX(t.time, span, BOX), MIDDLE + 24])}
            />
          ))}
          {used.map((t) => (
            <path
              key={t.number}
              className="live"
              d={lineBetween([delayX(t.time, span, BOX), MIDDLE], [delayX(t.time, span, BOX), panY(t.pan)])}
              style={{ opacity: 0.35 + 0.65 * 10 ** (Math.max(-60, t.level) / 40) }}
            />
          ))}
          {used.map((t) => (
            <TapHandle
              key={t.number}
              tap={t}
              span={span}
              editor={props}
              selected={t.number === tap?.number}
              onSelect={() => setChosen(t.number)}
              onPreview={preview}
              onEnd={end}
            />
          ))}
        </svg>
        <span className="num-small pointer-events-none absolute top-[2px] right-[6px] text-faint">left</span>
        <span className="num-small pointer-events-none absolute right-[6px] bottom-[2px] text-faint">right</span>
      </div>
      <div className="grid grid-cols-2 gap-x-5">
        <section aria-label={tap ? `Tap ${tap.number}` : "Taps"}>
          <TapLines tap={tap} editor={props} />
          <Button
            small
            className="mt-1"
            disabled={free === undefined}
            onClick={() => {
              if (!free) return;
              setChosen(free);
              onTurn({ [tapParam(free, "on")]: 1 });
            }}
          >
            <Plus size={14} aria-hidden="true" />
            {free === undefined ? "All four taps are in use" : "Add a tap"}
          </Button>
        </section>
        <section aria-label="Whole plugin">
          <h2 className="h2 pb-1">Whole plugin</h2>
          {["feedback", "damping", "dry", "wet"].map((id) => (
            <ValueLine key={id} {...lineOf(props, id)} />
          ))}
        </section>
      </div>
    </div>
  );
}

interface TapHandleProps {
  readonly tap: Tap;
  readonly span: number;
  readonly editor: EditorProps;
  readonly selected: boolean;
  readonly onSelect: () => void;
  readonly onPreview: (values: Turned) => void;
  readonly onEnd: (moved: boolean) => void;
}

function TapHandle({ tap, span, editor, selected, onSelect, onPreview, onEnd }: TapHandleProps) {
  const { model, processor, tempo, onTurn } = editor;
  const ids = {
    time: tapParam(tap.number, "time"),
    pan: tapParam(tap.number, "pan"),
    level: tapParam(tap.number, "level"),
  };
  const spec = { time: getSpec(model, ids.time), pan: getSpec(model, ids.pan), level: getSpec(model, ids.level) };
  const time = processor.values[ids.time] ?? spec.time.default;
  const move = ({ x, dx, dy }: DragPoint) => {
    // A note length goes where the pointer is; milliseconds move by as much as the pointer does.
    const ms = isNoteLength(time) ? ((x - 4) / (BOX.width - 8)) * span : tap.time + (dx / (BOX.width - 8)) * span;
    const held = clampTo(spec.time, round(Math.max(1, ms)));
    onPreview({
      [ids.time]: isNoteLength(time) ? nearestNote(held, beatsPerMinute(tempo)) : held,
      [ids.pan]: clampTo(spec.pan, Math.round(tap.pan + (dy / REACH) * 100)),
    });
  };
  const key = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.altKey || event.metaKey) return;
    const step = (id: "time" | "pan" | "level", value: Value, direction: 1 | -1) =>
      onTurn({ [ids[id]]: stepValue(spec[id], value, direction, event.shiftKey) });
    const keys: Record<string, () => void> = {
      ArrowRight: () => step("time", time, 1),
      ArrowLeft: () => step("time", time, -1),
      ArrowUp: () => step("pan", tap.pan, -1),
      ArrowDown: () => step("pan", tap.pan, 1),
      Delete: () => onTurn({ [tapParam(tap.number, "on")]: 0 }),
      Backspace: () => onTurn({ [tapParam(tap.number, "on")]: 0 }),
    };
    const run = keys[event.key];
    if (!run) return;
    event.preventDefault();
    run();
  };
  return (
    <Handle
      width={BOX.width}
      x={delayX(tap.time, span, BOX)}
      y={panY(tap.pan)}
      mark={String(tap.number)}
      label={`Tap ${tap.number}`}
      text={`${formatPlain(spec.time, time)}, ${formatPan(tap.pan)}`}
      selected={selected}
      onSelect={onSelect}
      onMove={move}
      onEnd={onEnd}
      onKey={key}
      onReset={() => onTurn({ [ids.pan]: 0 })}
    />
  );
}

function TapLines({ tap, editor }: { readonly tap: Tap | null; readonly editor: EditorProps }) {
  const { processor, tempo, onTurn } = editor;
  if (!tap) return <h2 className="h2 pb-1">Taps</h2>;
  const id = tapParam(tap.number, "time");
  const time = processor.values[id];
  const locked = time !== undefined && isNoteLength(time);
  return (
    <>
      <div className="flex h-6 items-center gap-3">
        <h2 className="h2">Tap {tap.number}</h2>
        <Segments
          small
          label={`Tap ${tap.number} follows`}
          value={locked ? "notes" : "ms"}
          onChange={(way) =>
            onTurn({ [id]: way === "notes" ? nearestNote(tap.time, beatsPerMinute(tempo)) : round(tap.time) })
          }
          options={[
            { value: "notes", label: "Follows the tempo" },
            { value: "ms", label: "Milliseconds" },
          ]}
        />
        <span className="text-small">
          <Toggle label="On" on={tap.on} onChange={(on) => onTurn({ [tapParam(tap.number, "on")]: on ? 1 : 0 })} />
        </span>
      </div>
      <ValueLine {...lineOf(editor, id)} label="Time" />
      <ValueLine {...lineOf(editor, tapParam(tap.number, "level"))} label="Level" />
      <ValueLine {...lineOf(editor, tapParam(tap.number, "pan"))} label="Pan" />
    </>
  );
}
