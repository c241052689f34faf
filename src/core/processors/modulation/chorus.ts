import { sineDesign } from "./modulation-design";
import { dryAndWet, effect, frequencySpec, percentSpec, timeSpec } from "../specs";

export const rateSpec = (min: number, max: number, start: number) =>
  frequencySpec("rate", "Rate", [min, max, start], { mayFollowTempo: true, meaning: "rate.hz" });
export const depthSpec = (start: number) => percentSpec("depth", "Depth", [0, 100, start], { meaning: "depth.pct" });
export const spreadSpec = (start: number) => percentSpec("spread", "Spread", [0, 100, start]);

/** In ms: how far full depth swings to each side. */
export const CHORUS_SWING = 6;

export const CHORUS = effect("modulation", "chorus", "Chorus", {
  widens: true,
  params: [
    rateSpec(0.05, 8, 0.6),
    depthSpec(40),
    timeSpec("delay", "Delay", [7, 40, 14]),
    spreadSpec(50),
    ...dryAndWet(0, -3),
  ],
  lead: "depth",
  design: sineDesign,
});

/** In ms: the longest swing, on top of the delay. */
export const FLANGER_SWING = 5;

export const FLANGER = effect("modulation", "flanger", "Flanger", {
  widens: true,
  params: [
    rateSpec(0.02, 8, 0.25),
    depthSpec(60),
    timeSpec("delay", "Delay", [0.1, 10, 1]),
    percentSpec("feedback", "Feedback", [-95, 95, 40], { meaning: "feedback.pct" }),
    spreadSpec(25),
    percentSpec("mix", "Mix", [0, 100, 50], { meaning: "mix.pct" }),
  ],
  lead: "rate",
  design: sineDesign,
});
