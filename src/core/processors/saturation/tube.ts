import { MIX, OUTPUT, effect, gainSpec, percentSpec } from "../specs";
import { softClip } from "./shaper";
import { SATURATION_MAKEUP, driveGains } from "./drive";

export const TUBE = effect("saturation", "tube", "Tube", {
  params: [
    gainSpec("drive", "Drive", [0, 30, 8], { meaning: "drive.dB" }),
    percentSpec("bias", "Bias", [0, 100, 40]),
    SATURATION_MAKEUP,
    OUTPUT,
    MIX,
  ],
  lead: "drive",
  oversamples: true,
  design: {
    shape(values) {
      const curve = tubeCurve(tubeOffset(values.bias));
      const { before, after } = driveGains(values.drive, values.makeupMode, curve);
      return (x) => after * curve(before * x);
    },
  },
});

/** The working point moves up the curve, which bends one half of the wave before the other: even harmonics. */
export const tubeOffset = (bias: number): number => (bias / 100) * 0.8;

export function tubeCurve(offset: number): (x: number) => number {
  const rest = softClip(offset);
  return (x) => softClip(x + offset) - rest;
}
