import type { Processor } from "../chains/chain";
import { type Content, emptyCard } from "../presets/preset";
import { CONTENT_SCHEMA } from "../presets/version";
import { getModel } from "../processors/models";
import type { Values } from "../units/param-spec";
import { createStrip } from "../strips/strip";
import type { StripKind } from "../documents/strip-kinds";
import type { Pack, PackPreset } from "./pack";
import { called, chain, comp, delay, eq, note, off, set } from "./writing";

/*
 * The pack that comes with Diathesis: a place to begin for every model, and chains and strips that are of use on any
 * material. Levels follow material at about −18 dBFS; makers' values stand where none is written.
 */

type Row = readonly [model: string, name: string, purpose: string, tags: string, notes: string, values: Values];

/** One for each model: moderate, level about the same as without, ready to be turned either way. */
const STARTS: readonly Row[] = [
  [
    "console-eq",
    "Console EQ, rumble cut",
    "Any strip",
    "clean",
    "Cuts what no strip needs below 45 Hz; bands at useful places, at 0 dB.",
    { lowCut: 45, "low.freq": 110, "lowMid.freq": 320, "highMid.freq": 3200, "high.freq": 10_000 },
  ],
  [
    "graphic-eq",
    "Graphic EQ, soft smile",
    "Bus",
    "open",
    "A little more at both ends, and as much less by the output.",
    { gain63: 1.5, gain125: 1, gain8000: 1, gain16000: 1.5, output: -0.5 },
  ],
  [
    "tilt-eq",
    "Tilt, a shade darker",
    "Bus",
    "dark",
    "The first thing to try where a mix is tiring.",
    { tilt: -1.5, pivot: 800, lowCut: 25 },
  ],
  [
    "vca-compressor",
    "VCA, two to one",
    "Any strip",
    "gentle",
    "Two or three decibels on the loud notes of material at −18 dBFS.",
    { threshold: -14, ratio: 2, attack: 25, release: 140, knee: 8 },
  ],
  [
    "opto-compressor",
    "Opto, slow hand",
    "Voice",
    "gentle smooth",
    "Follows phrases, not syllables.",
    { threshold: -16, ratio: 3, release: 900 },
  ],
  [
    "fet-compressor",
    "FET, quick and held back",
    "Voice",
    "forward",
    "Fast peaks only; mixed so that the body stays its own.",
    { threshold: -14, attack: 0.4, release: 120, colour: 20, mix: 70 },
  ],
  [
    "multiband-compressor",
    "Multiband, bus hold",
    "Bus",
    "gentle",
    "One decibel in each band where all three are busy.",
    {
      "low.threshold": -14,
      "mid.threshold": -16,
      "high.threshold": -22,
      "low.ratio": 1.6,
      "mid.ratio": 1.5,
      "high.ratio": 1.6,
    },
  ],
  [
    "limiter",
    "Limiter, last stop",
    "Main output",
    "safe",
    "Stays silent until something would go over −1 dB.",
    { ceiling: -1, release: 100 },
  ],
  [
    "gate",
    "Gate, between hits",
    "Percussion",
    "tight",
    "Closes by 24 dB, so that the room does not vanish with the hit.",
    { threshold: -38, range: -24, hold: 80, release: 180, detector: 90 },
  ],
  [
    "expander",
    "Expander, quieter gaps",
    "Voice",
    "gentle",
    "Ten decibels less in the gaps, no hole.",
    { threshold: -42, ratio: 2, range: -10, release: 260, detector: 120 },
  ],
  [
    "de-esser",
    "De-esser, six kilohertz",
    "Voice",
    "smooth",
    "Six decibels at most; move the frequency to the voice first.",
    { freq: 6200, threshold: -32, range: -6 },
  ],
  ["tape", "Tape, one pass", "Bus", "warm", "Rounds the loudest peaks; level as without.", { drive: 3, bump: 1 }],
  [
    "tube",
    "Tube, a touch",
    "Any strip",
    "warm",
    "Even harmonics before it is heard as drive.",
    { drive: 6, bias: 55, mix: 80 },
  ],
  [
    "overdrive",
    "Overdrive, blended",
    "Bass",
    "rough",
    "A third of it under the clean sound.",
    { drive: 16, tight: 180, tone: 2800, mix: 35, output: 6 },
  ],
  [
    "amplifier",
    "Amplifier, edge of breaking up",
    "Strings and keys",
    "rough",
    "Clean when played softly.",
    { drive: 12, master: 4, middle: 1.5, treble: -1, mix: 100, output: -1.5 },
  ],
  [
    "chorus",
    "Chorus, slow and low",
    "Keys",
    "wide",
    "Widens without being heard to move.",
    { rate: 0.35, depth: 28, spread: 80, wet: -8 },
  ],
  [
    "flanger",
    "Flanger, slow sweep",
    "Effects",
    "moving",
    "Twelve seconds a sweep.",
    { rate: 0.08, depth: 70, feedback: 30, mix: 35 },
  ],
  ["phaser", "Phaser, four stages", "Keys", "moving", "", { rate: 0.3, depth: 50, feedback: 20, mix: 40 }],
  [
    "tremolo",
    "Tremolo, eighths",
    "Keys",
    "moving tempo-locked",
    "Follows the tempo of the project.",
    { rate: note("1/8"), depth: 45, spread: 30 },
  ],
  [
    "echo",
    "Echo, quarter and dotted eighth",
    "Any strip",
    "wide tempo-locked",
    "",
    { feedback: 28, lowCut: 200, damping: 4200, wow: 8, wet: -16 },
  ],
  [
    "room",
    "Room, small and near",
    "Any strip",
    "close",
    "Heard only when it is taken away.",
    { decay: 0.4, high: 50, predelay: 2, wet: -18 },
  ],
  [
    "plate",
    "Plate, medium",
    "Voice",
    "open",
    "Predelay keeps the words in front.",
    { decay: 1.4, predelay: 28, lowCut: 180, wet: -16 },
  ],
  [
    "hall",
    "Hall, far wall",
    "Any strip",
    "wide",
    "",
    { decay: 2.4, predelay: 32, lowCut: 160, damping: 3600, wet: -18 },
  ],
  ["gain", "Gain, six down", "Any strip", "clean", "Headroom before what follows.", { gain: -6 }],
  [
    "stereo-width",
    "Width, mono below 120",
    "Bus",
    "clean",
    "Lows in the middle, the rest as it is.",
    { monoBelow: 120 },
  ],
  ["tuner", "Tuner, silent", "Any strip", "clean", "Mutes what follows while it is on.", { mute: 1 }],
  ["meter", "Meter, minus twenty", "Any strip", "clean", "", { target: -20 }],
  ["electric-piano", "Electric piano, soft bell", "Keys", "soft", "", { tone: 38, bell: 22, touch: 70, ring: 5 }],
  ["bass-synth", "Bass, round", "Bass", "warm", "", { cutoff: 320, resonance: 12, sweep: 18, decay: 340, sub: 55 }],
  ["pad-synth", "Pad, slow light", "Keys", "wide soft", "", { cutoff: 1400, attack: 900, release: 2200, motion: 20 }],
  ["mallets", "Mallets, medium yarn", "Mallets", "soft", "", { hardness: 35, ring: 3.4, depth: 12 }],
  [
    "drum-kit",
    "Drum kit, dry",
    "Percussion",
    "close",
    "",
    { kickDecay: 240, snareWires: 52, snareDecay: 160, hatDecay: 48 },
  ],
  [
    "sampler",
    "Sampler, as recorded",
    "Instruments",
    "clean",
    "Drop a sound onto it: one key, its own pitch, no loop.",
    { attack: 1, release: 120 },
  ],
];

