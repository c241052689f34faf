import type { Processor } from "@/core/chains/chain";
import type { Content, Origin } from "@/core/presets/preset";
import { createStrip } from "@/core/strips/strip";
import { called, chain, comp, delay, eq, note, off } from "@/core/packs/writing";

export interface DemoPreset {
  readonly id: string;
  readonly name: string;
  readonly folder: string;
  readonly purpose: string;
  readonly tags: readonly string[];
  readonly rating: number;
  readonly origin: Origin;
  readonly notes?: string;
  /** Oldest first. */
  readonly versions: readonly Content[];
  readonly saved: string;
  readonly used: string | null;
}

const ofChain = (...processors: readonly Processor[]): Content => ({
  kind: "chain",
  schema: 1,
  chain: chain(...processors),
});
const ofPlugin = (processor: Processor): Content => ({ kind: "plugin", schema: 1, processor });

function ofStrip(name: string, fader: number, pan: number, ...processors: readonly Processor[]): Content {
  const { level: _, pan: __, ...blank } = createStrip("x", "audio", { name }, null);
  return {
    kind: "strip",
    schema: 1,
    strip: {
      kind: "audio",
      source: blank.source,
      look: { name },
      inserts: chain(...processors),
      level: { fader, mute: false },
      pan: { pan, width: 100 },
    },
  };
}

const heron = (song: string, strip: string, date: string, more: Origin = {}): Origin => ({
  artist: "Copper Heron",
  client: "Copper Heron",
  song,
  project: song,
  strip,
  date,
  ...more,
});
const clocks = (song: string, strip: string, date: string): Origin => ({
  artist: "Tidal Clocks",
  client: "Tidal Clocks",
  song,
  project: song,
  strip,
  date,
});
const choir = (song: string, strip: string, date: string, more: Origin = {}): Origin => ({
  artist: "The Quarry Choir",
  client: "The Quarry Choir",
  song,
  project: song,
  strip,
  date,
  ...more,
});
const tours = (strip: string, date: string, more: Origin = {}): Origin => ({
  artist: "Moss & Meridian",
  client: "Moss & Meridian",
  song: "The Tidemill tour",
  project: "The Tidemill tour",
  strip,
  date,
  ...more,
});

/** Folders as paths; parents come first. */
export const DEMO_FOLDERS = [
  "Voices",
  "Voices/Narration",
  "Voices/Choir",
  "Bowed",
  "Percussion",
  "Keys and mallets",
  "Brass",
  "Delays",
  "Anywhere",
  "Main output",
  "Kits and sections",
  "Kits and sections/Whole mixes",
] as const;

