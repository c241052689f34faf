import { choiceSpec, effect, frequencySpec, gainSpec, panSpec, percentSpec, switchSpec } from "../specs";

export const POLARITIES = ["As it is", "Left turned", "Right turned", "Both turned"] as const;

export const GAIN = effect("utility", "gain", "Gain and polarity", {
  params: [
    gainSpec("gain", "Gain", [-36, 36, 0], { meaning: "output.dB" }),
    choiceSpec("polarity", "Polarity", POLARITIES),
    switchSpec("swap", "Swap sides", 0),
  ],
  lead: "gain",
});

export const WIDTH = effect("utility", "stereo-width", "Stereo width", {
  params: [
    percentSpec("width", "Width", [0, 200, 100]),
    frequencySpec("monoBelow", "Mono below", [20, 500, 20]),
    panSpec("balance", "Balance", [-100, 100, 0]),
  ],
  lead: "width",
});

export const TUNER = effect("utility", "tuner", "Tuner", {
  params: [frequencySpec("reference", "A is", [415, 466, 440]), switchSpec("mute", "Mute", 0)],
  lead: "reference",
});

export const METER = effect("utility", "meter", "Meter", {
  params: [gainSpec("target", "Target", [-36, 0, -18])],
  lead: "target",
});
