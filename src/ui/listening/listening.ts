"use client";

import type { Peaks, Stretch } from "@/clients/sound-engine";
import type { Chain } from "@/core/chains/chain";
import { hearChain } from "@/core/chains/hear";
import { findLane, findNode } from "@/core/chains/tree";
import { beatsPerMinute } from "@/core/units/quantities";
import { GONE, scheduleMeasuring, sendGains, showPicture } from "./measuring";
import { type Listening, NO_OUTLINE, type Sound, get, heardSide, phraseOf, set, sideNow, theEngine } from "./state";

/** Shows the loop's picture. */
export async function prepareListening(): Promise<void> {
  await setMaterial(get().material);
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
  set({ material, measured: {}, stretch: null, trouble: null });
  theEngine()
    .setMaterial(material)
    .catch(() => get().material === material && set({ trouble: GONE }));
  scheduleMeasuring();
  if (!phraseOf(get())) await showPicture();
}

/** Goes on at a place of what is played, 0 to 1. */
export const seek = (to: number): void => theEngine().seek(to);

/** Lets a stretch of the loop go round; null for all of it. */
export function setStretch(stretch: Stretch | null): void {
  set({ stretch, stale: true });
  theEngine().setStretch(stretch);
  scheduleMeasuring();
}

export function setProcessed(processed: boolean): void {
  set({ processed });
  theEngine().select(sideNow(get()));
}

export function setSide(side: "a" | "b"): void {
  if (side === "b" && !get().b) return;
  set({ side, processed: true, ...(side === "b" ? { heardB: true } : {}) });
  theEngine().select(side);
  sendGains();
}

function put(side: "a" | "b", sound: Sound | null, live = false): void {
  const before = phraseOf(get());
  const { [side]: _, ...measured } = get().measured;
  set({ [side]: sound, stale: true, ...(sound ? {} : { measured }) });
  if (get().side === "b" && !get().b) set({ side: "a" });
  theEngine().setSound(side, heardSide(side));
  theEngine().select(sideNow(get()));
  if (!live) scheduleMeasuring();
  // What was played before is no picture of a phrase: that comes when it has been measured.
  if (!before && phraseOf(get())) set({ outline: NO_OUTLINE, seconds: 0 });
  if (before && !phraseOf(get())) void showPicture();
}

/** Puts a sound on A; `live` is for a value that is being dragged: it is heard, and measured when it rests. */
export function hear(sound: Sound | null, live = false): void {
  const { solo, difference } = get();
  // What is not in this sound can be neither soloed nor left out.
  if (solo !== null && !(sound && findLane(sound.chain, solo))) set({ solo: null });
  if (difference !== null && !(sound && findNode(sound.chain, difference))) set({ difference: null });
  put("a", sound, live);
}

function setB(change: Partial<Pick<Listening, "beside" | "kept" | "offered">>): void {
  set(change);
  const { beside, kept, offered, b } = get();
  const next = beside ?? kept ?? offered;
  if (next === b) return;
  set({ heardB: get().side === "b" && next !== null });
  put("b", next);
}

/** What the screen compares with: it is B where nothing else is. null when the screen is left. */
export const offerB = (offered: Sound | null): void => setB({ offered });

/** Puts a sound on B for as long as a sheet is open that is there to compare it, also where another was kept; null ends that. */
export const hearBeside = (beside: Sound | null): void => setB({ beside });

/** What is heard as A is kept as B, to be compared with what comes next, until it is let go. */
export const keepAsB = (): void => setB({ kept: get().a });
export const letGoOfB = (): void => setB({ kept: null });

/** Hears one lane of A alone; null lets all of them sound. */
export function setSolo(solo: string | null): void {
  set({ solo, stale: true });
  theEngine().setSound("a", heardSide("a"));
  scheduleMeasuring();
}

/** Hears only what a node of A adds or takes away; null hears all of A. */
export function setDifference(difference: string | null): void {
  set({ difference, stale: true, ...(difference === null ? {} : { processed: true, side: "a" }) });
  theEngine().setSound("a", heardSide("a"));
  theEngine().select(sideNow(get()));
  scheduleMeasuring();
}

/** All of A again. */
export function hearAll(): void {
  setSolo(null);
  setDifference(null);
}

export const noteOn = (note: number, velocity: number): void => {
  void theEngine()
    .noteOn(note, velocity)
    .catch(() => set({ trouble: "The browser gives no sound. Check its output device and press play again." }));
};
export const noteOff = (note: number): void => theEngine().noteOff(note);
export const allNotesOff = (): void => theEngine().allNotesOff();
/** What reaches each plugin of A and what leaves it, of the material as it goes round; null where there is no sound to measure. */
export async function peaksOfA(): Promise<Peaks | null> {
  const { material, stretch } = get();
  const sound = heardSide("a");
  return sound && theEngine().peaksOf(material, stretch, { ...sound, minus: null });
}

/** Milliseconds for each second of sound, of each of some chains alone. */
export const costOf = (chains: readonly Chain[], tempo: number): Promise<readonly number[]> =>
  theEngine().costOf(
    get().material,
    chains.map((chain) => ({ chain: hearChain(chain, beatsPerMinute(tempo)) })),
  );

export const encodeSound = (sound: { left: Float32Array; right: Float32Array; sampleRate: number }) =>
  theEngine().encode(sound.left, sound.right, sound.sampleRate);
