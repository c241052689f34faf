"use client";

import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { useShallow } from "zustand/react/shallow";
import type { Stretch } from "@/clients/sound-engine";
import type { Outline } from "@/core/materials/outline";
import { counted } from "@/core/names/count";
import { formatNumber } from "@/core/units/format";
import { useDrag } from "../kit/use-drag";
import { seek, setStretch } from "./listening";
import { onMeters, phraseOf, useListening } from "./state";

/** Of the picture, in its own units: 40 high, as wide as there are columns. */
const [MIDDLE, REACH] = [20, 18];
/** In pixels: a press that moves less is a click. */
const DRAG_BEGINS = 4;
/** Of the whole: what an arrow key goes on by. */
const STEP = 1 / 32;

/** As high as there is room: how loud it is says the loudness. */
const sides = ({ high, low }: Outline): string => {
  const most = Math.max(0.001, ...high, ...low.map((sample) => -sample));
  const at = (sample: number) => (MIDDLE - (sample / most) * REACH).toFixed(1);
  const above = high.map((sample, x) => `${x + 0.5} ${at(sample)}`);
  const below = low.map((sample, x) => `${x + 0.5} ${at(sample)}`).toReversed();
  return `M${[...above, ...below].join("L")}Z`;
};

/** A stretch as a hand dragged it, from either end. */
const between = (a: number, b: number): Stretch => {
  const within = (x: number) => Math.min(1, Math.max(0, x));
  return { from: within(Math.min(a, b)), to: within(Math.max(a, b)) };
};

const spoken = (progress: number, seconds: number, stretch: Stretch | null): string => {
  const at = (share: number) => formatNumber(share * seconds, 1);
  const round = stretch ? `, ${at(stretch.from)} to ${at(stretch.to)} s goes round` : "";
  return `${at(progress)} of ${counted(Number(formatNumber(seconds, 1)), "second")}${round}`;
};

/**
 * The loop's outline; the part that has been played is drawn live, frame by frame, without React. A click goes there, a
 * dragged stretch goes round until a double-click or Escape lets all of it go round again.
 */
export function LoopPicture() {
  const [outline, seconds, stretch, isPhrase] = useListening(
    useShallow((s) => [s.outline, s.seconds, s.stretch, phraseOf(s) !== null]),
  );
  const [dragged, setDragged] = useState<Stretch | null>(null);
  const begun = useRef(0);
  const progress = useRef(0);
  const whole = useRef<HTMLDivElement>(null);
  const played = useRef<SVGRectElement>(null);
  const head = useRef<SVGPathElement>(null);
  const width = Math.max(1, outline.high.length);
  useEffect(
    () =>
      onMeters((meters) => {
        progress.current = meters.progress;
        played.current?.setAttribute("width", String(meters.progress * width));
        head.current?.setAttribute("transform", `translate(${meters.progress * width} 0)`);
        whole.current?.setAttribute("aria-valuenow", String(Math.round(meters.progress * 100)));
        whole.current?.setAttribute("aria-valuetext", spoken(meters.progress, seconds, stretch));
      }),
    [width, seconds, stretch],
  );
  const drag = useDrag({
    begins: DRAG_BEGINS,
    onStart: ({ x, width: all }) => {
      begun.current = x / all;
      return seconds > 0;
    },
    onMove: ({ x, width: all }) => {
      // A phrase goes round as a whole.
      if (!isPhrase) setDragged(between(begun.current, x / all));
    },
    onEnd: (how) => {
      if (how === "pressed") seek(begun.current);
      if (how === "moved" && dragged) setStretch(dragged);
      setDragged(null);
    },
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
    if (step !== undefined) seek((1 + progress.current + step) % 1);
    else if (event.key === "Home") seek(0);
    else if ((event.key === "Escape" || event.key === "Delete") && stretch) setStretch(null);
    else return;
    event.preventDefault();
  };
  const shown = dragged ?? (isPhrase ? null : stretch);
  const path = outline.high.length > 0 ? sides(outline) : "";
  return (
    <div
      ref={whole}
      role="slider"
      tabIndex={0}
      aria-label="Place in the loop"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={0}
      aria-valuetext={spoken(0, seconds, stretch)}
      title={
        isPhrase
          ? "Click to go there"
          : stretch
            ? "Click to go there. Double-click lets all of it go round"
            : "Click to go there, drag over a stretch to let it go round"
      }
      onKeyDown={onKeyDown}
      onDoubleClick={() => setStretch(null)}
      className="h-10 min-w-0 cursor-text touch-none rounded-card"
      {...drag}
    >
      <svg className="plot h-10 w-full" viewBox={`0 0 ${width} 40`} preserveAspectRatio="none" aria-hidden="true">
        <clipPath id="played">
          <rect ref={played} width={0} height={40} />
        </clipPath>
        {shown && (
          <rect
            x={shown.from * width}
            width={(shown.to - shown.from) * width}
            height={40}
            fill="var(--live-tint)"
            data-stretch
          />
        )}
        <path d={`M0 ${MIDDLE}H${width}`} stroke="var(--rule)" />
        <path d={path} style={{ fill: "var(--fill)", stroke: "var(--bound)" }} />
        <path d={path} style={{ fill: "var(--live-tint)", stroke: "var(--live)" }} clipPath="url(#played)" />
        {shown && (
          <path d={`M${shown.from * width} 0V40M${shown.to * width} 0V40`} stroke="var(--live)" strokeWidth={1} />
        )}
        <path ref={head} d="M0 2V38" stroke="var(--live)" strokeWidth={1.5} />
      </svg>
    </div>
  );
}
