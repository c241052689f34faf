import type { HeardChain } from "@/core/chains/heard-chain";
import type { Meters, Voice } from "@/core/dsp/audition";

/** What the interface tells the audio worklet. */
export type ToWorklet =
  | { readonly kind: "loop"; readonly left: Float32Array; readonly right: Float32Array }
  | { readonly kind: "chain"; readonly side: "a" | "b"; readonly chain: HeardChain | null }
  | { readonly kind: "select"; readonly voice: Voice }
  | { readonly kind: "play"; readonly playing: boolean }
  | { readonly kind: "gains"; readonly gains: Readonly<Record<Voice, number>> }
  | { readonly kind: "mark"; readonly id: number };

/** What it tells back: meters some thirty times a second, and when a marked message came into force. */
export type FromWorklet =
  | { readonly kind: "meters"; readonly meters: Meters }
  | { readonly kind: "marked"; readonly id: number };

/** For rendering offline: all that is needed stands in the options, since messages would race the rendering. */
export interface WorkletOptions {
  readonly loop?: { readonly left: Float32Array; readonly right: Float32Array };
  readonly chain?: HeardChain;
}

export const WORKLET_NAME = "diathesis-audition";
