import type { PARAMETRIC_EQ } from "./equaliser/parametric-eq/model";
import type { CONSOLE_EQ } from "./equaliser/console-eq";
import type { GRAPHIC_EQ } from "./equaliser/graphic-eq";
import type { TILT_EQ } from "./equaliser/tilt-eq";
import type { VCA_COMPRESSOR } from "./dynamics/vca-compressor";
import type { OPTO_COMPRESSOR } from "./dynamics/opto-compressor";
import type { FET_COMPRESSOR } from "./dynamics/fet-compressor";
import type { MULTIBAND } from "./dynamics/multiband";
import type { LIMITER } from "./dynamics/limiter";
import type { GATE, EXPANDER } from "./dynamics/gate";
import type { DE_ESSER } from "./dynamics/de-esser";
import type { TAPE } from "./saturation/tape";
import type { TUBE } from "./saturation/tube";
import type { OVERDRIVE } from "./saturation/overdrive";
import type { AMPLIFIER } from "./saturation/amplifier";
import type { CHORUS, FLANGER } from "./modulation/chorus";
import type { PHASER } from "./modulation/phaser";
import type { TREMOLO } from "./modulation/tremolo";
import type { MULTITAP_DELAY } from "./delay/multitap-delay/model";
import type { ECHO } from "./delay/echo";
import type { ROOM, PLATE, HALL } from "./reverb/reverb";
import type { GAIN, WIDTH, TUNER, METER } from "./utility/utility";
import type { Model, ValuesOf } from "./model";
import type { KernelFactory } from "./kernel";
import { createEcho } from "./delay/echo.kernel";
import { createMultitapDelay } from "./delay/multitap-delay/kernel";
import { createFetCompressor, createOptoCompressor, createVcaCompressor } from "./dynamics/compressor.kernel";
import { createDeEsser } from "./dynamics/de-esser.kernel";
import { createExpander, createGate } from "./dynamics/gate.kernel";
import { createLimiter } from "./dynamics/limiter.kernel";
import { createMultiband } from "./dynamics/multiband.kernel";
import { createParametricEq } from "./equaliser/parametric-eq/kernel";
import { createConsoleEq, createGraphicEq, createTiltEq } from "./equaliser/sections-eq.kernel";
import { createChorus, createFlanger, createPhaser, createTremolo } from "./modulation/modulation.kernel";
import { createHall, createPlate, createRoom } from "./reverb/reverb.kernel";
import { createAmplifier } from "./saturation/amplifier.kernel";
import { createOverdrive } from "./saturation/overdrive.kernel";
import { createTape } from "./saturation/tape.kernel";
import { createTube } from "./saturation/tube.kernel";
import { createGain, createMeter, createTuner, createWidth } from "./utility/utility.kernel";

/** The kernel of a model, whose values are those of that model: what comes in was completed by it. */
const kernelOf = <M extends Model>(create: KernelFactory<ValuesOf<M>>): KernelFactory => create;

const KERNELS: Readonly<Record<string, KernelFactory>> = {
  "parametric-eq": kernelOf<typeof PARAMETRIC_EQ>(createParametricEq),
  "console-eq": kernelOf<typeof CONSOLE_EQ>(createConsoleEq),
  "graphic-eq": kernelOf<typeof GRAPHIC_EQ>(createGraphicEq),
  "tilt-eq": kernelOf<typeof TILT_EQ>(createTiltEq),
  "vca-compressor": kernelOf<typeof VCA_COMPRESSOR>(createVcaCompressor),
  "opto-compressor": kernelOf<typeof OPTO_COMPRESSOR>(createOptoCompressor),
  "fet-compressor": kernelOf<typeof FET_COMPRESSOR>(createFetCompressor),
  "multiband-compressor": kernelOf<typeof MULTIBAND>(createMultiband),
  limiter: kernelOf<typeof LIMITER>(createLimiter),
  gate: kernelOf<typeof GATE>(createGate),
  expander: kernelOf<typeof EXPANDER>(createExpander),
  "de-esser": kernelOf<typeof DE_ESSER>(createDeEsser),
  tape: kernelOf<typeof TAPE>(createTape),
  tube: kernelOf<typeof TUBE>(createTube),
  overdrive: kernelOf<typeof OVERDRIVE>(createOverdrive),
  amplifier: kernelOf<typeof AMPLIFIER>(createAmplifier),
  chorus: kernelOf<typeof CHORUS>(createChorus),
  flanger: kernelOf<typeof FLANGER>(createFlanger),
  phaser: kernelOf<typeof PHASER>(createPhaser),
  tremolo: kernelOf<typeof TREMOLO>(createTremolo),
  "multitap-delay": kernelOf<typeof MULTITAP_DELAY>(createMultitapDelay),
  echo: kernelOf<typeof ECHO>(createEcho),
  room: kernelOf<typeof ROOM>(createRoom),
  plate: kernelOf<typeof PLATE>(createPlate),
  hall: kernelOf<typeof HALL>(createHall),
  gain: kernelOf<typeof GAIN>(createGain),
  "stereo-width": kernelOf<typeof WIDTH>(createWidth),
  tuner: kernelOf<typeof TUNER>(createTuner),
  meter: kernelOf<typeof METER>(createMeter),
};

/** null for a model that is known by description only. */
export const findKernel = (model: string): KernelFactory | null => KERNELS[model] ?? null;
