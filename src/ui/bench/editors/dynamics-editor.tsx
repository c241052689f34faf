"use client";

import { useEffect, useRef } from "react";
import { lineOf as lineBetween } from "@/core/plots/axes";
import {
  DYNAMICS_RANGE,
  automaticMakeup,
  dynamicsX,
  dynamicsY,
  transferLines,
  transferPath,
} from "@/core/plots/dynamics";
import type { TransferLine } from "@/core/processors/dynamics/dynamics-design";
import { findSpec } from "@/core/processors/model";
import { formatNumber } from "@/core/units/format";
import { Num } from "../../kit/number";
import { cx } from "../../kit/class-names";
import { Segments } from "../../kit/segments";
import { LineLabel, ValueLine } from "../../kit/value-line";
import { onMeters } from "../../listening/state";
import { ControlGroups, ControlLine } from "./control-line";
import { type EditorProps, heardOf, lineOf } from "./editor";
import { PairHandle } from "./pair-handle";

const BOX = { width: 328, height: 270 };
const HISTORY = { width: 460, height: 82 };
/** dB at the lower edge of the reduction's picture. */
const DEEPEST = 12;
const LINES = [-48, -36, -24, -12];
/** Pixels that turn a ratio by the factor e. */
const RATIO_TRAVEL = 60;

/** What stands beside the reduction; the rest follows beneath. */
const BESIDE = ["threshold", "ratio", "knee", "gain", "ceiling", "hysteresis", "freq"];
const MAKE_UP = ["makeupMode", "makeup"];

/** Dynamics: threshold and ratio are pulled on the transfer line; reduction runs beside it. */
export function DynamicsEditor(props: EditorProps) {
  const { model, processor, saved, tempo } = props;
  const values = heardOf(model, processor, tempo);
  const lines = transferLines(model, values);
  const savedLines = saved ? transferLines(model, heardOf(model, saved, tempo)) : [];
  const grouped = model.params.some((spec) => spec.group);
  const beside = grouped ? ["lower", "upper", "form", "hears"] : BESIDE.filter((id) => findSpec(model, id));
  const hasMakeup = findSpec(model, "makeupMode") !== null;
  return (
    <div className="grid gap-2">
      <div className="grid grid-cols-[330px_minmax(0,1fr)] gap-[18px]">
        <div className="relative h-[272px] rounded-card border border-edge bg-card">
          <svg
            className="plot block"
            width={BOX.width}
            height={BOX.height}
            viewBox={`0 0 ${BOX.width} ${BOX.height}`}
            role="group"
            aria-label="Transfer line"
          >
            {LINES.map((dB) => (
              <path
                key={dB}
                className="axis"
                d={
                  lineBetween([dynamicsX(dB, BOX), 0], [dynamicsX(dB, BOX), BOX.height]) +
                  lineBetween([0, dynamicsY(dB, BOX)], [BOX.width, dynamicsY(dB, BOX)])
                }
              />
            ))}
            <path className="ghost" d={lineBetween([0, BOX.height], [BOX.width, 0])} />
            {savedLines.map((line) => (
              <path key={line.params.threshold} className="ghost" d={transferPath(line, BOX)} />
            ))}
            {lines.map((line) => (
              <Line key={line.params.threshold} line={line} alone={lines.length === 1} />
            ))}
            {lines.length === 1 && lines[0] && <LevelDot processor={processor.key} line={lines[0]} />}
            {lines.map((line) => (
              <LineHandle key={line.params.threshold} editor={props} line={line} />
            ))}
          </svg>
          <span className="num-small pointer-events-none absolute top-[3px] left-[6px] text-faint">out 0 dB</span>
          <span className="num-small pointer-events-none absolute right-[6px] bottom-[2px] text-faint">
            in 0 dB, {values.hears === 0 ? "each wave" : "peak"}
          </span>
        </div>
        <div className="grid content-start gap-2">
          <Reduction processor={processor.key} />
          <div>
            {beside.map((id) => (
              <ControlLine key={id} editor={props} id={id} />
            ))}
          </div>
        </div>
      </div>
      {hasMakeup && <MakeUp editor={props} automatic={automaticMakeup(model, values)} />}
      <ControlGroups editor={props} without={[...beside, ...MAKE_UP]} columns={grouped ? 3 : 2} />
    </div>
  );
}

