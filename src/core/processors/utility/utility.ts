import { choiceSpec, effect, frequencySpec, gainSpec, panSpec, percentSpec, switchSpec } from "../specs";

export const POLARITIES = ["As it is", "Left turned", "Right turned", "Both turned"] as const;

export const GAIN = effect("utility", "gain", "Gain and polarity", {
  params: [
    gainSpec("gain", "Gain", [-36, 36, 0], { meaning: "output.dB" }),
    choiceSpec("polarity", "Polarity", POLARITIES),
    switchSpec("swap", "Swap sides", 0),
  ],
  lead: "gain",
  design: {
    picture: ({ gain, polarity, swap }) => ({
      kind: "sides",
      gain,
      turned: [polarity === 1 || polarity === 3, polarity === 2 || polarity === 3],
      swapped: swap === 1,
    }),
  },
});

export const WIDTH = effect("utility", "stereo-width", "Stereo width", {
  params: [
    percentSpec("width", "Width", [0, 200, 100]),
    frequencySpec("monoBelow", "Mono below", [20, 500, 20]),
    panSpec("balance", "Balance", [-100, 100, 0]),
  ],
  needsTwoSides: true,
  lead: "width",
  design: { picture: ({ width, balance }) => ({ kind: "fan", width: width / 100, lean: balance / 100 }) },
});

export const TUNER = effect("utility", "tuner", "Tuner", {
  params: [frequencySpec("reference", "A is", [415, 466, 440]), switchSpec("mute", "Mute", 0)],
  reads: "pitch",
  lead: "reference",
  design: { picture: () => ({ kind: "scale", place: 0.5 }) },
});

export const METER = effect("utility", "meter", "Meter", {
  params: [gainSpec("target", "Target", [-36, 0, -18])],
  reads: "loudness",
  lead: "target",
  design: { picture: ({ target }) => ({ kind: "scale", place: 1 + target / 36 }) },
});
