import type { ParamId } from "../../units/param-spec";
import {
  type Rest,
  choiceSpec,
  effect,
  frequencySpec,
  gainSpec,
  numbersSpec,
  percentSpec,
  secondsSpec,
  switchSpec,
  timeSpec,
} from "../specs";
import { BASS_DESIGN, DRUMS_DESIGN, MALLETS_DESIGN, PAD_DESIGN, PIANO_DESIGN, SAMPLER_DESIGN } from "./designs";

const LEVEL = gainSpec("level", "Level", [-48, 6, -6], { meaning: "output.dB" });

/** An instrument of our own: it plays notes and has no input. */
const instrument = <Id extends ParamId>(id: string, name: string, rest: Rest<"instrument", Id>) =>
  effect("instrument", id, name, rest);

const attack = (start: number, group = "Envelope") => timeSpec("attack", "Attack", [0.5, 5000, start], { group });
const decay = (start: number, group = "Envelope") => timeSpec("decay", "Decay", [5, 10_000, start], { group });
const sustain = (start: number, group = "Envelope") => percentSpec("sustain", "Sustain", [0, 100, start], { group });
const release = (start: number, group = "Envelope") => timeSpec("release", "Release", [5, 10_000, start], { group });

export const ELECTRIC_PIANO = instrument("electric-piano", "Electric piano", {
  params: [
    percentSpec("tone", "Tone", [0, 100, 45], { group: "Hammer" }),
    percentSpec("bell", "Bell", [0, 100, 30], { group: "Hammer" }),
    percentSpec("touch", "Touch", [0, 100, 60], { group: "Hammer" }),
    secondsSpec("ring", "Ring", [0.3, 12, 4], { group: "Damping" }),
    timeSpec("release", "Release", [10, 2000, 120], { group: "Damping" }),
    percentSpec("spread", "Spread", [0, 100, 40], { group: "Output" }),
    { ...LEVEL, group: "Output" },
  ],
  lead: "tone",
  design: PIANO_DESIGN,
});

export const BASS_WAVES = ["Saw", "Pulse"] as const;

export const BASS_SYNTH = instrument("bass-synth", "Bass synth", {
  params: [
    choiceSpec("wave", "Wave", BASS_WAVES, { group: "Oscillator" }),
    percentSpec("sub", "Sub octave", [0, 100, 40], { group: "Oscillator" }),
    frequencySpec("cutoff", "Cutoff", [40, 12_000, 420], { group: "Filter" }),
    percentSpec("resonance", "Resonance", [0, 95, 25], { group: "Filter" }),
    gainSpec("sweep", "Sweep", [0, 60, 24], { group: "Filter", step: 1 }),
    attack(4),
    decay(260),
    sustain(60),
    release(120),
    { ...LEVEL, group: "Envelope" },
  ],
  lead: "cutoff",
  design: BASS_DESIGN,
});

export const PAD_SYNTH = instrument("pad-synth", "Pad synth", {
  params: [
    percentSpec("detune", "Detune", [0, 100, 35], { group: "Oscillator" }),
    percentSpec("width", "Width", [0, 100, 70], { group: "Oscillator" }),
    frequencySpec("cutoff", "Cutoff", [80, 16_000, 1800], { group: "Filter" }),
    percentSpec("motion", "Motion", [0, 100, 30], { group: "Filter" }),
    attack(600),
    decay(1500),
    sustain(80),
    release(1200),
    { ...LEVEL, group: "Envelope" },
  ],
  lead: "cutoff",
  design: PAD_DESIGN,
});

export const BARS = ["Vibraphone", "Marimba", "Glass"] as const;

export const MALLETS = instrument("mallets", "Mallets", {
  params: [
    choiceSpec("bar", "Bar", BARS, { group: "Bar" }),
    percentSpec("hardness", "Hardness", [0, 100, 45], { group: "Bar" }),
    secondsSpec("ring", "Ring", [0.1, 12, 3], { group: "Damping" }),
    timeSpec("release", "Release", [10, 4000, 500], { group: "Damping" }),
    frequencySpec("motor", "Motor", [0.5, 10, 4.5], { group: "Motor", mayFollowTempo: true }),
    percentSpec("depth", "Motor depth", [0, 100, 0], { group: "Motor" }),
    { ...LEVEL, group: "Motor" },
  ],
  lead: "hardness",
  design: MALLETS_DESIGN,
});

export const DRUM_OUTPUTS = ["Kick", "Snare", "Hats", "Toms and cymbal"] as const;

export const DRUM_KIT = instrument("drum-kit", "Drum kit", {
  params: [
    frequencySpec("kickTune", "Kick tune", [30, 90, 52], { group: "Kick" }),
    timeSpec("kickDecay", "Kick decay", [60, 1200, 320], { group: "Kick" }),
    percentSpec("kickClick", "Kick click", [0, 100, 40], { group: "Kick" }),
    frequencySpec("snareTune", "Snare tune", [120, 320, 185], { group: "Snare" }),
    percentSpec("snareWires", "Snare wires", [0, 100, 60], { group: "Snare" }),
    timeSpec("snareDecay", "Snare decay", [60, 800, 190], { group: "Snare" }),
    timeSpec("hatDecay", "Hat decay", [15, 600, 60], { group: "Hats, toms" }),
    frequencySpec("tomTune", "Tom tune", [60, 200, 105], { group: "Hats, toms" }),
    { ...LEVEL, group: "Hats, toms" },
  ],
  lead: "kickTune",
  design: DRUMS_DESIGN,
  outputs: DRUM_OUTPUTS,
});

const NOTE_NAMES = ["C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B"] as const;
/** As MIDI numbers are spoken of: 60 is C4. */
export const noteName = (note: number): string => `${NOTE_NAMES[note % 12] ?? ""}${Math.floor(note / 12) - 1}`;

export const SAMPLER = instrument("sampler", "Sampler", {
  params: [
    numbersSpec(
      "root",
      "Root key",
      Array.from({ length: 85 }, (_, n) => ({ value: n + 24, label: noteName(n + 24) })),
      { start: 60, group: "Sample" },
    ),
    gainSpec("tune", "Tune", [-12, 12, 0], { step: 0.1, group: "Sample" }),
    percentSpec("begin", "Begins at", [0, 100, 0], { group: "Sample" }),
    switchSpec("loop", "Loop", 0, { group: "Sample" }),
    switchSpec("tracks", "Follows the keys", 1, { group: "Sample" }),
    attack(1),
    release(80),
    { ...LEVEL, group: "Envelope" },
  ],
  playsSample: true,
  lead: "level",
  design: SAMPLER_DESIGN,
});

export const INSTRUMENTS = [ELECTRIC_PIANO, BASS_SYNTH, PAD_SYNTH, MALLETS, DRUM_KIT, SAMPLER] as const;