const EQ_START = eq([
  ["low cut", 35, 12],
  ["bell", 250, 0, 1],
  ["bell", 3000, 0, 1],
  ["high shelf", 9000, 0, 0.7],
]);
const DELAY_START = delay(
  [
    [note("1/8"), -2, -40],
    [note("1/4"), -6, 40],
  ],
  { feedback: 15, damping: 4500, wet: -18 },
);

const slug = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, "-");

/** What stands on a card: name, purpose, tags with spaces between, notes. */
type Words = readonly [name: string, purpose: string, tags: string, notes?: string];

function made([name, purpose, tags, notes = ""]: Words, content: Content): PackPreset {
  const words = tags === "" ? [] : tags.split(" ");
  return { id: `included-${slug(name)}`, card: { ...emptyCard(name), purpose, tags: words, notes }, content };
}

const start = (processor: Processor, [name, purpose, tags, notes]: Words): PackPreset =>
  made([name, purpose, `start ${tags}`.trim(), notes ?? ""], { kind: "plugin", schema: CONTENT_SCHEMA, processor });

const ofChain = (name: string, purpose: string, tags: string, ...processors: readonly Processor[]): PackPreset =>
  made([name, purpose, tags], { kind: "chain", schema: CONTENT_SCHEMA, chain: chain(...processors) });

/** A strip with its inserts; its level and its output stay what they are where it goes. */
function ofStrip(kind: StripKind, [name, purpose, tags]: Words, ...processors: readonly Processor[]): PackPreset {
  const { source } = createStrip("strip", kind, { name }, null);
  const strip = { kind, source, look: { name: purpose }, inserts: chain(...processors) };
  return made([name, purpose, `start ${tags}`.trim()], { kind: "strip", schema: CONTENT_SCHEMA, strip });
}

