"use client";

import { useEffect, useRef } from "react";
import { lineOf } from "@/core/plots/axes";
import { heardAt } from "@/core/processors/model";
import { drawShape } from "@/core/plots/plot";
import { formatNumber } from "@/core/units/format";
import { onMeters } from "../../listening/state";
import { ControlGroups } from "./control-line";
import { type EditorProps, heardOf } from "./editor";

const BOX = { width: 328, height: 150 };

/** Gain, width, tuner and meter: its picture, what it reads, and its values. */
export function UtilityEditor(props: EditorProps) {
  const { model, processor, tempo } = props;
  const values = heardOf(model, processor, tempo);
  return (
    <div className="grid grid-cols-[330px_minmax(0,1fr)] items-start gap-[18px]">
      {model.reads === "pitch" ? (
        <Tuning processor={processor.key} reference={heardAt(values, "reference")} />
      ) : model.reads === "loudness" ? (
        <Loudness processor={processor.key} target={heardAt(values, "target")} />
      ) : (
        <div className="rounded-card border border-edge bg-card">
          <svg className="plot block" width={BOX.width} height={BOX.height} aria-hidden="true">
            {drawShape(model, values, BOX).map(({ kind, path }) => (
              <path key={kind} className={kind === "line" ? "live" : kind} d={path} />
            ))}
          </svg>
        </div>
      )}
      <ControlGroups editor={props} columns={1} />
    </div>
  );
}

const NOTES = ["C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B"] as const;
/** Semitones from the C below the lowest octave to A4. */
const A4 = 57;
const CENTS_SHOWN = 50;

/** The nearest note of equal temperament, and how far off it is in cents. */
export function noteOf(hz: number, reference: number): { readonly name: string; readonly cents: number } {
  const semitones = 12 * Math.log2(hz / reference) + A4;
  const nearest = Math.round(semitones);
  return {
    name: `${NOTES[((nearest % 12) + 12) % 12]}${Math.floor(nearest / 12)}`,
    cents: 100 * (semitones - nearest),
  };
}

interface ReadingProps {
  readonly processor: string;
}

function Tuning({ processor, reference }: ReadingProps & { readonly reference: number }) {
  const name = useRef<HTMLSpanElement>(null);
  const cents = useRef<HTMLSpanElement>(null);
  const needle = useRef<SVGGElement>(null);
  useEffect(
    () =>
      onMeters(({ processors }) => {
        const hz = processors.find((p) => p.key === processor)?.reading ?? 0;
        if (!name.current || !cents.current || !needle.current) return;
        needle.current.style.display = hz > 0 ? "" : "none";
        if (hz <= 0) {
          name.current.textContent = "–";
          cents.current.textContent = "no note";
          return;
        }
        const note = noteOf(hz, reference);
        name.current.textContent = note.name;
        cents.current.textContent = `${note.cents > 0 ? "+" : ""}${formatNumber(note.cents, 0)} cents`;
        needle.current.setAttribute("transform", `translate(${(note.cents / CENTS_SHOWN) * 144} 0)`);
      }),
    [processor, reference],
  );
  return (
    <div className="rounded-card border border-edge bg-card">
      <p className="flex items-baseline justify-between px-3 pt-2">
        <span ref={name} className="font-name text-[34px] leading-10">
          –
        </span>
        <span ref={cents} className="num text-soft">
          no note
        </span>
      </p>
      <svg className="plot block" width={328} height={70} viewBox="-164 0 328 70" aria-hidden="true">
        {[-50, -40, -30, -20, -10, 0, 10, 20, 30, 40, 50].map((at) => (
          <g key={at}>
            <path
              className="axis"
              d={lineOf([(at / CENTS_SHOWN) * 144, 44], [(at / CENTS_SHOWN) * 144, at === 0 ? 14 : 34])}
              style={{ stroke: "var(--bound)" }}
            />
            {at % 50 === 0 && (
              <text x={(at / CENTS_SHOWN) * 144} y={60} textAnchor="middle" className="num-small" fill="var(--faint)">
                {at > 0 ? `+${at}` : at < 0 ? `−${-at}` : "0"}
              </text>
            )}
          </g>
        ))}
        <g ref={needle} style={{ display: "none" }}>
          <path d="M0 6V46" style={{ stroke: "var(--live)", strokeWidth: 2.5 }} />
        </g>
      </svg>
    </div>
  );
}

/** LUFS at the left end of the scale. */
const QUIETEST = -48;

function Loudness({ processor, target }: ReadingProps & { readonly target: number }) {
  const figure = useRef<HTMLSpanElement>(null);
  const off = useRef<HTMLSpanElement>(null);
  const bar = useRef<SVGRectElement>(null);
  const x = (lufs: number) => 300 * Math.min(1, Math.max(0, 1 - lufs / QUIETEST));
  useEffect(
    () =>
      onMeters(({ processors }) => {
        const lufs = processors.find((p) => p.key === processor)?.reading ?? -120;
        if (!figure.current || !off.current || !bar.current) return;
        const silent = lufs <= -100;
        figure.current.textContent = silent ? "−∞" : formatNumber(lufs, 1);
        off.current.textContent = silent ? "" : `${formatNumber(lufs - target, 1)} LU from the target`;
        bar.current.setAttribute("width", String(x(lufs)));
      }),
    [processor, target],
  );
  return (
    <div className="rounded-card border border-edge bg-card">
      <p className="flex items-baseline justify-between px-3 pt-2">
        <span className="num text-[26px] leading-10">
          <span ref={figure}>−∞</span>
          <span className="unit">LUFS</span>
        </span>
        <span ref={off} className="num-small text-soft" />
      </p>
      <svg className="plot block" width={328} height={70} viewBox="-14 0 328 70" aria-hidden="true">
        <rect ref={bar} y={20} height={18} width={0} fill="var(--live)" />
        <path d={lineOf([x(target), 14], [x(target), 44])} style={{ stroke: "var(--ink)", strokeWidth: 1.5 }} />
        {[-48, -36, -24, -12, 0].map((lufs) => (
          <text key={lufs} x={x(lufs)} y={60} textAnchor="middle" className="num-small" fill="var(--faint)">
            {lufs < 0 ? `−${-lufs}` : lufs}
          </text>
        ))}
      </svg>
    </div>
  );
}
