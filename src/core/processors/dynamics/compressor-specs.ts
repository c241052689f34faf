import { choiceSpec, gainSpec } from "../specs";

/** What gives back the level that a compressor takes. */
export const MAKEUP = [
  choiceSpec("makeupMode", "Make-up", ["By hand", "Half", "Automatic"]),
  gainSpec("makeup", "Make-up gain", [0, 24, 0], { meaning: "makeup.dB" }),
] as const;
