import type { KernelFactory } from "./kernel";
import { OVERSAMPLING_LATENCY } from "../dsp/oversampling";
import { createEcho } from "./delay/echo.kernel";
import { createMultitapDelay } from "./delay/multitap-delay/kernel";
import { createFetCompressor, createOptoCompressor } from "./dynamics/compressor.kernel";
import { createDeEsser } from "./dynamics/de-esser.kernel";
import { createExpander, createGate } from "./dynamics/gate.kernel";
import { LOOK_AHEAD } from "./dynamics/limiter";
import { createLimiter } from "./dynamics/limiter.kernel";
import { createMultiband } from "./dynamics/multiband.kernel";
import { createVcaCompressor } from "./dynamics/vca-compressor/kernel";
import { createParametricEq } from "./equaliser/parametric-eq/kernel";
import { createConsoleEq, createGraphicEq, createTiltEq } from "./equaliser/sections-eq.kernel";
import { createChorus, createFlanger, createPhaser, createTremolo } from "./modulation/modulation.kernel";
import type { ParamId } from "../units/param-spec";
import { createHall, createPlate, createRoom } from "./reverb/reverb.kernel";
import { createAmplifier, createOverdrive, createTape, createTube } from "./saturation/saturation.kernel";
import { createGain, createMeter, createTuner, createWidth } from "./utility/utility.kernel";

export interface KernelEntry {
  readonly create: KernelFactory;
  /** Parameters that cannot glide: a change is a new kernel, cross-faded with the old. */
  readonly structural: readonly ParamId[];
  /** In samples; as the model says. */
  readonly latency: number;
}

const gliding = (create: KernelFactory, latency = 0): KernelEntry => ({ create, structural: [], latency });
const building = (create: KernelFactory, ...structural: readonly ParamId[]): KernelEntry => ({
  create,
  structural,
  latency: 0,
});

const KERNELS: Readonly<Record<string, KernelEntry>> = {
  "parametric-eq": building(createParametricEq, "channels"),
  "console-eq": gliding(createConsoleEq),
  "graphic-eq": gliding(createGraphicEq),
  "tilt-eq": gliding(createTiltEq),
  "vca-compressor": gliding(createVcaCompressor),
  "opto-compressor": gliding(createOptoCompressor),
  "fet-compressor": gliding(createFetCompressor),
  "multiband-compressor": gliding(createMultiband),
  limiter: gliding(createLimiter, LOOK_AHEAD),
  gate: gliding(createGate),
  expander: gliding(createExpander),
  "de-esser": gliding(createDeEsser),
  tape: gliding(createTape, OVERSAMPLING_LATENCY),
  tube: gliding(createTube, OVERSAMPLING_LATENCY),
  overdrive: gliding(createOverdrive, OVERSAMPLING_LATENCY),
  amplifier: gliding(createAmplifier, OVERSAMPLING_LATENCY),
  chorus: gliding(createChorus),
  flanger: gliding(createFlanger),
  phaser: building(createPhaser, "stages"),
  tremolo: building(createTremolo, "wave"),
  "multitap-delay": gliding(createMultitapDelay),
  echo: gliding(createEcho),
  room: building(createRoom, "size"),
  plate: building(createPlate, "size"),
  hall: building(createHall, "size"),
  gain: gliding(createGain),
  "stereo-width": gliding(createWidth),
  tuner: gliding(createTuner),
  meter: gliding(createMeter),
};

/** null for a model that is known by description only. */
export const findKernel = (model: string): KernelEntry | null => KERNELS[model] ?? null;
