import { MIX, OUTPUT, choiceSpec, effect, gainSpec, percentSpec } from "../specs";
import { SATURATION_MAKEUP, driveGains } from "./drive";
import { softClip } from "./shaper";

/** In inches a second: the slower, the lower its bump and the earlier its highs fade. */
export const TAPE_SPEEDS = [
  { label: "7.5 ips", bump: 55, highs: 9000 },
  { label: "15 ips", bump: 85, highs: 15_000 },
  { label: "30 ips", bump: 140, highs: 21_000 },
] as const;

export const TAPE = effect("saturation", "tape", "Tape", {
  params: [
    gainSpec("drive", "Drive", [-6, 24, 6], { meaning: "drive.dB" }),
    choiceSpec(
      "speed",
      "Speed",
      TAPE_SPEEDS.map((s) => s.label),
      { start: 1 },
    ),
    gainSpec("bump", "Head bump", [0, 6, 1.5]),
    percentSpec("bias", "Bias", [0, 100, 50]),
    SATURATION_MAKEUP,
    OUTPUT,
    MIX,
  ],
  lead: "drive",
  oversamples: true,
  design: {
    shape(values) {
      const curve = tapeCurve(values.bias);
      const { before, after } = driveGains(values.drive, values.makeupMode, curve);
      return (x) => after * curve(before * x);
    },
  },
});

/** Too little bias leaves a dent around silence; at half and above there is none. 0 to 0.5. */
export const tapeDent = (bias: number): number => Math.max(0, 0.5 - bias / 100);

/** Slope 1 where the signal is small but heard, 1 − dent at silence. */
export function tapeCurve(bias: number): (x: number) => number {
  const dent = tapeDent(bias);
  return (x) => softClip(tapeDented(x, dent));
}

export const tapeDented = (x: number, dent: number): number => x - dent * (x / (0.04 + x * x)) * DENT_WIDTH;

const DENT_WIDTH = 0.04;
