"use client";

import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { lineOf as lineBetween } from "@/core/plots/axes";
import { DYNAMICS_RANGE, dynamicsMarks, dynamicsX, dynamicsY, makeupDb, transferAt } from "@/core/plots/plot";
import type { ParamId, Value } from "@/core/processors/param-spec";
import { clampTo } from "@/core/processors/param-spec";
import { getSpec } from "@/core/processors/model";
import { formatNumber, formatPlain } from "@/core/units/format";
import { Segments } from "../../kit/segments";
import { Num } from "../../kit/number";
import { ValueLine, round, stepValue } from "../../kit/value-line";
import { onMeters } from "../../listening/listening";
import { type EditorProps, heardOf, lineOf } from "./editor";
import { Handle } from "./handle";
import type { DragPoint } from "./use-drag";

const BOX = { width: 328, height: 270 };
const HISTORY = { width: 460, height: 82 };
/** dB at the lower edge of the reduction's picture. */
const DEEPEST = 12;
const LINES = [-48, -36, -24, -12];

/** The compressor: threshold and ratio are pulled on the transfer line; reduction runs beside it. */
export function CompressorEditor(props: EditorProps) {
  const { model, processor, saved, tempo, onTurn } = props;
  const values = heardOf(model, processor, tempo);
  const marks = dynamicsMarks(values, BOX);
  const savedLine = saved && dynamicsMarks(heardOf(model, saved, tempo), BOX).find((m) => m.kind === "line");
  const automatic = values.makeupMode === 1;
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
            aria-label="Transfer line of the compressor"
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
            {marks.map(
              ({ kind, path }) =>
                kind !== "axis" && (
                  <path
                    key={kind}
                    className={kind === "line" ? "live" : kind}
                    d={path}
                    style={kind === "area" ? { fill: "var(--fill)" } : {}}
                  />
                ),
            )}
            {savedLine && <path className="ghost" d={savedLine.path} />}
            <LevelDot processor={processor.key} values={values} />
            <ThresholdHandle {...props} />
          </svg>
          <span className="num-small pointer-events-none absolute top-[3px] left-[6px] text-faint">out 0 dB</span>
          <span className="num-small pointer-events-none absolute right-[6px] bottom-[2px] text-faint">in 0 dB</span>
        </div>
        <div className="grid content-start gap-2">
          <Reduction processor={processor.key} />
          <div>
            <ValueLine {...lineOf(props, "threshold")} />
            <ValueLine {...lineOf(props, "ratio")} />
            <ValueLine {...lineOf(props, "knee")} />
          </div>
        </div>
      </div>
      <div className="grid grid-cols-2 gap-x-5">
        <div>
          <ValueLine {...lineOf(props, "attack")} />
          <ValueLine {...lineOf(props, "release")} />
        </div>
        <div>
          <div className="grid h-[30px] grid-cols-[92px_minmax(80px,204px)_96px] items-center gap-[10px]">
            <span>Make-up</span>
            <Segments
              small
              label="Make-up"
              value={String(values.makeupMode)}
              onChange={(mode) => onTurn({ makeupMode: Number(mode) })}
              options={[
                { value: "1", label: "Automatic" },
                { value: "0", label: "By hand" },
              ]}
            />
            {automatic && (
              <Num
                className="px-1 text-right"
                written={{ text: `+${formatNumber(makeupDb(values), 1)}`, unit: "dB" }}
              />
            )}
          </div>
          {!automatic && <ValueLine {...lineOf(props, "makeup")} label="Gain" />}
          <ValueLine {...lineOf(props, "mix")} />
        </div>
      </div>
    </div>
  );
}

/** Across is the threshold, up and down the ratio: the line above it is pulled flatter or steeper. */
function ThresholdHandle({ model, processor, onPreview, onTurn, tempo }: EditorProps) {
  const values = heardOf(model, processor, tempo);
  const [threshold, ratio] = [values.threshold ?? 0, values.ratio ?? 1];
  const [pulled, setPulled] = useState<Record<ParamId, Value> | null>(null);
  const specs = { threshold: getSpec(model, "threshold"), ratio: getSpec(model, "ratio") };
  const move = ({ dx, dy }: DragPoint) => {
    const next = {
      threshold: clampTo(specs.threshold, round(threshold + (dx / BOX.width) * DYNAMICS_RANGE)),
      ratio: clampTo(specs.ratio, round(ratio * Math.exp(dy / 60))),
    };
    setPulled(next);
    onPreview(next);
  };
  const end = (moved: boolean) => {
    if (pulled && moved) onTurn(pulled);
    setPulled(null);
  };
  const key = (event: KeyboardEvent) => {
    const turns: Record<string, readonly ["threshold" | "ratio", 1 | -1]> = {
      ArrowRight: ["threshold", 1],
      ArrowLeft: ["threshold", -1],
      ArrowDown: ["ratio", 1],
      ArrowUp: ["ratio", -1],
    };
    const turned = turns[event.key];
    if (!turned || event.ctrlKey || event.altKey || event.metaKey) return;
    event.preventDefault();
    const [id, direction] = turned;
    onTurn({ [id]: stepValue(specs[id], id === "threshold" ? threshold : ratio, direction, event.shiftKey) });
  };
  return (
    <Handle
      x={Math.min(BOX.width - 10, Math.max(10, dynamicsX(threshold, BOX)))}
      y={Math.min(BOX.height - 10, Math.max(10, dynamicsY(transferAt(values, threshold), BOX)))}
      mark=""
      label="Threshold and ratio"
      text={`${formatPlain(specs.threshold, threshold)}, ${formatPlain(specs.ratio, ratio)}`}
      selected
      onSelect={() => undefined}
      onMove={move}
      onEnd={end}
      onKey={key}
      onReset={() => onTurn({ threshold: specs.threshold.default, ratio: specs.ratio.default })}
    />
  );
}

/** Where the level is on the line now. Drawn live. */
function LevelDot({
  processor,
  values,
}: {
  readonly processor: string;
  readonly values: Readonly<Record<string, number>>;
}) {
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
    [processor, values],
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
