"use client";

import { useState } from "react";
import { type Box, frequencyX, gainY, xFrequency, yGain } from "@/core/plots/axes";
import { bandPath, eqBands, eqPath, eqRange } from "@/core/plots/equaliser";
import type { EqBand } from "@/core/processors/equaliser/eq-design";
import { ControlGroups } from "./control-line";
import { type EditorProps, heardOf } from "./editor";
import { ResponseGrid } from "./grids";
import { type Axis, PairHandle } from "./pair-handle";
import { SpectrumBehind, SpectrumSwitch } from "./spectrum-behind";

const BOX: Box = { width: 812, height: 220 };

const across = ({ params }: EqBand): Axis | null =>
  params.freq === undefined
    ? null
    : { id: params.freq, place: (hz) => frequencyX(hz, BOX), value: (x) => xFrequency(x, BOX) };

const upward = ({ params }: EqBand, range: number): Axis | null =>
  params.gain === undefined
    ? null
    : { id: params.gain, place: (dB) => gainY(dB, range, BOX), value: (y) => yGain(y, range, BOX) };

/** An equaliser whose bands are given: each stands on the plot where it can be pulled. */
export function CurveEditor(props: EditorProps) {
  const { model, processor, saved, tempo } = props;
  const values = heardOf(model, processor, tempo);
  const bands = eqBands(model, values);
  const [chosen, setChosen] = useState<string | null>(null);
  const band = bands.find((b) => b.key === chosen) ?? bands[0];
  const range = eqRange(bands.map(({ params }) => (params.gain === undefined ? 0 : (values[params.gain] ?? 0))));
  const path = eqPath(model, values, BOX, range);
  return (
    <div className="grid gap-3">
      <div className="relative rounded-card border border-edge bg-card">
        <svg
          className="plot block w-full touch-none"
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          role="group"
          aria-label="Response of the equaliser"
        >
          <SpectrumBehind box={BOX} />
          <ResponseGrid box={BOX} range={range} />
          <path className="area" d={`${path}L${BOX.width} ${BOX.height / 2}L0 ${BOX.height / 2}Z`} />
          {saved && <path className="ghost" d={eqPath(model, heardOf(model, saved, tempo), BOX, range)} />}
          {band && <path className="band" d={bandPath(band, BOX, range)} />}
          <path className="live" d={path} />
          {bands.map((b) => (
            <PairHandle
              key={b.key}
              editor={props}
              box={BOX}
              across={across(b)}
              upward={upward(b, range)}
              at={{ x: frequencyX(b.freq, BOX) }}
              mark={b.mark}
              label={b.name}
              selected={b.key === band?.key}
              dimmed={!b.on}
              onSelect={() => setChosen(b.key)}
            />
          ))}
        </svg>
        <SpectrumSwitch />
      </div>
      <ControlGroups editor={props} columns={model.params.length > 12 ? 3 : 2} />
    </div>
  );
}
