import { MIX, effect, frequencySpec, gainSpec } from "../specs";
import { hardClip } from "./shaper";
import { driveGains } from "./tape";

export const OVERDRIVE = effect("saturation", "overdrive", "Overdrive", {
  params: [
    gainSpec("drive", "Drive", [0, 48, 20], { meaning: "drive.dB" }),
    frequencySpec("tight", "Tighten below", [20, 800, 240]),
    frequencySpec("tone", "Tone", [800, 12_000, 3500]),
    gainSpec("output", "Level", [-24, 12, 0], { meaning: "output.dB" }),
    MIX,
  ],
  lead: "drive",
  oversamples: true,
  design: {
    shape({ drive }) {
      const { before, after } = driveGains(drive);
      return (x) => after * hardClip(before * x);
    },
  },
});
