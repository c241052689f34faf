"use client";

import { useState } from "react";
import { type Box, frequencyX, gainY, xFrequency, yGain } from "@/core/plots/axes";
import { EQ_RANGE, bandPath, eqBands, eqPath } from "@/core/plots/equaliser";
import type { EqBand } from "@/core/processors/equaliser/eq-design";
import { ControlGroups } from "./control-line";
import { type EditorProps, heardOf } from "./editor";
import { ResponseGrid } from "./grids";
import { type Axis, PairHandle } from "./pair-handle";

const BOX: Box = { width: 812, height: 220 };

const across = ({ params }: EqBand): Axis | null =>
  params.freq === undefined
    ? null
    : { id: params.freq, place: (hz) => frequencyX(hz, BOX), value: (x) => xFrequency(x, BOX) };

const upward = ({ params }: EqBand): Axis | null =>
  params.gain === undefined
    ? null
    : { id: params.gain, place: (dB) => gainY(dB, EQ_RANGE, BOX), value: (y) => yGain(y, EQ_RANGE, BOX) };

/** An equaliser whose bands are given: each stands on the plot where it can be pulled. */
export function CurveEditor(props: EditorProps) {
  const { model, processor, saved, tempo } = props;
  const values = heardOf(model, processor, tempo);
  const bands = eqBands(model, values);
  const [chosen, setChosen] = useState<string | null>(null);
  const band = bands.find((b) => b.key === chosen) ?? bands[0];
  const path = eqPath(model, values, BOX);
  return (
    <div className="grid gap-3">
      <div className="rounded-card border border-edge bg-card">
        <svg
          className="plot block w-full touch-none"
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          role="group"
          aria-label="Response of the equaliser"
        >
          <ResponseGrid box={BOX} />
          <path className="area" d={`${path}L${BOX.width} ${BOX.height / 2}L0 ${BOX.height / 2}Z`} />
          {saved && <path className="ghost" d={eqPath(model, heardOf(model, saved, tempo), BOX)} />}
          {band && <path className="band" d={bandPath(band, BOX)} />}
          <path className="live" d={path} />
          {bands.map((b) => (
            <PairHandle
              key={b.key}
              editor={props}
              box={BOX}
              across={across(b)}
              upward={upward(b)}
              at={{ x: frequencyX(b.freq, BOX) }}
              mark={b.mark}
              label={b.name}
              selected={b.key === band?.key}
              dimmed={!b.on}
              onSelect={() => setChosen(b.key)}
            />
          ))}
        </svg>
      </div>
      <ControlGroups editor={props} columns={model.params.length > 12 ? 3 : 2} />
    </div>
  );
}
