import { type Chain, type ChainNode, EMPTY_CHAIN, type Lane, type Processor } from "@/core/chains/chain";
import { switchForAll } from "@/core/chains/macros";
import { opened } from "@/core/packs/writing";
import type { Content } from "@/core/presets/preset";
import type { Values } from "@/core/units/param-spec";
import type { Layer } from "@/core/strips/parts/source";
import type { DemoPreset } from "./presets";

/** Sounds of the quay that need more than a row of three plugins: lanes, sections, macros, instruments. */

const plugin = (key: string, model: string, values: Values = {}, label?: string): Processor =>
  opened(key, model, values, label === undefined ? {} : { label });

const lane = (key: string, name: string, [level, pan]: readonly [number, number], nodes: Lane["nodes"]): Lane => ({
  key,
  name,
  enabled: true,
  level,
  pan,
  panLaw: "pan",
  nodes,
});

const section = (key: string, name: string, nodes: Extract<ChainNode, { type: "section" }>["nodes"]): ChainNode => ({
  type: "section",
  key,
  name,
  enabled: true,
  nodes,
});

const chainContent = (chain: Chain): Content => ({ kind: "chain", schema: 1, chain });
const pluginContent = (processor: Processor): Content => ({ kind: "plugin", schema: 1, processor });

const HARMONIUM_TWO: Chain = {
  nodes: [
    section("front", "Front", [
      plugin("cut", "console-eq", { lowCut: 70, "lowMid.gain": -3, "lowMid.freq": 320 }),
      plugin("hold", "opto-compressor", { threshold: -26, ratio: 3, makeupMode: 2 }),
    ]),
    {
      type: "split",
      key: "amps",
      by: { way: "copy" },
      lanes: [
        lane(
          "small",
          "Small",
          [-3, -40],
          [plugin("amp1", "amplifier", { drive: 14, cabinet: 1, treble: 3 }, "Kitchen amp")],
        ),
        lane(
          "big",
          "Big",
          [-5, 40],
          [
            plugin("amp2", "amplifier", { drive: 26, master: 9, cabinet: 3, middle: -2 }, "Hall amp"),
            plugin("shake", "tremolo", { rate: { note: "1/4", feel: "straight" }, depth: 35 }),
          ],
        ),
      ],
    },
    section("post", "Post", [
      plugin("room", "plate", { decay: 1.8, wet: -16 }),
      plugin("top", "limiter", { ceiling: -2 }),
    ]),
  ],
  macros: [
    {
      key: "dirt",
      name: "Dirt",
      style: "line",
      axes: [
        [
          { node: "amp1", param: "drive", from: 0, to: 40, bend: 0 },
          { node: "amp2", param: "drive", from: 10, to: 48, bend: 0.4 },
          { node: "big", param: "level", from: -9, to: -1, bend: 0 },
        ],
      ],
    },
    {
      key: "place",
      name: "Place",
      style: "pad",
      axes: [
        [{ node: "room", param: "decay", from: 0.4, to: 6, bend: 0 }],
        [{ node: "room", param: "wet", from: -40, to: -4, bend: -0.3 }],
      ],
    },
  ],
};

const VOICE_EASE: Chain = {
  nodes: [
    plugin("ess", "de-esser", { freq: 6200, threshold: -34, range: -9 }),
    plugin("hold", "opto-compressor", { threshold: -24, ratio: 3.5, makeupMode: 2 }),
    plugin("warm", "tape", { drive: 5, mix: 60 }),
    plugin("air", "tilt-eq", { tilt: 1.5, lowCut: 80 }),
  ],
  macros: [],
};

const DRUM_BANDS: Chain = {
  nodes: [
    {
      type: "split",
      key: "bands",
      by: { way: "bands", crossovers: [160, 2600] },
      lanes: [
        lane("skin", "Skin", [1, 0], [plugin("thump", "vca-compressor", { threshold: -20, ratio: 3, attack: 25 })]),
        lane("body", "Body", [0, 0], [plugin("grit", "tube", { drive: 10, mix: 40 })]),
        lane("rim", "Rim", [-1.5, 0], [plugin("wide", "chorus", { depth: 20, wet: -12 })]),
      ],
    },
    plugin("glue", "fet-compressor", { threshold: -16, mix: 45, makeupMode: 2 }),
  ],
  macros: [],
};

const layer = (key: string, instrument: Processor, effects: Chain = EMPTY_CHAIN, more: Partial<Layer> = {}): Layer => ({
  key,
  name: instrument.label ?? "",
  instrument,
  keys: { low: 0, high: 127 },
  velocities: { low: 0, high: 127 },
  effects,
  ...more,
});

/** A vibraphone with its motor, and a pad beneath its lower half. */
export const QUAY_VIBRAPHONE: readonly Layer[] = [
  layer("bars", plugin("vibes", "mallets", { bar: 0, hardness: 35, ring: 5, depth: 40, motor: 5.4 }, "Vibraphone"), {
    nodes: [plugin("room", "room", { decay: 0.9, wet: -18 })],
    macros: [],
  }),
  layer("mist", plugin("mist", "pad-synth", { attack: 1200, cutoff: 900, level: -18 }, "Mist"), EMPTY_CHAIN, {
    keys: { low: 0, high: 62 },
  }),
];

