import { effect, frequencySpec, numbersSpec, percentSpec } from "../specs";
import { sineDesign } from "./modulation-design";
import { depthSpec, rateSpec, spreadSpec } from "./chorus";

export const PHASER_STAGES = [4, 6, 8, 12] as const;

/** At full depth the notches travel so far to each side, in octaves. */
export const PHASER_SWING = 2;

export const PHASER = effect("modulation", "phaser", "Phaser", {
  structural: ["stages"],
  widens: true,
  params: [
    rateSpec(0.02, 8, 0.4),
    depthSpec(60),
    frequencySpec("centre", "Centre", [100, 5000, 800]),
    numbersSpec(
      "stages",
      "Stages",
      PHASER_STAGES.map((value) => ({ value, label: String(value) })),
      { start: 6 },
    ),
    percentSpec("feedback", "Feedback", [-90, 90, 30], { meaning: "feedback.pct" }),
    spreadSpec(25),
    percentSpec("mix", "Mix", [0, 100, 50], { meaning: "mix.pct" }),
  ],
  lead: "rate",
  design: sineDesign,
});

/** First-order all-pass by the bilinear transform, −90° at `freq` Hz: (a + z⁻¹) / (1 + a·z⁻¹). */
export function allPassCoefficient(freq: number, sampleRate: number): number {
  const tangent = Math.tan((Math.PI * Math.min(freq, sampleRate * 0.45)) / sampleRate);
  return (tangent - 1) / (tangent + 1);
}
