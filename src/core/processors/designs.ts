import { DE_ESSER_DESIGN } from "./dynamics/de-esser";
import type { DynamicsDesign } from "./dynamics/dynamics-design";
import { FET_COMPRESSOR_DESIGN } from "./dynamics/fet-compressor";
import { EXPANDER_DESIGN, GATE_DESIGN } from "./dynamics/gate";
import { LIMITER_DESIGN } from "./dynamics/limiter";
import { MULTIBAND_DESIGN } from "./dynamics/multiband";
import { OPTO_COMPRESSOR_DESIGN, compressorDesign } from "./dynamics/opto-compressor";
import { staticCurve } from "./dynamics/vca-compressor/design";
import { CONSOLE_EQ_DESIGN } from "./equaliser/console-eq";
import type { EqDesign } from "./equaliser/eq-design";
import { GRAPHIC_EQ_DESIGN } from "./equaliser/graphic-eq";
import { PARAMETRIC_EQ_DESIGN } from "./equaliser/parametric-eq/design";
import { TILT_EQ_DESIGN } from "./equaliser/tilt-eq";
import { INSTRUMENT_DESIGNS } from "./instrument/designs";
import type { InstrumentDesign } from "./instrument/instrument-design";
import { type ModulationDesign, sineDesign } from "./modulation/modulation-design";
import { TREMOLO_DESIGN } from "./modulation/tremolo";
import { AMPLIFIER_DESIGN } from "./saturation/amplifier";
import { OVERDRIVE_DESIGN } from "./saturation/overdrive";
import type { ShaperDesign } from "./saturation/shaper";
import { TAPE_DESIGN } from "./saturation/tape";
import { TUBE_DESIGN } from "./saturation/tube";

/*
 * What the models of a family have in common with each other: the functions by which they are drawn, fitted and told,
 * and which their kernels use for the sound.
 */

const named =
  <D>(family: string, designs: Readonly<Record<string, D>>) =>
  (model: string): D => {
    const design = designs[model];
    if (!design) throw new Error(`No design of the family ${family} for ${model}`);
    return design;
  };

export const eqDesignOf = named<EqDesign>("equaliser", {
  "parametric-eq": PARAMETRIC_EQ_DESIGN,
  "console-eq": CONSOLE_EQ_DESIGN,
  "graphic-eq": GRAPHIC_EQ_DESIGN,
  "tilt-eq": TILT_EQ_DESIGN,
});

export const dynamicsDesignOf = named<DynamicsDesign>("dynamics", {
  "vca-compressor": compressorDesign(staticCurve),
  "opto-compressor": OPTO_COMPRESSOR_DESIGN,
  "fet-compressor": FET_COMPRESSOR_DESIGN,
  "multiband-compressor": MULTIBAND_DESIGN,
  limiter: LIMITER_DESIGN,
  gate: GATE_DESIGN,
  expander: EXPANDER_DESIGN,
  "de-esser": DE_ESSER_DESIGN,
});

export const shaperDesignOf = named<ShaperDesign>("saturation", {
  tape: TAPE_DESIGN,
  tube: TUBE_DESIGN,
  overdrive: OVERDRIVE_DESIGN,
  amplifier: AMPLIFIER_DESIGN,
});

export const instrumentDesignOf = named<InstrumentDesign>("instrument", INSTRUMENT_DESIGNS);

export const modulationDesignOf = named<ModulationDesign>("modulation", {
  chorus: sineDesign,
  flanger: sineDesign,
  phaser: sineDesign,
  tremolo: TREMOLO_DESIGN,
});