function Line({ line, alone }: { readonly line: TransferLine; readonly alone: boolean }) {
  const path = transferPath(line, BOX);
  return (
    <>
      {alone && <path className="area" d={`${path}L${BOX.width} ${BOX.height}L0 ${BOX.height}Z`} />}
      <path className="live" d={path} />
    </>
  );
}

/** Across is the threshold, up and down the ratio: the line above it is pulled flatter or steeper. */
function LineHandle({ editor, line }: { readonly editor: EditorProps; readonly line: TransferLine }) {
  const { params, threshold, name } = line;
  const y = dynamicsY(line.at(threshold), BOX);
  const ratio =
    params.ratio === undefined ? 1 : (heardOf(editor.model, editor.processor, editor.tempo)[params.ratio] ?? 1);
  // A ceiling is pulled down from above; everything else across.
  const level = { id: params.threshold, place: (dB: number) => dynamicsX(dB, BOX) };
  const isCeiling = params.threshold === "ceiling";
  return (
    <PairHandle
      editor={editor}
      box={BOX}
      across={isCeiling ? null : { ...level, value: (x) => (x / BOX.width - 1) * DYNAMICS_RANGE }}
      upward={
        isCeiling
          ? { id: "ceiling", place: (dB) => dynamicsY(dB, BOX), value: (at) => (-at / BOX.height) * DYNAMICS_RANGE }
          : params.ratio === undefined
            ? null
            : {
                id: params.ratio,
                place: () => y,
                // The pointer's way counts, not its place: down is more ratio.
                value: (at) => ratio * Math.exp((at - y) / RATIO_TRAVEL),
                more: -1,
              }
      }
      at={{ x: dynamicsX(threshold, BOX), y }}
      mark={name?.[0] ?? ""}
      label={isCeiling ? "Ceiling" : `${name ? `${name}: threshold` : "Threshold"}${params.ratio ? " and ratio" : ""}`}
      selected
      onSelect={() => undefined}
    />
  );
}

function MakeUp({ editor, automatic }: { readonly editor: EditorProps; readonly automatic: number | null }) {
  const mode = String(Number(editor.processor.values.makeupMode ?? 0));
  const isAutomatic = mode !== "0";
  return (
    <div className="grid grid-cols-2 gap-x-5">
      <div
        className={cx("flex min-h-[30px] flex-wrap items-center gap-x-[10px] py-[2px]", isAutomatic && "col-span-2")}
      >
        <span className="w-[92px]">
          <LineLabel name="Make-up" movedBy={editor.movedBy("makeupMode")} />
        </span>
        <span className="w-[204px]">
          <Segments
            small
            label="Make-up"
            value={mode}
            onChange={(to) => editor.onTurn({ makeupMode: Number(to) })}
            options={[
              { value: "2", label: "Automatic" },
              { value: "1", label: "Half" },
              { value: "0", label: "By hand" },
            ]}
          />
        </span>
        {isAutomatic && (
          <Num
            className="w-[96px] px-1 text-right"
            written={{ text: `+${formatNumber(automatic ?? 0, 1)}`, unit: "dB" }}
          />
        )}
      </div>
      {!isAutomatic && <ValueLine {...lineOf(editor, "makeup")} label="Gain" />}
    </div>
  );
}

