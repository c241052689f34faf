"use client";

import { type RefObject, useEffect } from "react";
import { type Box, frequencyX, pathOf } from "@/core/plots/axes";
import { readSpectrum } from "./state";

/** dB at the head and the foot of the picture. */
const TOP = 0;
const FOOT = -96;
const RATE = 48_000;
/** How steep pink noise falls, in dB an octave: taken out, so that a balanced mix looks level. */
export const TILT = 3;

function spectrumPath(levels: Float32Array, box: Box): string {
  const points: [number, number][] = [];
  let last = -1;
  for (let bin = 1; bin < levels.length; bin++) {
    const hz = (bin * RATE) / (2 * levels.length);
    if (hz < 20 || hz > 20_000) continue;
    const x = frequencyX(hz, box);
    // Towards the top many bins share a pixel: the first of them stands for all.
    if (x - last < 1) continue;
    last = x;
    const dB = (levels[bin] ?? FOOT) + TILT * Math.log2(hz / 1000);
    points.push([x, Math.min(box.height, Math.max(1, ((TOP - dB) / (TOP - FOOT)) * box.height))]);
  }
  return points.length > 1 ? pathOf(points) : "";
}

/** Draws the spectrum of what is heard into a path, frame by frame, as long as it is there. */
export function useSpectrumLine(line: RefObject<SVGPathElement | null>, box: Box, closed = false): void {
  useEffect(() => {
    let frame = requestAnimationFrame(function draw() {
      const levels = readSpectrum();
      const path = levels ? spectrumPath(levels, box) : "";
      line.current?.setAttribute("d", closed && path !== "" ? `${path}V${box.height}H0Z` : path);
      frame = requestAnimationFrame(draw);
    });
    return () => cancelAnimationFrame(frame);
  }, [line, box, closed]);
}
