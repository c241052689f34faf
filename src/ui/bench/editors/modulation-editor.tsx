"use client";

import { heardAt } from "@/core/processors/model";
import { lineOf } from "@/core/plots/axes";
import { modulationMarks, motionRate, motionSpan, motionY } from "@/core/plots/modulation";
import { formatNumber } from "@/core/units/format";
import { ControlGroups, FollowsTempo } from "./control-line";
import { type EditorProps, heardOf } from "./editor";
import { PairHandle } from "./pair-handle";

const BOX = { width: 812, height: 220 };

/** Modulation: how far it swings and how fast. The handle stands on the first crest. */
export function ModulationEditor(props: EditorProps) {
  const { model, processor, saved, tempo } = props;
  const values = heardOf(model, processor, tempo);
  const span = motionSpan(model, values);
  const marks = modulationMarks(model, values, BOX);
  const ghost =
    saved && motionSpan(model, heardOf(model, saved, tempo)) === span
      ? modulationMarks(model, heardOf(model, saved, tempo), BOX).find((m) => m.kind === "line")
      : null;
  const crest = {
    x: BOX.width / (4 * motionRate(model, values) * span),
    y: motionY(heardAt(values, "depth") / 100, BOX),
  };
  return (
    <div className="grid gap-3">
      <div className="relative rounded-card border border-edge bg-card">
        <svg
          className="plot block w-full touch-none"
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          role="group"
          aria-label="Rate and depth over time"
        >
          {[0.25, 0.5, 0.75].map((share) => (
            <g key={share}>
              <path className="axis" d={lineOf([share * BOX.width, 0], [share * BOX.width, BOX.height])} />
              <text x={share * BOX.width + 4} y={BOX.height - 6} className="num-small" fill="var(--faint)">
                {span < 1 ? `${formatNumber(share * span * 1000, 0)} ms` : `${formatNumber(share * span, 1)} s`}
              </text>
            </g>
          ))}
          {marks.map(({ kind, path }) => (
            <path key={kind} className={kind === "line" ? "live" : kind} d={path} />
          ))}
          {ghost && <path className="ghost" d={ghost.path} />}
          <PairHandle
            editor={props}
            box={BOX}
            across={{
              id: "rate",
              place: (hz) => BOX.width / (4 * hz * span),
              value: (x) => BOX.width / (4 * Math.max(1, x) * span),
              more: -1,
            }}
            upward={{
              id: "depth",
              place: (depth) => motionY(depth / 100, BOX),
              value: (y) => (100 * (BOX.height / 2 - y)) / (BOX.height / 2 - motionY(1, BOX)),
            }}
            at={crest}
            mark=""
            label="Rate and depth"
            selected
            onSelect={() => undefined}
          />
        </svg>
        <span className="num-small pointer-events-none absolute top-[3px] right-[6px] text-faint">
          left in colour, right in grey
        </span>
      </div>
      <div className="flex items-center gap-3">
        <span className="text-soft">Rate</span>
        <FollowsTempo editor={props} id="rate" />
      </div>
      <ControlGroups editor={props} columns={2} />
    </div>
  );
}
