"use client";

import { create } from "zustand";
import {
  type HeardSound,
  type Measurement,
  type Meters,
  type SoundEngine,
  type Side,
  type Stretch,
  createSoundEngine,
} from "@/clients/sound-engine";
import { type Chain, processorName } from "@/core/chains/chain";
import { hearChain } from "@/core/chains/hear";
import type { HeardInstrument } from "@/core/chains/heard-instrument";
import { findLane, findNode, findProcessor } from "@/core/chains/tree";
import type { Outline } from "@/core/materials/outline";
import { beatsPerMinute } from "@/core/units/quantities";

/** What one side of the listening bar holds. */
export interface Sound {
  readonly name: string;
  readonly chain: Chain;
  readonly tempo: number;
  /** It plays its phrase in place of the material. */
  readonly instrument?: HeardInstrument | null;
}

export const MATERIAL_NAMES = [
  { id: "drum-with-cello", name: "Frame drum with cello" },
  { id: "narrator", name: "Narrator, dry booth" },
  { id: "vibraphone", name: "Vibraphone, motor on" },
  { id: "modular-bass", name: "Modular bass line" },
  { id: "choir", name: "Choir in the nave" },
  { id: "harmonium", name: "Harmonium, close" },
] as const;

export interface Listening {
  readonly playing: boolean;
  readonly material: string;
  /** How long the loop or the phrase is; 0 until that is known. */
  readonly seconds: number;
  readonly outline: Outline;
  /** What of the loop goes round; null for all of it. */
  readonly stretch: Stretch | null;
  readonly processed: boolean;
  readonly side: "a" | "b";
  readonly match: boolean;
  readonly a: Sound | null;
  /** What is put beside A for as long as a sheet is open, else what was kept, else what the screen compares with. */
  readonly b: Sound | null;
  readonly beside: Sound | null;
  readonly kept: Sound | null;
  readonly offered: Sound | null;
  /** Whether B has been listened to: what nobody hears has no say in how loud the others are. */
  readonly heardB: boolean;
  /** The lane of A that is heard alone. */
  readonly solo: string | null;
  /** The node of A of which only what it adds or takes away is heard. */
  readonly difference: string | null;
  readonly measured: Partial<Record<Side, Measurement>>;
  /** What is measured is of a sound that has changed since. */
  readonly stale: boolean;
  /** Why there is no sound, in words. */
  readonly trouble: string | null;
}

export const NO_OUTLINE: Outline = { high: [], low: [] };

export const useListening = create<Listening>(() => ({
  playing: false,
  material: MATERIAL_NAMES[0].id,
  seconds: 0,
  outline: NO_OUTLINE,
  stretch: null,
  processed: true,
  side: "a",
  match: true,
  a: null,
  b: null,
  beside: null,
  kept: null,
  offered: null,
  heardB: false,
  solo: null,
  difference: null,
  measured: {},
  stale: false,
  trouble: null,
}));

/** For what stands behind the listening bar: the rest of the interface reads by the hook and changes by what listening.ts offers. */
export const get = useListening.getState;
export const set = useListening.setState;

let engine: SoundEngine | null = null;

/** Made on first use, in the browser only. */
export function theEngine(): SoundEngine {
  if (!engine) {
    engine = createSoundEngine();
    engine.onLost(() => set({ playing: false, trouble: "The output device went away. Press play to go on." }));
    engine.onMeters((meters) => {
      for (const hear of meterListeners) hear(meters);
    });
  }
  return engine;
}

const meterListeners = new Set<(meters: Meters) => void>();

/** Meters come thirty times a second: they are drawn, not kept as state. */
export function onMeters(hear: (meters: Meters) => void): () => void {
  meterListeners.add(hear);
  return () => meterListeners.delete(hear);
}

export const sideNow = ({ processed, side }: Pick<Listening, "processed" | "side">): Side => (processed ? side : "dry");

/** A sound as the audio thread takes it. Solo and difference are for A, which is what the hand is on. */
function heard(sound: Sound | null, { solo, difference }: Partial<Listening> = {}): HeardSound | null {
  if (!sound) return null;
  const tempo = beatsPerMinute(sound.tempo);
  const alone = solo ?? null;
  const without =
    difference !== null && difference !== undefined && findNode(sound.chain, difference) ? difference : null;
  return {
    chain: hearChain(sound.chain, tempo, { solo: alone }),
    minus: without === null ? null : hearChain(sound.chain, tempo, { solo: alone, without: [without] }),
    instrument: sound.instrument ?? null,
  };
}

export const heardSide = (side: "a" | "b"): HeardSound | null => heard(get()[side], side === "a" ? get() : {});

/** The sound that plays its own phrase in place of the material, where the side that is heard has an instrument. */
export const phraseOf = ({ side, a, b }: Pick<Listening, "side" | "a" | "b">): Sound | null => {
  const sound = side === "b" ? b : a;
  return sound?.instrument ? sound : null;
};

/** Why less than all of A is heard: "Only what “Catch” changes", "Only the lane “Low”"; null where all of it is. */
export function heardPart({ a, solo, difference }: Pick<Listening, "a" | "solo" | "difference">): string | null {
  if (!a) return null;
  const plugin = difference === null ? null : findProcessor(a.chain, difference);
  if (plugin) return `Only what “${processorName(plugin)}” changes`;
  if (difference !== null) return "Only what is chosen changes";
  const lane = solo === null ? null : findLane(a.chain, solo);
  return lane ? `Only the lane “${lane.name}”` : null;
}

export const readSpectrum = (): Float32Array | null => engine?.readSpectrum() ?? null;

/** The measurement of what is heard now. */
export const measuredNow = (state: Listening): Measurement | null => state.measured[sideNow(state)] ?? null;
