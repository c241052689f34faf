"use client";

import { useEffect, useRef } from "react";
import { heardAt } from "@/core/processors/model";
import { lineOf } from "@/core/plots/axes";
import {
  HARMONICS_FLOOR,
  harmonicLevels,
  harmonicY,
  shaperOf,
  shaperPath,
  shaperX,
  shaperY,
} from "@/core/plots/saturation";
import { formatNumber } from "@/core/units/format";
import { onMeters } from "../../listening/state";
import { ControlGroups } from "./control-line";
import { type EditorProps, heardOf } from "./editor";
import { PairHandle } from "./pair-handle";

const CURVE = { width: 328, height: 240 };
const BARS = { width: 460, height: 190 };
const HANDLE_TRAVEL_DB = 0.15;

/** Saturation: the curve from sample to sample, and the harmonics that it makes of a sine. */
export function SaturationEditor(props: EditorProps) {
  const { model, processor, saved, tempo } = props;
  const values = heardOf(model, processor, tempo);
  const shape = shaperOf(model, values);
  const levels = harmonicLevels(shape);
  const savedLevels = saved && harmonicLevels(shaperOf(model, heardOf(model, saved, tempo)));
  const drive = heardAt(values, "drive");
  const barX = (at: number) => 44 + at * ((BARS.width - 60) / (levels.length - 1));
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-[330px_minmax(0,1fr)] gap-[18px]">
        <div className="relative rounded-card border border-edge bg-card">
          <svg
            className="plot block touch-none"
            width={CURVE.width}
            height={CURVE.height}
            viewBox={`0 0 ${CURVE.width} ${CURVE.height}`}
            role="group"
            aria-label="Curve of the saturation"
          >
            <path
              className="axis"
              d={
                lineOf([0, CURVE.height / 2], [CURVE.width, CURVE.height / 2]) +
                lineOf([CURVE.width / 2, 0], [CURVE.width / 2, CURVE.height])
              }
            />
            <path className="ghost" d={lineOf([0, CURVE.height], [CURVE.width, 0])} />
            {saved && <path className="ghost" d={shaperPath(shaperOf(model, heardOf(model, saved, tempo)), CURVE)} />}
            <Reach processor={processor.key} shape={shape} />
            <path className="live" d={shaperPath(shape, CURVE)} />
            <PairHandle
              editor={props}
              box={CURVE}
              across={null}
              upward={{
                id: "drive",
                place: () => shaperY(shape(0.5), CURVE),
                // The pointer's way counts, not its place: up is more drive.
                value: (y) => drive + (shaperY(shape(0.5), CURVE) - y) * HANDLE_TRAVEL_DB,
              }}
              at={{ x: shaperX(0.5, CURVE) }}
              mark=""
              label="Drive"
              selected
              onSelect={() => undefined}
            />
          </svg>
          <span className="num-small pointer-events-none absolute top-[3px] left-[6px] text-faint">out</span>
          <span className="num-small pointer-events-none absolute right-[6px] bottom-[2px] text-faint">in</span>
        </div>
        <div>
          <h2 className="h2 pb-1">Harmonics of a sine at −12 dB</h2>
          <div className="rounded-card border border-edge bg-card">
            <svg
              className="plot block w-full"
              viewBox={`0 0 ${BARS.width} ${BARS.height + 20}`}
              role="img"
              aria-label={`Harmonics: ${levels.map((dB, at) => `${at + 2}: ${dB <= HARMONICS_FLOOR ? "none" : `${formatNumber(dB, 0)} dB`}`).join(", ")}`}
            >
              {[-20, -40, -60, -80].map((dB) => (
                <g key={dB}>
                  <path className="axis" d={lineOf([0, harmonicY(dB, BARS)], [BARS.width, harmonicY(dB, BARS)])} />
                  <text x={5} y={harmonicY(dB, BARS) - 3} className="num-small" fill="var(--faint)">
                    −{-dB}
                  </text>
                </g>
              ))}
              {levels.map((dB, at) => (
                // The second harmonic is the first of the list: its place is its name.
                <g key={at + 2}>
                  <path
                    d={lineOf([barX(at), BARS.height], [barX(at), harmonicY(dB, BARS)])}
                    style={{ stroke: "var(--live)", strokeWidth: 6 }}
                  />
                  {savedLevels && (
                    <path
                      className="ghost"
                      d={lineOf(
                        [barX(at) - 9, harmonicY(savedLevels[at] ?? HARMONICS_FLOOR, BARS)],
                        [barX(at) + 9, harmonicY(savedLevels[at] ?? HARMONICS_FLOOR, BARS)],
                      )}
                    />
                  )}
                  <text x={barX(at)} y={BARS.height + 15} textAnchor="middle" className="num-small" fill="var(--soft)">
                    {at + 2}
                  </text>
                </g>
              ))}
            </svg>
          </div>
        </div>
      </div>
      <ControlGroups editor={props} columns={model.params.some((spec) => spec.group) ? 3 : 2} />
    </div>
  );
}

interface ReachProps {
  readonly processor: string;
  readonly shape: (x: number) => number;
}

/** The stretch of the curve that the sound reaches now. Drawn live. */
function Reach({ processor, shape }: ReachProps) {
  const stretch = useRef<SVGPathElement>(null);
  useEffect(
    () =>
      onMeters(({ processors }) => {
        const peak = Math.min(1, processors.find((p) => p.key === processor)?.peakIn ?? 0);
        const steps = 40;
        const points = Array.from({ length: steps + 1 }, (_, i) => {
          const x = -peak + (2 * peak * i) / steps;
          return `${shaperX(x, CURVE).toFixed(1)} ${shaperY(shape(x), CURVE).toFixed(1)}`;
        });
        stretch.current?.setAttribute("d", peak > 0.001 ? `M${points.join("L")}` : "");
      }),
    [processor, shape],
  );
  return <path ref={stretch} style={{ stroke: "var(--edit)", strokeWidth: 7, opacity: 0.45 }} aria-hidden="true" />;
}