/** A reverb or echo on a return: wet only. */
const wetOnly = (processor: Processor): Processor => {
  const has = getModel(processor.model).params.some((spec) => spec.id === "wet");
  return has ? { ...processor, values: { ...processor.values, dry: -60, wet: 0 } } : processor;
};

const CHAINS: readonly PackPreset[] = [
  ofChain(
    "Speech, clear and level",
    "Speech",
    "close clean",
    eq([
      ["low cut", 80, 18],
      ["bell", 280, -2.5, 1.2],
      ["bell", 3400, 1.5, 0.9],
    ]),
    set("expander", { threshold: -45, range: -8, ratio: 1.8 }),
    comp(-17, 3, { attack: 8, release: 160 }),
    set("de-esser", { freq: 6400, range: -6, threshold: -33 }),
  ),
  ofChain(
    "Sung voice, two hands",
    "Voice",
    "forward smooth",
    eq([
      ["low cut", 90, 12],
      ["bell", 320, -2, 1.1],
      ["high shelf", 10_000, 2, 0.7],
    ]),
    called("Peaks", set("fet-compressor", { threshold: -11, attack: 0.5, release: 90, colour: 15 })),
    called("Phrases", set("opto-compressor", { threshold: -17, release: 1100 })),
    set("de-esser", { freq: 7000, range: -5 }),
  ),
  ofChain(
    "Sung voice, near and soft",
    "Voice",
    "close soft",
    eq([
      ["low cut", 70, 12],
      ["low shelf", 180, 1, 0.7],
      ["bell", 2600, -1.5, 1],
    ]),
    set("opto-compressor", { threshold: -21, ratio: 2.5, release: 1500 }),
    set("tape", { drive: 2, output: -0.5 }),
    set("room", { decay: 0.35, wet: -22 }),
  ),
  ofChain(
    "Group of voices, one body",
    "Voices",
    "wide gentle",
    eq([
      ["low cut", 110, 12],
      ["bell", 400, -2, 0.9],
    ]),
    comp(-19, 2, { attack: 20, release: 220, knee: 12 }),
    set("stereo-width", { width: 120 }),
    set("plate", { decay: 1.8, predelay: 30, wet: -20 }),
  ),
  ofChain(
    "Bowed strings, less edge",
    "Bowed strings",
    "warm smooth",
    eq([
      ["low cut", 55, 12],
      ["bell", 2800, -3, 1.4],
      ["high shelf", 8000, -1, 0.7],
    ]),
    set("opto-compressor", { threshold: -15, ratio: 2 }),
    set("tube", { drive: 5, mix: 60 }),
  ),
  ofChain(
    "Plucked strings, even",
    "Plucked strings",
    "clean forward",
    eq([
      ["low cut", 70, 12],
      ["bell", 200, -2, 1],
      ["bell", 4500, 1.5, 0.8],
    ]),
    comp(-15, 3, { attack: 18, release: 110 }),
    set("room", { decay: 0.5, wet: -20 }),
  ),
  ofChain(
    "Brass, held",
    "Brass",
    "smooth",
    eq([
      ["low cut", 65, 12],
      ["bell", 1100, -2, 1.2],
      ["bell", 5200, -1.5, 1.6],
    ]),
    comp(-11, 2.5, { attack: 30, release: 180 }),
    set("hall", { decay: 1.8, predelay: 26, wet: -22 }),
  ),
  ofChain(
    "Hand drum, skin and room",
    "Percussion",
    "close",
    eq([
      ["low cut", 45, 12],
      ["bell", 380, -3, 1.2],
      ["bell", 5000, 2, 0.9],
    ]),
    set("gate", { threshold: -42, range: -18, hold: 120, release: 240, detector: 70 }),
    comp(-13, 4, { attack: 22, release: 90 }),
    set("room", { decay: 0.7, wet: -16 }),
  ),
  ofChain(
    "Drums, struck together",
    "Percussion",
    "rough tight",
    comp(-17, 4, { attack: 30, release: 80, mix: 60 }),
    set("tape", { drive: 6, bump: 2, output: -2 }),
    set("limiter", { ceiling: -3, release: 60 }),
  ),
  ofChain(
    "Bass, one level",
    "Bass",
    "warm tight",
    eq([
      ["low cut", 32, 18],
      ["bell", 240, -2.5, 1],
      ["bell", 800, 1.5, 1],
    ]),
    set("opto-compressor", { threshold: -19, ratio: 4, release: 600 }),
    off(set("overdrive", { drive: 14, mix: 20, tight: 300 })),
    set("stereo-width", { monoBelow: 150 }),
  ),
  ofChain(
    "Keys, out of the way",
    "Keys",
    "soft wide",
    eq([
      ["low cut", 120, 12],
      ["bell", 350, -2, 0.9],
      ["bell", 2500, -1.5, 0.8],
    ]),
    comp(-17, 2, { attack: 30, release: 200 }),
    set("chorus", { rate: 0.3, depth: 20, wet: -10 }),
  ),
  ofChain(
    "Organ and reeds, rounded",
    "Keys",
    "warm",
    eq([
      ["low cut", 60, 12],
      ["bell", 900, -1.5, 0.8],
      ["high cut", 11_000, 12],
    ]),
    set("tremolo", { rate: 5.6, depth: 18, spread: 60 }),
    set("tube", { drive: 7, mix: 70 }),
  ),
  ofChain(
    "Mallets, long ring",
    "Mallets",
    "open soft",
    eq([
      ["low cut", 90, 12],
      ["bell", 1800, -1.5, 1.2],
    ]),
    comp(-13, 2, { attack: 40, release: 260 }),
    set("hall", { decay: 3.2, predelay: 18, wet: -18 }),
  ),
  ofChain(
    "Telephone",
    "Effects",
    "rough narrow",
    eq([
      ["low cut", 420, 24],
      ["bell", 1500, 4, 0.9],
      ["high cut", 3200, 24],
    ]),
    set("overdrive", { drive: 18, mix: 60 }),
  ),
  ofChain(
    "Wide from one",
    "Effects",
    "wide",
    delay(
      [
        [11, -3, -100],
        [17, -3, 100],
      ],
      { feedback: 0, damping: 9000, wet: -6 },
    ),
    set("stereo-width", { width: 110, monoBelow: 140 }),
  ),
  ofChain(
    "Swell behind",
    "Effects",
    "wide moving tempo-locked",
    set("echo", { feedback: 55, damping: 2600, wet: -6, dry: -60 }),
    set("phaser", { rate: 0.12, depth: 40, mix: 30 }),
    set("hall", { decay: 5, predelay: 40, wet: -6 }),
  ),
  ofChain(
    "Group, glued",
    "Bus",
    "gentle",
    comp(-13, 2, { attack: 30, release: 180, knee: 10 }),
    set("tape", { drive: 2, output: -0.5 }),
  ),
  ofChain(
    "Main output, little and last",
    "Main output",
    "safe gentle",
    eq([
      ["low cut", 24, 12],
      ["high shelf", 12_000, 0.8, 0.7],
    ]),
    comp(-13, 1.5, { attack: 30, release: 200, knee: 12 }),
    set("limiter", { ceiling: -1 }),
  ),
  ofChain(
    "Main output, for a screen",
    "Main output",
    "safe clean",
    set("tilt-eq", { tilt: 0.5 }),
    set("limiter", { ceiling: -2, release: 150 }),
    set("meter", { target: -23 }),
  ),
];

