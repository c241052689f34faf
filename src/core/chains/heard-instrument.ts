import type { HeardValues } from "../units/param-spec";
import type { HeardChain } from "./heard-chain";

/** One layer of an instrument, as the audio thread takes it. Keys and velocities as in MIDI, 0 to 127. */
export interface HeardLayer {
  readonly key: string;
  readonly model: string;
  readonly enabled: boolean;
  readonly values: HeardValues;
  /** SHA-256 of what a sampler plays; null where nothing is loaded. */
  readonly sample: string | null;
  readonly keys: { readonly low: number; readonly high: number };
  readonly velocities: { readonly low: number; readonly high: number };
  readonly effects: HeardChain;
}

export interface HeardInstrument {
  readonly layers: readonly HeardLayer[];
  /** One output of instruments that have several, counted from 1; null for all of them together. */
  readonly output: number | null;
  /** In seconds from its beginning; it is played over and over. */
  readonly phrase: Phrase;
}

export interface PhraseNote {
  readonly at: number;
  readonly seconds: number;
  readonly note: number;
  readonly velocity: number;
}

export interface Phrase {
  readonly seconds: number;
  readonly notes: readonly PhraseNote[];
}
