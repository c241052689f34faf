import type { HeardValues } from "../units/param-spec";

/** A sound that keys a processor, on the channels that the processor's own sound stands on. */
export interface KeySignal {
  readonly left: Float32Array;
  readonly right: Float32Array;
}

/**
 * A processor at work on one stereo pair. It owns its state, allocates nothing while it processes, and gives the same
 * samples whatever the size of the blocks.
 */
export interface Kernel<Values extends HeardValues = HeardValues> {
  /**
   * Takes new values; they glide unless `jump`, which is for a kernel that has not sounded yet: the first values jump,
   * before the first sample.
   */
  set(values: Values, jump: boolean): void;
  /** Whether it can glide to such values; it can, where it does not say. Else a kernel of its own takes its place. */
  fits?(values: Values): boolean;
  /** Processes samples `from` up to `to` of both channels in place. */
  process(left: Float32Array, right: Float32Array, from: number, to: number): void;
  /**
   * What a detector hears in place of the sound itself, for the `process` that follows: sample i of the sound stands
   * beside sample i + `shift` of this. null for the sound itself. Only kernels that have a detector know it.
   */
  listen?(key: KeySignal | null, shift: number): void;
  /**
   * In seconds, as it is set: how long it runs until it sounds as though it had always run, what it looks ahead apart. A
   * fifth of a second where it does not say.
   */
  settling?(): number;
  /**
   * Whether nothing of a sound is left in it, so that silence would leave it as it is, time apart. `silence`: for how many
   * seconds nothing has gone in. Only kernels whose work is worth being spared know it.
   */
  isAtRest?(silence: number): boolean;
  /** At rest: time passes by so many samples, as though silence had been processed. */
  idle?(count: number): void;
  /** Forgets all sound; the values stay. */
  reset(): void;
  /** What it shows now: gain reduction in dB, 0 or below; a tuner's pitch in Hz; a meter's loudness in LUFS; else 0. */
  reading(): number;
}

export type KernelFactory<Values extends HeardValues = HeardValues> = (sampleRate: number) => Kernel<Values>;