const STRIPS: readonly PackPreset[] = [
  ofStrip(
    "audio",
    ["Audio strip, ready", "Audio", "clean"],
    EQ_START,
    off(comp(-13, 2.5, { attack: 15, release: 120 })),
  ),
  ofStrip(
    "return",
    ["Return, room", "Room", "return close"],
    wetOnly(set("room", { decay: 0.7, predelay: 6, lowCut: 140 })),
    eq([["high cut", 9000, 12]]),
  ),
  ofStrip(
    "return",
    ["Return, plate", "Plate", "return open"],
    wetOnly(set("plate", { decay: 1.8, predelay: 24, lowCut: 200 })),
  ),
  ofStrip(
    "return",
    ["Return, hall", "Hall", "return wide"],
    wetOnly(set("hall", { decay: 2.8, predelay: 36, lowCut: 180 })),
  ),
  ofStrip(
    "return",
    ["Return, eighths", "Eighths", "return tempo-locked"],
    { ...DELAY_START, values: { ...DELAY_START.values, dry: -60, wet: 0 } },
    eq([
      ["low cut", 200, 12],
      ["high cut", 6500, 12],
    ]),
  ),
  ofStrip(
    "group",
    ["Group strip, ready", "Group", "gentle"],
    EQ_START,
    off(comp(-11, 2, { attack: 30, release: 160 })),
  ),
  ofStrip(
    "main",
    ["Main output, ready", "Main output", "safe"],
    off(eq([["low cut", 24, 12]])),
    set("limiter", { ceiling: -1 }),
    set("meter", { target: -18 }),
  ),
];

export const INCLUDED: Pack = {
  name: "Included",
  presets: [
    start(EQ_START, [
      "Parametric EQ, four at rest",
      "Any strip",
      "clean",
      "A low cut at 35 Hz; three bands stand ready where they are mostly wanted.",
    ]),
    start(DELAY_START, [
      "Multi-tap delay, eighth and quarter",
      "Any strip",
      "wide tempo-locked",
      "Left then right, well behind.",
    ]),
    ...STARTS.map(([model, name, purpose, tags, notes, values]) =>
      start(set(model, values), [name, purpose, tags, notes]),
    ),
    ...CHAINS,
    ...STRIPS,
  ],
};
