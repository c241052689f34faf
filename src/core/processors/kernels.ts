import type { KernelFactory } from "../dsp/kernel";
import type { ParamId } from "./param-spec";
import { createMultitapDelay } from "./delay/multitap-delay/kernel";
import { createParametricEq } from "./equaliser/parametric-eq/kernel";
import { createVcaCompressor } from "./dynamics/vca-compressor/kernel";

export interface KernelEntry {
  readonly create: KernelFactory;
  /** Parameters that cannot glide: a change is a new kernel, cross-faded with the old. */
  readonly structural: readonly ParamId[];
}

const KERNELS: Readonly<Record<string, KernelEntry>> = {
  "parametric-eq": { create: createParametricEq, structural: ["channels"] },
  "vca-compressor": { create: createVcaCompressor, structural: [] },
  "multitap-delay": { create: createMultitapDelay, structural: [] },
};

/** null for a model that is known by description only. */
export const findKernel = (model: string): KernelEntry | null => KERNELS[model] ?? null;
