"use client";

import { lineOf } from "@/core/plots/axes";
import { NOTE_HELD, NOTE_SPAN, envelopePath, noteX, partialStems } from "@/core/plots/instrument";
import { formatNumber } from "@/core/units/format";
import { ControlGroups } from "./control-line";
import { type EditorProps, heardOf } from "./editor";

const NOTE = { width: 460, height: 150 };
const PARTIALS = { width: 330, height: 150 };

/** An instrument: the course of a note that is held and let go, and what it is made of as it begins. */
export function InstrumentEditor(props: EditorProps) {
  const { model, processor, saved, tempo } = props;
  const values = heardOf(model, processor, tempo);
  const path = envelopePath(model, values, NOTE);
  const stems = partialStems(model, values, PARTIALS);
  const columns = new Set(model.params.map((spec) => spec.group)).size >= 3 ? 3 : 2;
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-[minmax(0,460fr)_minmax(0,330fr)] gap-[18px]">
        <div className="relative rounded-card border border-edge bg-card">
          <svg
            className="plot block w-full"
            viewBox={`0 0 ${NOTE.width} ${NOTE.height}`}
            role="img"
            aria-label="Course of a note"
          >
            {[0.5, 1, 1.5].map((seconds) => (
              <g key={seconds}>
                <path className="axis" d={lineOf([noteX(seconds, NOTE), 0], [noteX(seconds, NOTE), NOTE.height])} />
                <text x={noteX(seconds, NOTE) + 4} y={NOTE.height - 6} className="num-small" fill="var(--faint)">
                  {formatNumber(seconds, 1)} s
                </text>
              </g>
            ))}
            <path className="area" d={`${path}L${noteX(NOTE_SPAN, NOTE)} ${NOTE.height}L0 ${NOTE.height}Z`} />
            {saved && <path className="ghost" d={envelopePath(model, heardOf(model, saved, tempo), NOTE)} />}
            <path className="live" d={path} />
            <path className="ghost" d={lineOf([noteX(NOTE_HELD, NOTE), 0], [noteX(NOTE_HELD, NOTE), NOTE.height])} />
          </svg>
          <span className="num-small pointer-events-none absolute top-[3px] right-[6px] text-faint">
            let go at {formatNumber(NOTE_HELD, 1)} s
          </span>
        </div>
        <div className="relative rounded-card border border-edge bg-card">
          <svg
            className="plot block w-full"
            viewBox={`0 0 ${PARTIALS.width} ${PARTIALS.height}`}
            role="img"
            aria-label="Partials of a note"
          >
            {stems.map(({ x, y, ratio }) => (
              <path
                key={ratio}
                d={lineOf([x, PARTIALS.height], [x, y])}
                style={{ stroke: "var(--live)", strokeWidth: 3 }}
              />
            ))}
          </svg>
          <span className="num-small pointer-events-none absolute top-[3px] right-[6px] text-faint">partials</span>
          {stems.length === 0 && (
            <p className="absolute inset-x-0 top-[42%] text-center text-small text-soft">What its sound holds</p>
          )}
        </div>
      </div>
      <ControlGroups editor={props} columns={columns} />
    </div>
  );
}
