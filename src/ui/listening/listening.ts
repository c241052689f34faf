"use client";

import { create } from "zustand";
import {
  type HeardSound,
  type Measurement,
  type Meters,
  type SoundEngine,
  type Side,
  createSoundEngine,
} from "@/clients/sound-engine";
import type { Chain } from "@/core/chains/chain";
import { hearChain } from "@/core/chains/hear";
import type { HeardInstrument } from "@/core/chains/heard-instrument";
import { findNode } from "@/core/chains/tree";
import { matchingGains } from "@/core/audition/match";
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

/** What a material of one's own is called: the hash of its sound behind this. */
export const OWN_MATERIAL = "own:";

interface Listening {
  readonly playing: boolean;
  readonly material: string;
  /** How long the loop is; 0 until that is known. */
  readonly seconds: number;
  readonly peaks: readonly number[];
  readonly processed: boolean;
  readonly side: "a" | "b";
  readonly match: boolean;
  readonly a: Sound | null;
  readonly b: Sound | null;
  /** The lane of A that is heard alone. */
  readonly solo: string | null;
  /** The node of A of which only what it adds or takes away is heard. */
  readonly difference: string | null;
  readonly measured: Partial<Record<Side, Measurement>>;
  /** Why there is no sound, in words. */
  readonly trouble: string | null;
}

export const useListening = create<Listening>(() => ({
  playing: false,
  material: MATERIAL_NAMES[0].id,
  seconds: 0,
  peaks: [],
  processed: true,
  side: "a",
  match: true,
  a: null,
  b: null,
  solo: null,
  difference: null,
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

const sideNow = ({ processed, side }: Pick<Listening, "processed" | "side">): Side => (processed ? side : "dry");

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

const heardSide = (side: "a" | "b"): HeardSound | null => heard(get()[side], side === "a" ? get() : {});

/** Shows the loop's picture and gets the worker warm. */
export async function prepareListening(): Promise<void> {
  await showMaterial(get().material);
}

async function showMaterial(material: string): Promise<void> {
  try {
    const picture = await theEngine().setMaterial(material);
    // Another was chosen meanwhile.
    if (get().material !== material) return;
    set(picture);
    scheduleMeasuring();
  } catch {
    if (get().material !== material) return;
    set({ peaks: [], seconds: 0, trouble: "This material cannot be read any more. Choose another." });
  }
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
  set({ material, measured: {}, trouble: null });
  await showMaterial(material);
}

export function setProcessed(processed: boolean): void {
  set({ processed });
  theEngine().select(sideNow(get()));
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
  theEngine().setSound(side, heardSide(side));
  theEngine().select(sideNow(get()));
  if (!live) scheduleMeasuring();
}

/** Hears one lane of A alone; null lets all of them sound. */
export function setSolo(solo: string | null): void {
  set({ solo });
  theEngine().setSound("a", heardSide("a"));
  scheduleMeasuring();
}

/** Hears only what a node of A adds or takes away; null hears all of A. */
export function setDifference(difference: string | null): void {
  set({ difference, ...(difference === null ? {} : { processed: true, side: "a" }) });
  theEngine().setSound("a", heardSide("a"));
  theEngine().select(sideNow(get()));
  scheduleMeasuring();
}

export const noteOn = (note: number, velocity: number): void => {
  void theEngine()
    .noteOn(note, velocity)
    .catch(() => set({ trouble: "The browser gives no sound. Check its output device and press play again." }));
};
export const noteOff = (note: number): void => theEngine().noteOff(note);
export const allNotesOff = (): void => theEngine().allNotesOff();
export const readSpectrum = (): Float32Array | null => engine?.readSpectrum() ?? null;

/** Milliseconds for each second of sound, of each of some chains alone. */
export const costOf = (chains: readonly Chain[], tempo: number): Promise<readonly number[]> =>
  theEngine().costOf(
    get().material,
    chains.map((chain) => ({ chain: hearChain(chain, beatsPerMinute(tempo)) })),
  );

export const encodeSound = (sound: { left: Float32Array; right: Float32Array; sampleRate: number }) =>
  theEngine().encode(sound.left, sound.right, sound.sampleRate);

/** What is heard as A is kept as B, to be compared with what comes next. */
export const keepAsB = (): void => hear("b", get().a);

/** Long enough to let a quick walk through a list pass by. In milliseconds. */
const MEASURE_AFTER = 120;
let measuring: ReturnType<typeof setTimeout> | undefined;
let round = 0;

/** Before the first press the browser gives no sound: what goes through processors is measured from then on. */
function whenTouched(run: () => void): void {
  if (navigator.userActivation.hasBeenActive) return run();
  const once = { once: true, capture: true } as const;
  window.addEventListener("keydown", run, once);
  window.addEventListener("pointerdown", run, once);
}

let waitsForTouch = false;

function scheduleMeasuring(): void {
  if (waitsForTouch) return;
  waitsForTouch = true;
  whenTouched(() => {
    waitsForTouch = false;
    measureSoon();
  });
}

function measureSoon(): void {
  clearTimeout(measuring);
  measuring = setTimeout(() => void measureAll(), MEASURE_AFTER);
}

/** Loudness of each side over the second pass of the loop; an older round never overwrites a newer one. */
async function measureAll(): Promise<void> {
  const mine = ++round;
  const { material, a, b } = get();
  const of = (sound: HeardSound | null) => theEngine().measure(material, sound);
  const instrument = heardSide("a")?.instrument;
  const show = (measured: Listening["measured"]): boolean => {
    if (mine !== round) return false;
    set({ measured: { ...get().measured, ...measured } });
    sendGains();
    return true;
  };
  try {
    const dry = await of(instrument ? { chain: [], instrument } : null);
    if (!show({ dry })) return;
    if (!show({ a: a ? await of(heardSide("a")) : dry })) return;
    if (b) show({ b: await of(heardSide("b")) });
  } catch {
    // What cannot be measured, because its material is gone, is shown without figures.
  }
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
export const measuredNow = (state: Listening): Measurement | null => state.measured[sideNow(state)] ?? null;
