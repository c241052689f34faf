"use client";

import { noteName } from "@/core/processors/instrument/models";
import { useActions } from "../../actions/actions";
import { Button } from "../../kit/button";
import { Toggle } from "../../kit/toggle";
import { useKeyboard } from "./use-keyboard";

/** How the instrument is played beside its phrase: by the computer's keys, or by MIDI. */
export function KeyboardLine() {
  const { playing, setPlaying, from, midi, askMidi, canMidi } = useKeyboard();
  useActions([
    {
      id: "play-keys",
      title: playing ? "Stop playing by the computer’s keys" : "Play by the computer’s keys",
      group: "Bench",
      keys: ["Q"],
      run: () => setPlaying(!playing),
    },
  ]);
  return (
    <div className="flex flex-none flex-wrap items-center gap-x-4 gap-y-1 text-small">
      <Toggle label="Play by the computer’s keys" on={playing} onChange={setPlaying} />
      <span className="text-soft">
        {playing
          ? `A is ${noteName(from)}; Z and X go an octave down and up, Escape ends`
          : "Space plays its phrase; Q turns the letters into keys"}
      </span>
      {canMidi && midi === null && (
        <Button small plain onClick={askMidi}>
          Use a MIDI keyboard
        </Button>
      )}
      {midi !== null && (
        <span className="text-soft">
          {midi.length === 0 ? "No MIDI keyboard is there." : `MIDI: ${midi.join(", ")}`}
        </span>
      )}
    </div>
  );
}
