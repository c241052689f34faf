import { BETWEEN_TAPS } from "../../dsp/between";
import { effect, gainSpec, timeSpec } from "../specs";

/** How far ahead it looks, in milliseconds: the time in which a gain arrives. */
export const LOOK_AHEAD = 2;
/** How long a gain is held behind what needed it, in milliseconds: half a turn of 33 Hz, so that the crests of a low note do not pump. */
export const HOLD = 15;

export const LIMITER = effect("dynamics", "limiter", "Limiter", {
  holdsLevels: true,
  limits: true,
  reads: "reduction",
  params: [
    gainSpec("gain", "Gain", [0, 24, 0]),
    gainSpec("ceiling", "Ceiling", [-24, 0, -1], { meaning: "ceiling.dB" }),
    timeSpec("release", "Release", [5, 1000, 80], { meaning: "release.ms" }),
  ],
  lead: "gain",
  // What a peak between samples is read by; the look-ahead comes to it.
  latency: BETWEEN_TAPS / 2,
  lookAhead: LOOK_AHEAD,
  design: {
    lines: ({ gain, ceiling }) => [
      {
        at: (level) => Math.min(ceiling, level + gain),
        threshold: ceiling - gain,
        params: { threshold: "ceiling" },
      },
    ],
  },
});
