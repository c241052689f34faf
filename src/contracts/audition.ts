import type { HeardChain } from "@/core/chains/heard-chain";
import type { Stretch } from "@/core/materials/stretch";
import type { Meters, Side } from "@/core/sound/audition/audition";
import type { HeardSound } from "@/core/sound/heard-sound";

/** What the interface tells the audio worklet. */
export type ToWorklet =
  | { readonly kind: "loop"; readonly left: Float32Array; readonly right: Float32Array }
  | { readonly kind: "seek"; readonly to: number }
  | { readonly kind: "stretch"; readonly stretch: Stretch | null }
  | { readonly kind: "key"; readonly material: string; readonly left: Float32Array; readonly right: Float32Array }
  | {
      readonly kind: "sample";
      readonly hash: string;
      readonly left: Float32Array;
      readonly right: Float32Array;
      readonly sampleRate: number;
    }
  | { readonly kind: "sound"; readonly side: "a" | "b"; readonly sound: HeardSound | null }
  | { readonly kind: "noteOn"; readonly note: number; readonly velocity: number }
  | { readonly kind: "noteOff"; readonly note: number }
  | { readonly kind: "allNotesOff" }
  | { readonly kind: "select"; readonly side: Side }
  | { readonly kind: "play"; readonly playing: boolean }
  | { readonly kind: "gains"; readonly gains: Readonly<Record<Side, number>> }
  | { readonly kind: "mark"; readonly id: number };

/** What it tells back: meters some thirty times a second, and when a marked message came into force. */
export type FromWorklet =
  | { readonly kind: "meters"; readonly meters: Meters }
  | { readonly kind: "marked"; readonly id: number };

/** For rendering offline: all that is needed stands in the options, since messages would race the rendering. */
export interface WorkletOptions {
  readonly loop?: { readonly left: Float32Array; readonly right: Float32Array };
  readonly chain?: HeardChain;
  readonly sound?: HeardSound;
}

export const WORKLET_NAME = "diathesis-audition";
