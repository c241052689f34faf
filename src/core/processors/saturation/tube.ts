import { MIX, OUTPUT, effect, gainSpec, percentSpec } from "../specs";
import { softClip } from "./shaper";
import { driveGains } from "./tape";

export const TUBE = effect("saturation", "tube", "Tube", {
  params: [
    gainSpec("drive", "Drive", [0, 30, 8], { meaning: "drive.dB" }),
    percentSpec("bias", "Bias", [0, 100, 40]),
    OUTPUT,
    MIX,
  ],
  lead: "drive",
  oversamples: true,
  design: {
    shape({ drive, bias }) {
      const { before, after } = driveGains(drive);
      const offset = tubeOffset(bias);
      return (x) => after * tubeCurve(before * x, offset);
    },
  },
});

/** The working point moves up the curve, which bends one half of the wave before the other: even harmonics. */
export const tubeOffset = (bias: number): number => (bias / 100) * 0.8;

export const tubeCurve = (x: number, offset: number): number => softClip(x + offset) - softClip(offset);