export const ROW_PRESETS: readonly DemoPreset[] = [
  {
    id: "narrator-close",
    name: "Narrator, close and calm",
    folder: "Voices/Narration",
    purpose: "Narration",
    tags: ["gentle", "close", "tempo-locked"],
    rating: 5,
    origin: tours("Narrator", "2026-11-24", {
      performer: "Ines Maréchal",
      microphone: "ribbon, a hand away",
      take: "3",
    }),
    notes: "Cut follows the booth's rumble. The delay is hardly there; it keeps the voice from sounding sealed in.",
    versions: [
      ofChain(
        eq([
          ["low cut", 80],
          ["bell", 900, -4, 0.9],
        ]),
        comp(-20, 2.5, { attack: 14, release: 160 }),
      ),
      ofChain(
        eq([
          ["low cut", 70],
          ["bell", 900, -5, 0.8],
          ["high shelf", 6500, 1.5],
        ]),
        comp(-22, 3, { attack: 12, release: 140, makeupMode: 2 }),
      ),
      ofChain(
        eq([
          ["low cut", 70, 18],
          ["bell", 900, -7, 0.8],
          ["bell", 2900, 1.5, 1.1],
          ["high shelf", 6500, 2],
        ]),
        comp(-24, 3, { attack: 12, release: 140, knee: 8, makeupMode: 2 }),
        called(
          "Air around it",
          delay(
            [
              [note("1/8"), -3, -60],
              [note("3/16"), -6, 60],
            ],
            { wet: -24, feedback: 10, damping: 3500 },
          ),
        ),
      ),
    ],
    saved: "2026-11-24T16:12:00.000Z",
    used: "2026-11-24T18:40:00.000Z",
  },
  {
    id: "nyckelharpa-kept",
    name: "Nyckelharpa, sympathetic strings kept",
    folder: "Bowed",
    purpose: "Bowed",
    tags: ["open", "bright"],
    rating: 5,
    origin: heron("Salt Lanterns", "Nyckelharpa", "2026-11-23", {
      instrument: "tenor nyckelharpa",
      microphone: "small pair",
    }),
    versions: [
      ofChain(
        eq([
          ["low cut", 110],
          ["bell", 620, -3, 1.2],
        ]),
        comp(-18, 2, { knee: 12 }),
      ),
      ofChain(
        eq([
          ["low cut", 110, 18],
          ["bell", 620, -3.5, 1.2],
          ["bell", 3400, -1.5, 2.2],
          ["high shelf", 8200, 3],
        ]),
        comp(-18, 2, { knee: 12, attack: 22, release: 240 }),
      ),
    ],
    saved: "2026-11-23T11:30:00.000Z",
    used: "2026-11-24T15:02:00.000Z",
  },
  {
    id: "frame-drum-close",
    name: "Frame drum, skin and hand",
    folder: "Percussion",
    purpose: "Frame drum",
    tags: ["punch", "close"],
    rating: 4,
    origin: heron("Salt Lanterns", "Frame drum close", "2026-11-21", { instrument: "frame drum, 45 cm" }),
    versions: [
      ofStrip(
        "Frame drum close",
        -1.5,
        0,
        eq([
          ["low cut", 45, 24],
          ["bell", 210, -4, 1.6],
          ["bell", 4200, 3.5, 1],
        ]),
        comp(-20, 5, { attack: 28, release: 90, knee: 3 }),
      ),
    ],
    saved: "2026-11-21T17:45:00.000Z",
    used: "2026-11-21T17:45:00.000Z",
  },
  {
    id: "harmonium-softened",
    name: "Harmonium reeds, softened",
    folder: "Keys and mallets",
    purpose: "Keys",
    tags: ["dark", "gentle"],
    rating: 4,
    origin: heron("Salt Lanterns", "Harmonium", "2026-11-21", { instrument: "Reed organ" }),
    versions: [
      ofChain(
        eq([
          ["low cut", 140],
          ["bell", 1250, -4.5, 1.4],
          ["high cut", 7200, 12],
        ]),
        comp(-26, 1.8, { attack: 40, release: 400, knee: 16 }),
      ),
    ],
    saved: "2026-11-21T12:10:00.000Z",
    used: null,
  },
  {
    id: "cut-and-shelves",
    name: "Cut and shelves, ready to move",
    folder: "Anywhere",
    purpose: "Any",
    tags: ["start"],
    rating: 5,
    origin: {},
    versions: [
      ofPlugin(
        eq([
          ["low cut", 80, 12],
          ["low shelf", 180, 0],
          ["bell", 500, 0, 1],
          ["bell", 2200, 0, 1],
          ["high shelf", 7000, 0],
        ]),
      ),
    ],
    saved: "2026-11-19T09:00:00.000Z",
    used: "2026-11-19T09:00:00.000Z",
  },
  {
    id: "vibraphone-halo",
    name: "Vibraphone halo",
    folder: "Keys and mallets",
    purpose: "Mallets",
    tags: ["wide", "tempo-locked"],
    rating: 5,
    origin: clocks("Neap Tide", "Vibraphone", "2026-11-18"),
    versions: [
      ofChain(
        eq([
          ["low cut", 160],
          ["bell", 2100, 2.5, 0.8],
          ["high shelf", 9000, 2],
        ]),
        delay(
          [
            [note("1/8", "dotted"), -4, -80],
            [note("1/4"), -6, 80],
            [note("3/8"), -9, -40],
            [note("1/2"), -12, 40],
          ],
          { wet: -10, feedback: 35, damping: 4200 },
        ),
      ),
    ],
    saved: "2026-11-18T20:20:00.000Z",
    used: "2026-11-20T10:00:00.000Z",
  },
  {
    id: "patch-bass-held",
    name: "Patch bass, held down",
    folder: "Anywhere",
    purpose: "Bass",
    tags: ["firm", "low"],
    rating: 4,
    origin: clocks("Neap Tide", "Patch bass", "2026-11-18"),
    versions: [
      ofStrip(
        "Patch bass",
        -3,
        0,
        eq([
          ["low cut", 32, 24],
          ["low shelf", 95, 2.5],
          ["bell", 340, -4, 1.1],
          ["bell", 1600, 2, 0.9],
        ]),
        comp(-24, 6, { attack: 8, release: 70, knee: 2, makeupMode: 2 }),
      ),
    ],
    saved: "2026-11-18T19:05:00.000Z",
    used: "2026-11-18T19:05:00.000Z",
  },
  {
    id: "eighths-left-right",
    name: "Eighths, left and right",
    folder: "Delays",
    purpose: "Return",
    tags: ["wide", "tempo-locked", "return"],
    rating: 5,
    origin: clocks("Neap Tide", "Eighths", "2026-11-17"),
    versions: [
      ofChain(
        delay(
          [
            [note("1/8"), 0, -100],
            [note("1/4"), -3, 100],
            [note("3/8"), -6, -100],
            [note("1/2"), -9, 100],
          ],
          { dry: -60, wet: 0, feedback: 25, damping: 5200 },
        ),
        eq([
          ["low cut", 250, 12],
          ["high cut", 6500, 12],
        ]),
      ),
    ],
    saved: "2026-11-17T14:30:00.000Z",
    used: "2026-11-24T12:00:00.000Z",
  },
  {
    id: "choir-four-parts",
    name: "Choir in four parts",
    folder: "Voices/Choir",
    purpose: "Choir",
    tags: ["open", "wide"],
    rating: 4,
    origin: choir("Slate and Rain", "Choir", "2026-11-11", { microphone: "four in an arc" }),
    versions: [
      ofChain(
        eq([
          ["low cut", 95, 12],
          ["bell", 310, -2.5, 0.9],
          ["bell", 3300, -2, 1.8],
          ["high shelf", 10_000, 2.5],
        ]),
        comp(-22, 1.6, { attack: 45, release: 380, knee: 18 }),
      ),
    ],
    saved: "2026-11-11T18:00:00.000Z",
    used: null,
  },
  {
    id: "brass-peaks",
    name: "Brass peaks, caught early",
    folder: "Brass",
    purpose: "Brass",
    tags: ["firm"],
    rating: 4,
    origin: choir("Slate and Rain", "Quintet", "2026-11-11"),
    versions: [ofPlugin(comp(-16, 8, { attack: 2, release: 60, knee: 2 }))],
    saved: "2026-11-11T15:00:00.000Z",
    used: "2026-11-11T15:00:00.000Z",
  },
  {
    id: "cello-wood-rosin",
    name: "Cello, wood and rosin",
    folder: "Bowed",
    purpose: "Bowed",
    tags: ["warm", "close"],
    rating: 5,
    origin: heron("Weir Song", "Cello", "2026-11-09", {
      performer: "Tove Halden",
      instrument: "cello",
      microphone: "ribbon",
    }),
    versions: [
      ofChain(
        eq([
          ["low shelf", 150, 2.5],
          ["bell", 980, -4, 1.6],
          ["high shelf", 6000, 1],
        ]),
        comp(-22, 2.2, { attack: 24, release: 220, knee: 10 }),
      ),
      ofChain(
        eq([
          ["low shelf", 140, 3],
          ["bell", 980, -5.5, 1.8],
          ["bell", 2600, 2, 1.2],
          ["high shelf", 6000, 1.5],
        ]),
        comp(-22, 2.5, { attack: 20, release: 200, knee: 10, makeupMode: 2 }),
        off(delay([[note("1/8", "triplet"), -6, 30]], { wet: -20, feedback: 0, damping: 2500 })),
      ),
    ],
    saved: "2026-11-09T21:15:00.000Z",
    used: "2026-11-22T08:00:00.000Z",
  },
  {
    id: "gallery-echo",
    name: "Gallery echo for tours",
    folder: "Delays",
    purpose: "Narration",
    tags: ["dark", "return"],
    rating: 3,
    origin: tours("Gallery", "2026-11-04"),
    versions: [
      ofChain(
        eq([
          ["low cut", 300, 24],
          ["high cut", 3800, 12],
        ]),
        delay(
          [
            [86, -3, -50],
            [137, -5, 50],
            [211, -8, -20],
            [304, -10, 20],
          ],
          { dry: -60, wet: -2, feedback: 30, damping: 2200 },
        ),
      ),
    ],
    saved: "2026-11-04T10:40:00.000Z",
    used: "2026-11-04T10:40:00.000Z",
  },
  {
    id: "room-pair-far",
    name: "Room pair, far",
    folder: "Anywhere",
    purpose: "Ambience",
    tags: ["dark", "wide"],
    rating: 3,
    origin: choir("Slate and Rain", "Nave", "2026-11-02"),
    versions: [
      ofStrip(
        "Room pair",
        -9,
        0,
        eq([
          ["low cut", 120, 12],
          ["low shelf", 300, -2],
          ["high cut", 11_000, 6],
        ]),
        comp(-30, 4, { attack: 3, release: 320, knee: 6, makeupMode: 2 }),
      ),
    ],
    saved: "2026-11-02T13:00:00.000Z",
    used: null,
  },
  {
    id: "voice-forward",
    name: "Voice, one step forward",
    folder: "Voices",
    purpose: "Sung voice",
    tags: ["close", "bright"],
    rating: 5,
    origin: heron("Salt Lanterns", "Voice", "2026-11-20", { performer: "Maren Ask" }),
    versions: [
      ofChain(
        eq([
          ["low cut", 90, 24],
          ["bell", 240, -3, 1.3],
          ["bell", 3100, 2.5, 0.9],
          ["high shelf", 9500, 3],
        ]),
        called("Catch", comp(-14, 6, { attack: 3, release: 60, knee: 3 })),
        called("Level", comp(-26, 2, { attack: 30, release: 300, knee: 14, makeupMode: 2 })),
      ),
    ],
    saved: "2026-11-20T22:10:00.000Z",
    used: "2026-11-23T09:30:00.000Z",
  },
  {
    id: "held-flat-captions",
    name: "Held flat for captions",
    folder: "Voices/Narration",
    purpose: "Narration",
    tags: ["firm"],
    rating: 3,
    origin: tours("Captions", "2026-10-30"),
    versions: [ofPlugin(comp(-30, 6, { attack: 6, release: 90, knee: 4, makeupMode: 2 }))],
    saved: "2026-10-30T11:11:00.000Z",
    used: null,
  },
  {
    id: "rim-and-air",
    name: "Rim and air",
    folder: "Percussion",
    purpose: "Frame drum",
    tags: ["bright"],
    rating: 3,
    origin: heron("Salt Lanterns", "Frame drum rim", "2026-10-28"),
    versions: [
      ofChain(
        eq([
          ["low cut", 220, 18],
          ["bell", 1100, -3, 1.5],
          ["high shelf", 7500, 5],
        ]),
        comp(-24, 3, { attack: 18, release: 70 }),
      ),
    ],
    saved: "2026-10-28T17:20:00.000Z",
    used: null,
  },
  {
    id: "mallets-low",
    name: "Mallets low, wood first",
    folder: "Keys and mallets",
    purpose: "Mallets",
    tags: ["warm"],
    rating: 3,
    origin: clocks("Slack Water", "Marimba", "2026-10-25"),
    versions: [
      ofChain(
        eq([
          ["low shelf", 120, 3],
          ["bell", 480, -3.5, 1.3],
          ["bell", 2800, 2.5, 1.6],
        ]),
        comp(-18, 3, { attack: 35, release: 120 }),
      ),
    ],
    saved: "2026-10-25T16:45:00.000Z",
    used: null,
  },
  {
    id: "quintet-blend",
    name: "Quintet, one breath",
    folder: "Brass",
    purpose: "Brass",
    tags: ["gentle", "open"],
    rating: 4,
    origin: choir("Slate and Rain", "Quintet", "2026-10-22"),
    versions: [
      ofChain(
        eq([
          ["low cut", 60, 12],
          ["bell", 1400, -2, 0.7],
          ["high shelf", 8000, -1.5],
        ]),
        comp(-20, 1.8, { attack: 30, release: 260, knee: 12 }),
      ),
    ],
    saved: "2026-10-22T19:00:00.000Z",
    used: null,
  },
  {
    id: "slow-heron-echo",
    name: "Slow heron echo",
    folder: "Delays",
    purpose: "Return",
    tags: ["dark", "tempo-locked", "return"],
    rating: 4,
    origin: heron("Weir Song", "Echo", "2026-10-19"),
    versions: [
      ofChain(
        delay(
          [
            [note("1/4", "dotted"), 0, -30],
            [note("1/2"), -4, 30],
          ],
          { dry: -60, wet: 0, feedback: 45, damping: 1800 },
        ),
        eq([
          ["low cut", 180, 12],
          ["bell", 800, -2, 0.8],
        ]),
      ),
    ],
    saved: "2026-10-19T23:05:00.000Z",
    used: null,
  },
  {
    id: "main-quiet-hand",
    name: "Main output, a quiet hand",
    folder: "Main output",
    purpose: "Main output",
    tags: ["gentle", "open"],
    rating: 5,
    origin: heron("Salt Lanterns", "Main", "2026-10-15"),
    versions: [
      ofChain(
        eq([
          ["low cut", 24, 12],
          ["low shelf", 90, 0.8],
          ["bell", 320, -0.8, 0.6],
          ["high shelf", 12_000, 1.2],
        ]),
        comp(-12, 1.5, { attack: 40, release: 180, knee: 12 }),
      ),
    ],
    saved: "2026-10-15T20:00:00.000Z",
    used: "2026-11-24T18:00:00.000Z",
  },
  {
    id: "two-to-one",
    name: "Two to one, soft knee",
    folder: "Anywhere",
    purpose: "Any",
    tags: ["gentle", "start"],
    rating: 4,
    origin: {},
    versions: [ofPlugin(comp(-18, 2, { knee: 12, attack: 15, release: 150 }))],
    saved: "2026-10-10T09:00:00.000Z",
    used: null,
  },
  {
    id: "telephone-tour",
    name: "Through the old receiver",
    folder: "Voices/Narration",
    purpose: "Narration",
    tags: ["narrow", "effect"],
    rating: 2,
    origin: tours("Archive voice", "2026-10-08"),
    versions: [
      ofChain(
        eq([
          ["low cut", 420, 24],
          ["bell", 1700, 7, 1.4],
          ["high cut", 3100, 24],
        ]),
        comp(-30, 8, { attack: 1, release: 40, knee: 1, makeupMode: 2 }),
      ),
    ],
    saved: "2026-10-08T15:30:00.000Z",
    used: null,
  },
];
