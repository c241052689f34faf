"use client";

import { create } from "zustand";
import { type SoundEngine, createSoundEngine } from "@/clients/sound-engine";
import { type Chain, hearChain } from "@/core/chains/chain";
import type { Meters, Voice } from "@/core/dsp/audition";
import { matchingGains } from "@/core/audition/match";
import type { Measurement } from "@/core/dsp/measure/measure";
import { beatsPerMinute } from "@/core/units/quantities";

/** What one side of the listening bar holds. */
export interface Sound {
  readonly name: string;
  readonly chain: Chain;
  readonly tempo: number;
}

export const MATERIAL_NAMES = [
  { id: "drum-with-cello", name: "Frame drum with cello" },
  { id: "narrator", name: "Narrator, dry booth" },
] as const;

const LOOP_SECONDS = 8;

interface Listening {
  readonly playing: boolean;
  readonly material: string;
  readonly seconds: number;
  readonly peaks: readonly number[];
  readonly processed: boolean;
  readonly side: "a" | "b";
  readonly match: boolean;
  readonly a: Sound | null;
  readonly b: Sound | null;
  readonly measured: Partial<Record<Voice, Measurement>>;
  /** Why there is no sound, in words. */
  readonly trouble: string | null;
}

export const useListening = create<Listening>(() => ({
  playing: false,
  material: MATERIAL_NAMES[0].id,
  seconds: LOOP_SECONDS,
  peaks: [],
  processed: true,
  side: "a",
  match: true,
  a: null,
  b: null,
  measured: {},
  trouble: null,
}));

const get = useListening.getState;
const set = useListening.setState;

let engine: SoundEngine | null = null;

/** Made on first use, in the browser only. */
function theEngine(): SoundEngine {
  if (!engine) {
    engine = createSoundEngine();
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

const voiceOf = ({ processed, side }: Pick<Listening, "processed" | "side">): Voice => (processed ? side : "dry");

const heard = (sound: Sound | null) => (sound ? hearChain(sound.chain, beatsPerMinute(sound.tempo)) : null);

/** Shows the loop's picture and gets the worker warm. */
export async function prepareListening(): Promise<void> {
  set({ peaks: await theEngine().setMaterial(get().material) });
  scheduleMeasuring();
}

export async function setPlaying(playing: boolean): Promise<void> {
  try {
    if (playing) await theEngine().start();
    theEngine().play(playing);
    set({ playing, trouble: null });
  } catch {
    set({ playing: false, trouble: "The browser gives no sound. Check its output device and press play again." });
  }
}

export async function setMaterial(material: string): Promise<void> {
  set({ material, measured: {} });
  set({ peaks: await theEngine().setMaterial(material) });
  scheduleMeasuring();
}

export function setProcessed(processed: boolean): void {
  set({ processed });
  theEngine().select(voiceOf(get()));
}

export function setSide(side: "a" | "b"): void {
  if (side === "b" && !get().b) return;
  set({ side, processed: true });
  theEngine().select(side);
}

export function setMatch(match: boolean): void {
  set({ match });
  sendGains();
}

/** Puts a sound on one side; `live` is for a value that is being dragged: it is heard, and measured when it rests. */
export function hear(side: "a" | "b", sound: Sound | null, live = false): void {
  set({ [side]: sound, ...(side === "b" && !sound && get().side === "b" ? { side: "a" } : {}) });
  theEngine().setChain(side, heard(sound));
  theEngine().select(voiceOf(get()));
  if (!live) scheduleMeasuring();
}

/** What is heard as A is kept as B, to be compared with what comes next. */
export const keepAsB = (): void => hear("b", get().a);

/** Long enough to let a quick walk through a list pass by. In milliseconds. */
const MEASURE_AFTER = 120;
let measuring: ReturnType<typeof setTimeout> | undefined;
let round = 0;

function scheduleMeasuring(): void {
  clearTimeout(measuring);
  measuring = setTimeout(() => void measureAll(), MEASURE_AFTER);
}

/** Loudness of each voice over the second pass of the loop; an older round never overwrites a newer one. */
async function measureAll(): Promise<void> {
  const mine = ++round;
  const { material, a, b } = get();
  const dry = await theEngine().measure(material, null);
  const withA = a ? await theEngine().measure(material, heard(a)) : dry;
  const withB = b ? await theEngine().measure(material, heard(b)) : null;
  if (mine !== round) return;
  set({ measured: { dry, a: withA, ...(withB ? { b: withB } : {}) } });
  sendGains();
}

function sendGains(): void {
  const { match, measured } = get();
  const even = { dry: 1, a: 1, b: 1 };
  const { dry, a, b } = measured;
  if (!match || !dry) return theEngine().setGains(even);
  const loudness = { dry: dry.integratedLufs, a: (a ?? dry).integratedLufs, b: (b ?? a ?? dry).integratedLufs };
  theEngine().setGains(matchingGains(loudness));
}

/** The measurement of what is heard now. */
export const measuredNow = (state: Listening): Measurement | null => state.measured[voiceOf(state)] ?? null;
