import { MIX, effect, frequencySpec, gainSpec } from "../specs";
import { hardClip } from "./shaper";
import { SATURATION_MAKEUP, driveGains } from "./drive";

export const OVERDRIVE = effect("saturation", "overdrive", "Overdrive", {
  params: [
    gainSpec("drive", "Drive", [0, 48, 20], { meaning: "drive.dB" }),
    frequencySpec("tight", "Tighten below", [20, 800, 240]),
    frequencySpec("tone", "Tone", [800, 12_000, 3500]),
    SATURATION_MAKEUP,
    gainSpec("output", "Level", [-24, 12, 0], { meaning: "output.dB" }),
    MIX,
  ],
  lead: "drive",
  oversamples: true,
  design: {
    shape(values) {
      const { before, after } = driveGains(values.drive, values.makeupMode, hardClip);
      return (x) => after * hardClip(before * x);
    },
  },
});
