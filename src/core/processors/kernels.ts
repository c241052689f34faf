import type { KernelFactory } from "./kernel";
import { createEcho } from "./delay/echo.kernel";
import { createMultitapDelay } from "./delay/multitap-delay/kernel";
import { createFetCompressor, createOptoCompressor } from "./dynamics/compressor.kernel";
import { createDeEsser } from "./dynamics/de-esser.kernel";
import { createExpander, createGate } from "./dynamics/gate.kernel";
import { createLimiter } from "./dynamics/limiter.kernel";
import { createMultiband } from "./dynamics/multiband.kernel";
import { createVcaCompressor } from "./dynamics/vca-compressor/kernel";
import { createParametricEq } from "./equaliser/parametric-eq/kernel";
import { createConsoleEq, createGraphicEq, createTiltEq } from "./equaliser/sections-eq.kernel";
import { createChorus, createFlanger, createPhaser, createTremolo } from "./modulation/modulation.kernel";
import { createHall, createPlate, createRoom } from "./reverb/reverb.kernel";
import { createAmplifier, createOverdrive, createTape, createTube } from "./saturation/saturation.kernel";
import { createGain, createMeter, createTuner, createWidth } from "./utility/utility.kernel";

const KERNELS: Readonly<Record<string, KernelFactory>> = {
  "parametric-eq": createParametricEq,
  "console-eq": createConsoleEq,
  "graphic-eq": createGraphicEq,
  "tilt-eq": createTiltEq,
  "vca-compressor": createVcaCompressor,
  "opto-compressor": createOptoCompressor,
  "fet-compressor": createFetCompressor,
  "multiband-compressor": createMultiband,
  limiter: createLimiter,
  gate: createGate,
  expander: createExpander,
  "de-esser": createDeEsser,
  tape: createTape,
  tube: createTube,
  overdrive: createOverdrive,
  amplifier: createAmplifier,
  chorus: createChorus,
  flanger: createFlanger,
  phaser: createPhaser,
  tremolo: createTremolo,
  "multitap-delay": createMultitapDelay,
  echo: createEcho,
  room: createRoom,
  plate: createPlate,
  hall: createHall,
  gain: createGain,
  "stereo-width": createWidth,
  tuner: createTuner,
  meter: createMeter,
};

/** null for a model that is known by description only. */
export const findKernel = (model: string): KernelFactory | null => KERNELS[model] ?? null;
