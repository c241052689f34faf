import { ECHO } from "./delay/echo";
import { MULTITAP_DELAY } from "./delay/multitap-delay/model";
import { DE_ESSER } from "./dynamics/de-esser";
import { FET_COMPRESSOR } from "./dynamics/fet-compressor";
import { EXPANDER, GATE } from "./dynamics/gate";
import { LIMITER } from "./dynamics/limiter";
import { MULTIBAND } from "./dynamics/multiband";
import { OPTO_COMPRESSOR } from "./dynamics/opto-compressor";
import { VCA_COMPRESSOR } from "./dynamics/vca-compressor";
import { CONSOLE_EQ } from "./equaliser/console-eq";
import { GRAPHIC_EQ } from "./equaliser/graphic-eq";
import { PARAMETRIC_EQ } from "./equaliser/parametric-eq/model";
import { TILT_EQ } from "./equaliser/tilt-eq";
import { INSTRUMENTS } from "./instrument/models";
import type { Model } from "./model";
import { CHORUS, FLANGER } from "./modulation/chorus";
import { PHASER } from "./modulation/phaser";
import { TREMOLO } from "./modulation/tremolo";
import { HALL, PLATE, ROOM } from "./reverb/reverb";
import { AMPLIFIER } from "./saturation/amplifier";
import { OVERDRIVE } from "./saturation/overdrive";
import { TAPE } from "./saturation/tape";
import { TUBE } from "./saturation/tube";
import { GAIN, METER, TUNER, WIDTH } from "./utility/utility";

/** Every model that Diathesis knows, in the order in which lists show them. */
export const MODELS: readonly Model[] = [
  PARAMETRIC_EQ,
  CONSOLE_EQ,
  GRAPHIC_EQ,
  TILT_EQ,
  VCA_COMPRESSOR,
  OPTO_COMPRESSOR,
  FET_COMPRESSOR,
  MULTIBAND,
  LIMITER,
  GATE,
  EXPANDER,
  DE_ESSER,
  TAPE,
  TUBE,
  OVERDRIVE,
  AMPLIFIER,
  CHORUS,
  FLANGER,
  PHASER,
  TREMOLO,
  MULTITAP_DELAY,
  ECHO,
  ROOM,
  PLATE,
  HALL,
  GAIN,
  WIDTH,
  TUNER,
  METER,
  ...INSTRUMENTS,
];

/** Those that stand in a chain: everything but what plays. */
export const EFFECTS: readonly Model[] = MODELS.filter((model) => model.family !== "instrument");

const BY_ID = new Map(MODELS.map((model) => [model.id, model]));

export const findModel = (id: string): Model | null => BY_ID.get(id) ?? null;

export function getModel(id: string): Model {
  const model = findModel(id);
  if (!model) throw new Error(`No model is called ${id}`);
  return model;
}
