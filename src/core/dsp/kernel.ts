import type { HeardValues } from "../processors/model";

/**
 * A processor at work on one stereo pair. It owns its state, allocates nothing while it processes, and gives the same
 * samples whatever the size of the blocks.
 */
export interface Kernel {
  /** Takes new values; they glide unless `jump`, which is for a kernel that has not sounded yet. */
  set(values: HeardValues, jump: boolean): void;
  /** Processes samples `from` up to `to` of both channels in place. */
  process(left: Float32Array, right: Float32Array, from: number, to: number): void;
  /** Forgets all sound; the values stay. */
  reset(): void;
  /** Gain reduction now, in dB, 0 or below; 0 for what reduces nothing. */
  reduction(): number;
}

export type KernelFactory = (sampleRate: number) => Kernel;