const WARM_BASS: readonly Layer[] = [
  layer("bass", plugin("bass", "bass-synth", { wave: 1, cutoff: 320, sub: 60, sweep: 18 }, "Patch bass"), {
    nodes: [plugin("edge", "overdrive", { drive: 12, mix: 30 })],
    macros: [],
  }),
];

const instrumentContent = (layers: readonly Layer[], inserts: Chain): Content => ({
  kind: "strip",
  schema: 1,
  strip: { kind: "instrument", source: { type: "layers", channels: "stereo", layers: [...layers] }, inserts },
});

const VIBRAPHONE_INSERTS: Chain = {
  nodes: [
    plugin("tame", "console-eq", { "highMid.gain": -2, "highMid.freq": 2800 }),
    plugin("far", "hall", { wet: -20 }),
  ],
  macros: [],
};

const FROM_HERON = { artist: "Copper Heron", client: "Copper Heron", song: "Salt Lanterns", project: "Salt Lanterns" };
const FROM_CLOCKS = { artist: "Tidal Clocks", client: "Tidal Clocks", song: "Neap Tide", project: "Neap Tide" };

export const WIRED_PRESETS: readonly DemoPreset[] = [
  {
    id: "harmonium-two-amplifiers",
    name: "Harmonium, two amplifiers",
    folder: "Keys and mallets",
    purpose: "Harmonium",
    tags: ["driven", "wide"],
    rating: 4,
    origin: { ...FROM_HERON, strip: "Harmonium", date: "2026-11-12", microphone: "ribbon pair" },
    notes: "Kitchen amp left, hall amp right. Dirt up for the last verse.",
    versions: [
      chainContent({
        ...HARMONIUM_TWO,
        macros: [...HARMONIUM_TWO.macros, switchForAll(HARMONIUM_TWO, "all", "All of it")],
      }),
    ],
    saved: "2026-11-12T19:10:00.000Z",
    used: null,
  },
  {
    id: "voice-ease",
    name: "Voice, eased and taped",
    folder: "Voices",
    purpose: "Voice",
    tags: ["eased", "warm"],
    rating: 4,
    origin: { ...FROM_HERON, strip: "Voice", date: "2026-11-14", microphone: "large diaphragm" },
    versions: [chainContent(VOICE_EASE)],
    saved: "2026-11-14T11:40:00.000Z",
    used: null,
  },
  {
    id: "drum-three-bands",
    name: "Frame drum in three bands",
    folder: "Percussion",
    purpose: "Frame drum",
    tags: ["dense"],
    rating: 3,
    origin: { ...FROM_HERON, strip: "Drum", date: "2026-11-13" },
    versions: [chainContent(DRUM_BANDS)],
    saved: "2026-11-13T16:05:00.000Z",
    used: null,
  },
  {
    id: "quay-vibraphone",
    name: "Quay vibraphone",
    folder: "Keys and mallets",
    purpose: "Vibraphone",
    tags: ["instrument", "soft"],
    rating: 5,
    origin: { ...FROM_CLOCKS, strip: "Mallets", date: "2026-11-18" },
    versions: [instrumentContent(QUAY_VIBRAPHONE, VIBRAPHONE_INSERTS)],
    saved: "2026-11-18T21:30:00.000Z",
    used: null,
  },
  {
    id: "patch-bass-played",
    name: "Patch bass, played",
    folder: "Anywhere",
    purpose: "Bass",
    tags: ["instrument"],
    rating: 3,
    origin: { ...FROM_CLOCKS, strip: "Patch bass", date: "2026-11-17" },
    versions: [
      instrumentContent(WARM_BASS, { nodes: [plugin("even", "vca-compressor", { threshold: -20 })], macros: [] }),
    ],
    saved: "2026-11-17T22:15:00.000Z",
    used: null,
  },
  {
    id: "chapel-plate",
    name: "Chapel plate, dark",
    folder: "Anywhere",
    purpose: "Any",
    tags: ["dark", "long"],
    rating: 4,
    origin: {},
    versions: [
      pluginContent(plugin("plate", "plate", { decay: 3.4, high: 35, damping: 2600, predelay: 40, dry: -60, wet: 0 })),
    ],
    saved: "2026-10-12T09:00:00.000Z",
    used: null,
  },
  {
    id: "slow-shimmer",
    name: "Slow shimmer",
    folder: "Anywhere",
    purpose: "Any",
    tags: ["wide"],
    rating: 3,
    origin: {},
    versions: [pluginContent(plugin("chorus", "chorus", { rate: 0.25, depth: 55, spread: 80 }))],
    saved: "2026-10-12T09:10:00.000Z",
    used: null,
  },
  {
    id: "tape-a-touch",
    name: "Tape, a touch",
    folder: "Anywhere",
    purpose: "Any",
    tags: ["warm", "start"],
    rating: 4,
    origin: {},
    versions: [pluginContent(plugin("tape", "tape", { drive: 4, bias: 55, mix: 70 }))],
    saved: "2026-10-12T09:20:00.000Z",
    used: null,
  },
];