/** Where the level is on the line now. Drawn live. */
function LevelDot({ processor, line }: { readonly processor: string; readonly line: TransferLine }) {
  const dot = useRef<SVGGElement>(null);
  useEffect(
    () =>
      onMeters(({ processors }) => {
        const state = processors.find((p) => p.key === processor);
        const dB = state ? 20 * Math.log10(Math.max(1e-6, state.peakIn)) : -120;
        if (!dot.current) return;
        const shown = state && dB > -DYNAMICS_RANGE;
        dot.current.style.display = shown ? "" : "none";
        if (!shown) return;
        const at = Math.min(0, dB);
        const y = dynamicsY(Math.max(-DYNAMICS_RANGE, at + state.reading), BOX);
        dot.current.setAttribute("transform", `translate(${dynamicsX(at, BOX)} ${y})`);
        dot.current.firstElementChild?.setAttribute("d", `M0 0V${dynamicsY(at, BOX) - y}`);
      }),
    [processor, line],
  );
  return (
    <g ref={dot} style={{ display: "none" }} aria-hidden="true">
      <path d="" style={{ stroke: "var(--edit)", strokeWidth: 3 }} />
      <circle r={5} fill="var(--card)" stroke="var(--edit)" strokeWidth={2} />
    </g>
  );
}

const READINGS = 124;

/** The reduction of the last four seconds, and how deep it goes. Drawn live. */
function Reduction({ processor }: { readonly processor: string }) {
  const line = useRef<SVGPathElement>(null);
  const area = useRef<SVGPathElement>(null);
  const words = useRef<HTMLParagraphElement>(null);
  useEffect(() => {
    const readings: number[] = [];
    return onMeters(({ processors }) => {
      const state = processors.find((p) => p.key === processor);
      readings.push(-(state?.reading ?? 0));
      if (readings.length > READINGS) readings.shift();
      const x = (at: number) => (HISTORY.width * (READINGS - readings.length + at)) / (READINGS - 1);
      const points = readings.map(
        (dB, at) => `${x(at).toFixed(1)} ${(1 + (Math.min(DEEPEST, dB) / DEEPEST) * (HISTORY.height - 2)).toFixed(1)}`,
      );
      const path = `M${points.join("L")}`;
      line.current?.setAttribute("d", path);
      area.current?.setAttribute("d", `${path}L${HISTORY.width} 0L${x(0).toFixed(1)} 0Z`);
      const most = Math.max(...readings);
      const average = readings.reduce((a, b) => a + b, 0) / readings.length;
      const [now, deepest, mean] = words.current?.querySelectorAll("[data-figure]") ?? [];
      if (now && deepest && mean) {
        now.textContent = formatNumber(readings.at(-1) ?? 0, 1);
        deepest.textContent = formatNumber(most, 1);
        mean.textContent = formatNumber(average, 1);
      }
    });
  }, [processor]);
  return (
    <div>
      <h2 className="h2 pb-1">Reduction, last 4 s</h2>
      <div className="h-[84px] rounded-card border border-edge bg-card">
        <svg
          className="plot block size-full"
          viewBox={`0 0 ${HISTORY.width} ${HISTORY.height}`}
          preserveAspectRatio="none"
          aria-hidden="true"
        >
          {[3, 6, 9].map((dB) => (
            <path
              key={dB}
              className="axis"
              d={lineBetween([0, (dB / DEEPEST) * HISTORY.height], [HISTORY.width, (dB / DEEPEST) * HISTORY.height])}
            />
          ))}
          <path ref={area} style={{ fill: "var(--edit-tint)" }} />
          <path ref={line} style={{ stroke: "var(--edit)", strokeWidth: 1.5 }} />
        </svg>
      </div>
      <p ref={words} className="flex gap-[14px] pt-[3px] text-small text-soft">
        {["now", "most", "average"].map((word) => (
          <span key={word}>
            {word}{" "}
            <span className="num-small text-ink">
              <span data-figure>0.0</span>
              <span className="unit">dB</span>
            </span>
          </span>
        ))}
      </p>
    </div>
  );
}
