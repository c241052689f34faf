"use client";

import { heardAt } from "@/core/processors/model";
import { frequencyX, xFrequency } from "@/core/plots/axes";
import { decayOf, decayY, reverbMarks, yDecay } from "@/core/plots/reverb";
import { ControlGroups } from "./control-line";
import { type EditorProps, heardOf } from "./editor";
import { DecayGrid } from "./grids";
import { PairHandle } from "./pair-handle";

const BOX = { width: 812, height: 220 };

/** Where the handle of the whole decay stands: low enough that no damping reaches it. In Hz. */
const DECAY_HANDLE = 60;

/** Reverb: how long each frequency takes to fade. One handle for the decay, one for where and how much the highs fade. */
export function ReverbEditor(props: EditorProps) {
  const { model, processor, saved, tempo } = props;
  const values = heardOf(model, processor, tempo);
  const decay = heardAt(values, "decay");
  const marks = reverbMarks(model, values, BOX);
  const ghost = saved && reverbMarks(model, heardOf(model, saved, tempo), BOX).find((m) => m.kind === "line");
  const high = decayOf(model, values)(20_000);
  return (
    <div className="grid gap-3">
      <div className="rounded-card border border-edge bg-card">
        <svg
          className="plot block w-full touch-none"
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          role="group"
          aria-label="Decay over frequency"
        >
          <DecayGrid box={BOX} />
          {marks.map(
            ({ kind, path }) =>
              kind !== "axis" && <path key={kind} className={kind === "line" ? "live" : kind} d={path} />,
          )}
          {ghost && <path className="ghost" d={ghost.path} />}
          <PairHandle
            editor={props}
            box={BOX}
            across={null}
            upward={{ id: "decay", place: (s) => decayY(s, BOX), value: (y) => yDecay(y, BOX) }}
            at={{ x: frequencyX(DECAY_HANDLE, BOX) }}
            mark="D"
            label="Decay"
            selected={false}
            onSelect={() => undefined}
          />
          <PairHandle
            editor={props}
            box={BOX}
            across={{ id: "damping", place: (hz) => frequencyX(hz, BOX), value: (x) => xFrequency(x, BOX) }}
            upward={{
              id: "high",
              place: () => decayY(Math.sqrt(decay * high), BOX),
              // It stands half way down the slope, so its way counts twice.
              value: (y) => (100 * yDecay(y, BOX) ** 2) / decay ** 2,
            }}
            mark="H"
            label="Damping and high decay"
            selected
            onSelect={() => undefined}
          />
        </svg>
      </div>
      <ControlGroups editor={props} columns={3} />
    </div>
  );
}
