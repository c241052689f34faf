"use client";

import { useEffect, useRef, useState } from "react";
import { allNotesOff, noteOff, noteOn } from "../../listening/listening";

/** Two rows of a keyboard as the keys of a piano, from C on: by place, so that every layout plays alike. */
const ROWS: Readonly<Record<string, number>> = Object.fromEntries(
  [
    "KeyA",
    "KeyW",
    "KeyS",
    "KeyE",
    "KeyD",
    "KeyF",
    "KeyT",
    "KeyG",
    "KeyY",
    "KeyH",
    "KeyU",
    "KeyJ",
    "KeyK",
    "KeyO",
    "KeyL",
    "KeyP",
    "Semicolon",
  ].map((code, at) => [code, at]),
);

const LOWEST_C = 24;
const HIGHEST_C = 84;
const VELOCITY = 100;

export interface Keyboard {
  readonly playing: boolean;
  readonly setPlaying: (playing: boolean) => void;
  /** The key that A plays. */
  readonly from: number;
  /** Names of connected MIDI inputs; null where the browser has none or was not asked. */
  readonly midi: readonly string[] | null;
  readonly askMidi: () => void;
  readonly canMidi: boolean;
}

/** Plays by the computer's keys while it is switched on; Escape switches it off, and no note outlives the focus. */
export function useKeyboard(): Keyboard {
  const [playing, setPlaying] = useState(false);
  const [from, setFrom] = useState(60);
  useEffect(() => {
    if (!playing) return;
    const held = new Map<string, number>();
    const release = () => {
      held.clear();
      allNotesOff();
    };
    const onKeyDown = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.altKey || event.metaKey || isTyping(event)) return;
      if (event.key === "Escape") return setPlaying(false);
      const step = ROWS[event.code];
      if (event.code === "KeyZ" || event.code === "KeyX")
        setFrom((c) => Math.min(HIGHEST_C, Math.max(LOWEST_C, c + (event.code === "KeyX" ? 12 : -12))));
      else if (step === undefined) return;
      else if (!event.repeat && !held.has(event.code)) {
        held.set(event.code, from + step);
        noteOn(from + step, VELOCITY);
      }
      // Letters are notes now, not shortcuts.
      event.preventDefault();
      event.stopPropagation();
    };
    const onKeyUp = (event: KeyboardEvent) => {
      const note = held.get(event.code);
      if (note === undefined) return;
      held.delete(event.code);
      noteOff(note);
    };
    const onHidden = () => document.hidden && release();
    window.addEventListener("keydown", onKeyDown, true);
    window.addEventListener("keyup", onKeyUp, true);
    window.addEventListener("blur", release);
    document.addEventListener("visibilitychange", onHidden);
    return () => {
      window.removeEventListener("keydown", onKeyDown, true);
      window.removeEventListener("keyup", onKeyUp, true);
      window.removeEventListener("blur", release);
      document.removeEventListener("visibilitychange", onHidden);
      release();
    };
  }, [playing, from]);
  const { inputs, ask, can } = useMidi();
  return { playing, setPlaying, from, midi: inputs, askMidi: ask, canMidi: can };
}

const isTyping = ({ target }: KeyboardEvent): boolean =>
  target instanceof Element && target.closest("input, textarea, select, [contenteditable=true]") !== null;

/** Hears what is connected to an access; returns how to stop. A device that comes or goes is told by its name. */
function hearMidi(access: MIDIAccess, onInputs: (names: readonly string[]) => void): () => void {
  const hear = ({ data }: MIDIMessageEvent) => {
    const [status = 0, note = 0, velocity = 0] = data ?? [];
    const kind = status & 0xf0;
    if (kind === 0x90 && velocity > 0) noteOn(note, velocity);
    else if (kind === 0x80 || kind === 0x90) noteOff(note);
    else if (kind === 0xb0 && (note === 120 || note === 123)) allNotesOff();
  };
  const connect = () => {
    const inputs = [...access.inputs.values()];
    for (const input of inputs) input.onmidimessage = hear;
    onInputs(inputs.map((input) => input.name ?? "MIDI input"));
    // What was held on a device that went away would sound for ever.
    allNotesOff();
  };
  connect();
  access.onstatechange = connect;
  return () => {
    access.onstatechange = null;
    for (const input of access.inputs.values()) input.onmidimessage = null;
  };
}

/** MIDI where the browser has it: asked for by hand, since it wants the person's leave. */
function useMidi() {
  const [inputs, setInputs] = useState<readonly string[] | null>(null);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  const can = typeof navigator !== "undefined" && "requestMIDIAccess" in navigator;
  const ask = () => {
    if (!can) return;
    void navigator.requestMIDIAccess().then(
      (access) => {
        stop.current();
        stop.current = hearMidi(access, setInputs);
      },
      () => setInputs([]),
    );
  };
  return { inputs, ask, can };
}
