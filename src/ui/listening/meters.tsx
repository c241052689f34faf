"use client";

import { Popover } from "radix-ui";
import { type RefObject, useEffect, useRef } from "react";
import { useShallow } from "zustand/react/shallow";
import { EMPTY_CHAIN } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { FREQUENCY_LINES, frequencyX, lineOf } from "@/core/plots/axes";
import { findModel } from "@/core/processors/models";
import { formatNumber } from "@/core/units/format";
import { TILT, useSpectrumLine } from "./spectrum";
import { measuredNow, onMeters, useListening } from "./state";

interface Props {
  readonly anchor: RefObject<HTMLElement | null>;
  readonly onClose: () => void;
}

/** What else there is to read beside the loudness in the bar: spectrum, correlation, reduction. */
export function Meters({ anchor, onClose }: Props) {
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Anchor virtualRef={anchor} />
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="end"
          sideOffset={12}
          sticky="always"
          aria-label="Meters"
          className="z-40 grid w-[460px] gap-3 rounded-card border border-edge bg-card p-4 outline-none"
          onCloseAutoFocus={() => anchor.current?.focus()}
          onInteractOutside={(event) => {
            // The button itself closes it.
            if (anchor.current?.contains(event.target as Node)) event.preventDefault();
          }}
        >
          <Spectrum />
          <Correlation />
          <Figures />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const BOX = { width: 426, height: 130 };
/** Drawn live, frame by frame. */
function Spectrum() {
  const line = useRef<SVGPathElement>(null);
  useSpectrumLine(line, BOX);
  return (
    <div>
      <h2 className="h2 pb-1">Spectrum, {TILT} dB an octave taken out</h2>
      <svg
        className="plot block w-full rounded-card border border-edge bg-ground"
        viewBox={`0 0 ${BOX.width} ${BOX.height}`}
        role="img"
        aria-label="Spectrum of what is heard"
      >
        {FREQUENCY_LINES.map((hz) => (
          <g key={hz}>
            <path className="axis" d={lineOf([frequencyX(hz, BOX), 0], [frequencyX(hz, BOX), BOX.height])} />
            <text x={frequencyX(hz, BOX) + 3} y={BOX.height - 4} className="num-small" fill="var(--faint)">
              {hz >= 1000 ? `${hz / 1000}k` : hz}
            </text>
          </g>
        ))}
        <path ref={line} className="live" style={{ strokeWidth: 1.5 }} />
      </svg>
    </div>
  );
}

const WIDTH = 426;

/** Between the sides: 1 is mono, 0 unlike, below it gets lost in mono. Drawn live. */
function Correlation() {
  const mark = useRef<SVGPathElement>(null);
  const figure = useRef<HTMLSpanElement>(null);
  const reduction = useRef<HTMLSpanElement>(null);
  const chain = useListening((s) => (s.side === "b" ? s.b : s.a)?.chain);
  useEffect(() => {
    const reducing = new Set(
      processorsOf(chain ?? EMPTY_CHAIN)
        .filter(({ model }) => findModel(model)?.reads === "reduction")
        .map(({ key }) => key),
    );
    let smooth = 1;
    let deepest = 0;
    return onMeters(({ correlation, processors }) => {
      smooth += 0.2 * (correlation - smooth);
      mark.current?.setAttribute("transform", `translate(${((smooth + 1) / 2) * WIDTH} 0)`);
      if (figure.current) figure.current.textContent = formatNumber(smooth, 2);
      const now = Math.min(0, ...processors.filter((p) => reducing.has(p.key)).map((p) => p.reading));
      deepest = Math.min(now, deepest * 0.94);
      if (reduction.current) reduction.current.textContent = formatNumber(-deepest, 1);
    });
  }, [chain]);
  return (
    <div>
      <p className="flex items-baseline justify-between pb-1">
        <span className="h2">Correlation of the sides</span>
        <span className="num-small">
          <span ref={figure}>1.00</span>
        </span>
      </p>
      <svg className="plot block w-full" viewBox={`0 0 ${WIDTH} 18`} aria-hidden="true">
        <path d={`M0 12H${WIDTH}M0 6V12M${WIDTH / 2} 3V12M${WIDTH} 6V12`} stroke="var(--bound)" />
        <path ref={mark} d="M0 0V12" transform={`translate(${WIDTH} 0)`} stroke="var(--live)" strokeWidth={3} />
      </svg>
      <p className="flex items-baseline justify-between pt-2">
        <span className="h2">Deepest gain reduction now</span>
        <span className="num-small">
          <span ref={reduction}>0.0</span>
          <span className="unit">dB</span>
        </span>
      </p>
    </div>
  );
}

function Figures() {
  const [now, dry] = useListening(useShallow((s) => [measuredNow(s), s.measured.dry]));
  const rows = [
    ["Loudness of the loop", now?.integratedLufs, "LUFS", dry?.integratedLufs],
    ["Loudness range", now?.loudnessRangeLu, "LU", dry?.loudnessRangeLu],
    ["True peak", now?.truePeakDb, "dBTP", dry?.truePeakDb],
    ["Crest factor", now?.crestDb, "dB", dry?.crestDb],
  ] as const;
  const write = (value: number | undefined) =>
    value === undefined || !Number.isFinite(value) ? "–" : formatNumber(value, 1);
  return (
    <table className="w-full text-small">
      <thead>
        <tr className="border-edge border-b text-soft">
          <th className="py-1 text-left font-normal">Measured over the loop</th>
          <th className="text-right font-normal">heard</th>
          <th className="text-right font-normal">dry</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, value, unit, before]) => (
          <tr key={name} className="border-rule border-b">
            <td className="py-1">{name}</td>
            <td className="num-small text-right">
              {write(value)}
              <span className="unit">{unit}</span>
            </td>
            <td className="num-small text-right text-soft">{write(before)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
