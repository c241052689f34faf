"use client";

import { useRef } from "react";
import { create } from "zustand";
import type { Box } from "@/core/plots/axes";
import { useSpectrumLine } from "../../listening/spectrum";

/** Whether plots of a response have the spectrum of what is heard behind them; the same for all, until the page is left. */
const useBehind = create(() => ({ shown: false }));

function Line({ box }: { readonly box: Box }) {
  const line = useRef<SVGPathElement>(null);
  useSpectrumLine(line, box, true);
  return <path ref={line} data-spectrum className="band" style={{ fill: "var(--sunk)", stroke: "var(--edge)" }} />;
}

/** The spectrum behind a response, where it is asked for. */
export function SpectrumBehind({ box }: { readonly box: Box }) {
  return useBehind((b) => b.shown) && <Line box={box} />;
}

/** Asks for the spectrum, in a corner of the plot. */
export function SpectrumSwitch() {
  const shown = useBehind((b) => b.shown);
  return (
    <button
      type="button"
      aria-pressed={shown}
      title="The spectrum of what is heard, behind the curve; 3 dB an octave taken out"
      onClick={() => useBehind.setState({ shown: !shown })}
      className="absolute top-[6px] right-[6px] rounded-card border border-edge bg-card px-[7px] text-small text-soft hover:text-ink aria-pressed:border-live aria-pressed:text-live"
    >
      Spectrum
    </button>
  );
}
