import { effect, gainSpec, timeSpec } from "../specs";

/** How far ahead it looks, in samples: 1.3 ms at 48 kHz. It is also its latency. */
export const LOOK_AHEAD = 64;

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
  latency: LOOK_AHEAD,
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
