import type { Model } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import type { Box } from "./axes";
import { delayMarks } from "./delay";
import { dynamicsMarks } from "./dynamics";
import { eqMarks } from "./equaliser";
import { instrumentMarks } from "./instrument";
import type { Mark } from "./mark";
import { modulationMarks } from "./modulation";
import { reverbMarks } from "./reverb";
import { saturationMarks } from "./saturation";
import { utilityMarks } from "./utility";

type Drawing = (model: Model, values: HeardValues, box: Box) => readonly Mark[];

const DRAWINGS: Record<Model["family"], Drawing> = {
  equaliser: (model, values, box) => eqMarks(model, values, box),
  dynamics: dynamicsMarks,
  saturation: saturationMarks,
  modulation: modulationMarks,
  delay: delayMarks,
  reverb: reverbMarks,
  utility: utilityMarks,
  instrument: instrumentMarks,
};

/** A processor's own picture, from the same design functions that make its sound. */
export const drawShape: Drawing = (model, values, box) => DRAWINGS[model.family](model, values, box);
