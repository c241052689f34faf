"use client";

import { lineOf } from "@/core/plots/axes";
import { delayMarks, delaySpan, delayX } from "@/core/plots/delay";
import { formatNumber } from "@/core/units/format";
import { ControlGroups, FollowsTempo } from "./control-line";
import { type EditorProps, heardOf } from "./editor";
import { PairHandle } from "./pair-handle";

const BOX = { width: 812, height: 180 };

/** Echo: both sides in time, what the feedback makes of them behind. Left rises, right hangs. */
export function EchoEditor(props: EditorProps) {
  const { model, processor, saved, tempo } = props;
  const values = heardOf(model, processor, tempo);
  const span = delaySpan(model, values);
  const marks = delayMarks(model, values, BOX);
  const before = saved && heardOf(model, saved, tempo);
  const time = (id: string) => ({
    id,
    place: (ms: number) => delayX(ms, span, BOX),
    value: (x: number) => Math.max(1, ((x - 4) / (BOX.width - 8)) * span),
  });
  return (
    <div className="grid gap-3">
      <div className="relative rounded-card border border-edge bg-card">
        <svg
          className="plot block w-full touch-none"
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          role="group"
          aria-label="Echoes in time and pan"
        >
          {[0, 0.2, 0.4, 0.6, 0.8].map((share) => {
            const x = delayX(share * span, span, BOX);
            return (
              <g key={share}>
                <path className="axis" d={lineOf([x, 0], [x, BOX.height])} />
                <text x={x + 4} y={BOX.height - 5} className="num-small" fill="var(--faint)">
                  {formatNumber(share * span, 0)} ms
                </text>
              </g>
            );
          })}
          {marks.map(({ kind, path }) => (
            <path key={kind} className={kind === "line" ? "live" : kind} d={path} />
          ))}
          {before &&
            ["left", "right"].map((id) => {
              const x = delayX(before[id] ?? 0, span, BOX);
              return before[id] !== values[id] && <path key={id} className="ghost" d={lineOf([x, 10], [x, 170])} />;
            })}
          <PairHandle
            editor={props}
            box={BOX}
            across={time("left")}
            upward={null}
            at={{ y: 20 }}
            mark="L"
            label="Left"
            selected
            onSelect={() => undefined}
          />
          <PairHandle
            editor={props}
            box={BOX}
            across={time("right")}
            upward={null}
            at={{ y: BOX.height - 20 }}
            mark="R"
            label="Right"
            selected
            onSelect={() => undefined}
          />
        </svg>
        <span className="num-small pointer-events-none absolute top-[2px] right-[6px] text-faint">left</span>
        <span className="num-small pointer-events-none absolute right-[6px] bottom-[2px] text-faint">right</span>
      </div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="text-soft">Left</span>
        <FollowsTempo editor={props} id="left" />
        <span className="pl-2 text-soft">Right</span>
        <FollowsTempo editor={props} id="right" />
      </div>
      <ControlGroups editor={props} columns={3} />
    </div>
  );
}
