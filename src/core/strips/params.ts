import type { ParamSpec } from "../units/param-spec";

/** A strip's own values, described like those of a plugin. */
export const FADER: ParamSpec = {
  id: "fader",
  name: "Level",
  unit: "dB",
  min: -90,
  max: 12,
  default: 0,
  taper: "linear",
  step: 0.5,
  silentAtMin: true,
};
export const PAN: ParamSpec = {
  id: "pan",
  name: "Pan",
  unit: "pan",
  min: -100,
  max: 100,
  default: 0,
  taper: "linear",
  step: 1,
};
export const WIDTH: ParamSpec = {
  id: "width",
  name: "Width",
  unit: "%",
  min: 0,
  max: 200,
  default: 100,
  taper: "linear",
  step: 1,
};
/** Of an input, ahead of all else. */
export const INPUT_GAIN: ParamSpec = {
  id: "gain",
  name: "Input gain",
  unit: "dB",
  min: -60,
  max: 60,
  default: 0,
  taper: "linear",
  step: 0.5,
};
