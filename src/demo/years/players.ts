import { called, comp, delay, eq, note, off, set } from "@/core/packs/writing";
import { ofChain, ofPlugin, ofStrip } from "./rows";

const liv = { performer: "Liv Harken", instrument: "tenor nyckelharpa", microphone: "small pair" };
const oskar = { performer: "Oskar Vane", instrument: "cello", microphone: "ribbon pair" };
const drum = { performer: "Bea Thorne", instrument: "frame drum" };

/** Strings, reeds, mallets, drums and brass. */
export const PLAYERS = [
  ofChain(
    {
      name: "Nyckelharpa, lead line",
      folder: "Bowed",
      for: "Bowed",
      tags: "forward bright",
      rating: 4,
      of: ["ferry", "Nyckelharpa", liv],
      saved: "2026-09-10",
      used: "2026-10-02",
    },
    [
      eq([
        ["low cut", 130, 18],
        ["bell", 2600, -2.5, 1.8],
        ["high shelf", 9000, 2.5, 0.7],
      ]),
      comp(-20, 2.5, { attack: 18, release: 180 }),
      set("plate", { decay: 1.2, predelay: 22, wet: -20 }),
    ],
    [[0, "band3.gain", 4]],
    [[1, "ratio", 4]],
  ),
  ofChain(
    {
      name: "Nyckelharpa, drone strings up",
      folder: "Bowed",
      for: "Bowed",
      tags: "open wide",
      rating: 3,
      of: ["reeds", "Nyckelharpa", liv],
      saved: "2021-02-09",
      used: "2021-03-01",
    },
    [
      eq([
        ["low cut", 90, 12],
        ["bell", 900, 2, 0.8],
        ["high shelf", 7000, 3, 0.7],
      ]),
      comp(-28, 3, { attack: 40, release: 90 }),
      set("chorus", { rate: 0.2, depth: 18, wet: -12 }),
    ],
  ),
  ofChain(
    {
      name: "Nyckelharpa pair, blended",
      folder: "Bowed",
      for: "Bowed",
      tags: "warm",
      rating: 3,
      of: ["salt", "Nyckelharpa", liv],
      saved: "2026-11-21",
    },
    [
      eq([
        ["low cut", 110, 12],
        ["bell", 3200, -2, 1.5],
      ]),
      set("tape", { drive: 4, output: -1 }),
    ],
  ),
  ofChain(
    {
      name: "Cello, bow near the bridge",
      folder: "Bowed",
      for: "Bowed",
      tags: "bright forward",
      rating: 3,
      of: ["ferry", "Cello", oskar],
      saved: "2026-09-11",
      used: "2026-10-02",
    },
    [
      eq([
        ["low cut", 50, 12],
        ["bell", 240, -3, 1],
        ["high shelf", 4200, 2.5, 0.7],
      ]),
      comp(-21, 2.5, { attack: 25, release: 200 }),
    ],
  ),
  ofChain(
    {
      name: "Cello under the voice",
      folder: "Bowed",
      for: "Bowed",
      tags: "dark gentle",
      rating: 5,
      of: ["ferry", "Cello", oskar],
      saved: "2026-09-12",
      used: "2026-10-02",
    },
    [
      eq([
        ["low cut", 40, 12],
        ["bell", 1400, -3, 0.9],
        ["high shelf", 6000, -3, 0.7],
      ]),
      set("opto-compressor", { threshold: -23, ratio: 2 }),
    ],
    [[0, "band2.gain", -5]],
    [[1, "threshold", -28]],
    [[0, "band3.gain", -1]],
  ),
  ofChain(
    {
      name: "Cello pizzicato",
      folder: "Bowed",
      for: "Bowed",
      tags: "tight",
      rating: 3,
      of: ["reeds", "Cello", oskar],
      saved: "2021-02-10",
      used: "2021-03-01",
    },
    [
      eq([
        ["low cut", 45, 12],
        ["bell", 110, 2, 1.1],
        ["bell", 2400, 2, 1],
      ]),
      comp(-20, 4, { attack: 8, release: 80 }),
      set("room", { decay: 0.5, wet: -19 }),
    ],
  ),
  ofStrip(
    {
      name: "Cello strip, Ferry Light",
      folder: "Bowed",
      for: "Bowed",
      tags: "dark",
      rating: 4,
      of: ["ferry", "Cello", oskar],
      saved: "2026-10-02",
    },
    ["audio", "Cello", -4, 14],
    eq([
      ["low cut", 40, 12],
      ["bell", 1400, -3, 0.9],
    ]),
    set("opto-compressor", { threshold: -23, ratio: 2 }),
  ),
  ofPlugin(
    {
      name: "Bow noise, four kilohertz",
      folder: "Bowed",
      for: "Bowed",
      tags: "smooth",
      rating: 3,
      of: ["ferry", "Cello", oskar],
      saved: "2026-09-12",
    },
    set("de-esser", { freq: 4100, threshold: -36, range: -5, release: 90 }),
  ),
  ofPlugin(
    {
      name: "Strings bus, one decibel",
      folder: "Bowed",
      for: "Bus",
      tags: "gentle",
      rating: 4,
      of: ["salt", "Strings"],
      saved: "2026-11-20",
      used: "2026-11-24",
    },
    comp(-16, 1.6, { attack: 30, release: 220, knee: 12 }),
  ),

  ofChain(
    {
      name: "Harmonium, bellows quiet",
      folder: "Keys and mallets",
      for: "Keys",
      tags: "clean",
      rating: 3,
      of: ["ferry", "Harmonium"],
      saved: "2026-09-13",
      used: "2026-10-02",
    },
    [
      eq([
        ["low cut", 90, 18],
        ["bell", 210, -2.5, 1.2],
      ]),
      set("expander", { threshold: -50, range: -12, ratio: 2.2, release: 500 }),
    ],
    [[1, "range", -24]],
  ),
  ofChain(
    {
      name: "Harmonium bed",
      folder: "Keys and mallets",
      for: "Keys",
      tags: "wide soft",
      rating: 4,
      of: ["reeds", "Harmonium"],
      saved: "2021-02-13",
      used: "2026-10-02",
    },
    [
      eq([
        ["low cut", 120, 12],
        ["bell", 600, -2, 0.8],
        ["high cut", 8000, 12],
      ]),
      set("chorus", { rate: 0.28, depth: 22, wet: -9 }),
      set("hall", { decay: 2.8, wet: -20 }),
    ],
  ),
  ofChain(
    {
      name: "Vibraphone, motor on",
      folder: "Keys and mallets",
      for: "Mallets",
      tags: "moving",
      rating: 4,
      of: ["ebb", "Vibraphone"],
      saved: "2025-04-10",
      used: "2025-05-06",
    },
    [
      eq([
        ["low cut", 110, 12],
        ["bell", 2200, -1.5, 1.4],
      ]),
      set("tremolo", { rate: 4.6, depth: 32, spread: 90 }),
      set("plate", { decay: 2, wet: -18 }),
    ],
    [[1, "depth", 60]],
  ),
  ofChain(
    {
      name: "Vibraphone, bowed",
      folder: "Keys and mallets",
      for: "Mallets",
      tags: "open soft",
      rating: 4,
      of: ["ebb", "Bowed bars"],
      saved: "2025-04-11",
      used: "2025-05-06",
    },
    [
      eq([
        ["low cut", 180, 12],
        ["bell", 3200, -2, 1.5],
      ]),
      comp(-26, 2, { attack: 50, release: 500 }),
      set("hall", { decay: 3.8, predelay: 12, wet: -14 }),
    ],
  ),
  ofChain(
    {
      name: "Vibraphone, dead strokes",
      folder: "Keys and mallets",
      for: "Mallets",
      tags: "tight",
      rating: 2,
      of: ["slack", "Vibraphone"],
      saved: "2023-08-22",
      used: "2023-09-04",
    },
    [
      eq([
        ["low cut", 140, 12],
        ["bell", 1500, 2, 1],
      ]),
      set("gate", { threshold: -34, range: -30, hold: 60, release: 90 }),
    ],
  ),
  ofChain(
    {
      name: "Modular low end",
      folder: "Keys and mallets",
      for: "Bass",
      tags: "tight",
      rating: 4,
      of: ["ebb", "Patch bass"],
      saved: "2025-04-12",
      used: "2025-05-06",
    },
    [
      eq([
        ["low cut", 30, 24],
        ["bell", 90, 1.5, 1.2],
        ["bell", 320, -3, 1],
      ]),
      set("fet-compressor", { threshold: -20, attack: 1.2, release: 70, colour: 45 }),
      set("stereo-width", { monoBelow: 160 }),
    ],
    [[1, "colour", 10]],
    [[0, "band2.gain", 4]],
  ),
  ofChain(
    {
      name: "Modular line, filtered by hand",
      folder: "Keys and mallets",
      for: "Keys",
      tags: "moving dark",
      rating: 3,
      of: ["ebb", "Patch line"],
      saved: "2025-04-13",
      used: "2025-05-06",
    },
    [
      set("tilt-eq", { tilt: -3, pivot: 900 }),
      set("phaser", { rate: 0.09, depth: 75, stages: 8, mix: 45 }),
      set("echo", { wet: -15, feedback: 30 }),
    ],
  ),
  ofChain(
    {
      name: "Noise, breathing",
      folder: "Keys and mallets",
      for: "Keys",
      tags: "wide moving tempo-locked",
      rating: 3,
      of: ["ebb", "Patch noise"],
      saved: "2025-04-14",
      used: "2025-05-06",
    },
    [
      eq([
        ["low cut", 500, 12],
        ["high cut", 9000, 12],
      ]),
      set("tremolo", { rate: note("1/2"), depth: 80, spread: 50 }),
      set("stereo-width", { width: 150, monoBelow: 250 }),
    ],
  ),
  ofChain(
    {
      name: "Slack Water keys",
      folder: "Keys and mallets",
      for: "Keys",
      tags: "warm",
      rating: 3,
      of: ["slack", "Keys"],
      saved: "2023-08-23",
      used: "2023-09-04",
    },
    [
      set("tape", { drive: 5, speed: 0, output: -1.5 }),
      set("chorus", { rate: 0.5, depth: 30, wet: -8 }),
      eq([["high cut", 6500, 12]]),
    ],
  ),
  ofPlugin(
    {
      name: "Electric piano, worn hammers",
      folder: "Keys and mallets",
      for: "Keys",
      tags: "warm soft",
      rating: 4,
      of: ["ebb", "Keys"],
      saved: "2025-04-15",
      used: "2025-05-06",
    },
    set("electric-piano", { tone: 30, bell: 14, touch: 75, ring: 3.2, spread: 55 }),
    { bell: 40 },
  ),
  ofPlugin(
    {
      name: "Pad, harbour fog",
      folder: "Keys and mallets",
      for: "Keys",
      tags: "wide soft",
      rating: 5,
      of: ["ebb", "Pad"],
      saved: "2025-04-16",
      used: "2025-05-06",
    },
    set("pad-synth", { cutoff: 1100, attack: 1400, release: 3200, motion: 45, detune: 48 }),
    { attack: 600 },
    { cutoff: 2400 },
  ),
  ofPlugin(
    {
      name: "Sub that follows",
      folder: "Keys and mallets",
      for: "Bass",
      tags: "tight",
      rating: 3,
      of: ["slack", "Bass"],
      saved: "2023-08-24",
    },
    set("bass-synth", { cutoff: 240, resonance: 8, sweep: 12, sub: 80, sustain: 85, release: 160 }),
  ),
  ofPlugin(
    {
      name: "Wooden bars, soft yarn",
      folder: "Keys and mallets",
      for: "Mallets",
      tags: "soft",
      rating: 4,
      of: ["neap", "Mallets"],
      saved: "2026-11-16",
    },
    set("mallets", { bar: 1, hardness: 28, ring: 1.4 }),
  ),

  ofChain(
    {
      name: "Frame drum, brushed",
      folder: "Percussion",
      for: "Percussion",
      tags: "soft",
      rating: 3,
      of: ["ferry", "Frame drum close", drum],
      saved: "2026-09-17",
      used: "2026-10-02",
    },
    [
      eq([
        ["low cut", 60, 12],
        ["bell", 420, -3, 1.2],
        ["high shelf", 7000, 3, 0.7],
      ]),
      comp(-26, 3, { attack: 28, release: 110 }),
    ],
  ),
  ofChain(
    {
      name: "Frame drum, one big hit",
      folder: "Percussion",
      for: "Percussion",
      tags: "rough",
      rating: 4,
      of: ["reeds", "Drum", drum],
      saved: "2021-02-14",
      used: "2026-10-02",
    },
    [
      eq([
        ["bell", 75, 3, 1],
        ["bell", 350, -4, 1],
      ]),
      comp(-28, 6, { attack: 35, release: 60 }),
      set("tape", { drive: 9, bump: 3, output: -4 }),
      set("room", { decay: 1.1, wet: -12 }),
    ],
    [[2, "drive", 4]],
  ),
  ofChain(
    {
      name: "Frame drum, parallel weight",
      folder: "Percussion",
      for: "Percussion",
      tags: "rough tight",
      rating: 3,
      of: ["ferry", "Drum", drum],
      saved: "2026-09-18",
    },
    [
      comp(-34, 8, { attack: 1.5, release: 50, mix: 35 }),
      set("overdrive", { drive: 12, tight: 90, mix: 20, output: -2 }),
    ],
  ),
  ofChain(
    {
      name: "Clock ticks, left behind",
      folder: "Percussion",
      for: "Percussion",
      tags: "thin tempo-locked",
      rating: 3,
      of: ["ebb", "Clock ticks"],
      saved: "2025-04-17",
      used: "2025-05-06",
    },
    [
      eq([
        ["low cut", 700, 24],
        ["bell", 4200, 3, 1.2],
      ]),
      delay(
        [
          [note("1/16"), -5, -80],
          [note("3/16"), -9, 80],
        ],
        { wet: -10, feedback: 20 },
      ),
    ],
  ),
  ofChain(
    {
      name: "Machine drums, cold room",
      folder: "Percussion",
      for: "Percussion",
      tags: "dark tight",
      rating: 3,
      of: ["slack", "Drums"],
      saved: "2023-08-25",
      used: "2023-09-04",
    },
    [
      set("fet-compressor", { threshold: -26, ratio: 8, attack: 0.2, release: 60, colour: 60, mix: 50 }),
      set("tilt-eq", { tilt: -2 }),
      set("room", { decay: 0.9, damping: 2500, wet: -14 }),
    ],
  ),
  ofPlugin(
    {
      name: "Drum kit, quay side",
      folder: "Percussion",
      for: "Percussion",
      tags: "close",
      rating: 3,
      of: ["slack", "Drums"],
      saved: "2023-08-25",
    },
    set("drum-kit", { kickTune: 46, kickDecay: 280, snareTune: 168, snareWires: 48, hatDecay: 40 }),
  ),
  ofPlugin(
    {
      name: "Spill gate, open early",
      folder: "Percussion",
      for: "Percussion",
      tags: "tight",
      rating: 4,
      of: ["salt", "Frame drum close", drum],
      saved: "2026-11-22",
      used: "2026-11-24",
    },
    set("gate", { threshold: -41, range: -20, attack: 0.2, hold: 90, release: 220, detector: 80 }),
    { range: -60 },
  ),
  ofPlugin(
    {
      name: "Skin compressor",
      folder: "Percussion",
      for: "Percussion",
      tags: "tight",
      rating: 3,
      of: ["reeds", "Drum", drum],
      saved: "2021-02-14",
    },
    set("fet-compressor", { threshold: -22, ratio: 4, attack: 0.8, release: 95, colour: 25 }),
  ),

  ofChain(
    {
      name: "Trumpets, spit removed",
      folder: "Brass",
      for: "Brass",
      tags: "smooth",
      rating: 3,
      of: ["psalm", "Trumpets"],
      saved: "2025-11-11",
      used: "2025-12-01",
    },
    [
      eq([
        ["low cut", 150, 12],
        ["bell", 2400, -2, 1.4],
        ["bell", 5600, -3, 2],
      ]),
      set("de-esser", { freq: 5400, threshold: -28, range: -5 }),
    ],
  ),
  ofChain(
    {
      name: "Horn, round and back",
      folder: "Brass",
      for: "Brass",
      tags: "warm dark",
      rating: 4,
      of: ["psalm", "Horn"],
      saved: "2025-11-11",
      used: "2025-12-01",
    },
    [
      eq([
        ["low shelf", 220, 2, 0.7],
        ["high shelf", 4500, -3, 0.7],
      ]),
      set("hall", { decay: 2.4, predelay: 8, wet: -16 }),
    ],
    [[1, "wet", -10]],
  ),
  ofChain(
    {
      name: "Tuba, pitch you can follow",
      folder: "Brass",
      for: "Brass",
      tags: "tight",
      rating: 3,
      of: ["psalm", "Tuba"],
      saved: "2025-11-12",
      used: "2025-12-01",
    },
    [
      eq([
        ["low cut", 38, 18],
        ["bell", 120, -2, 1.2],
        ["bell", 620, 2.5, 1],
      ]),
      comp(-20, 3, { attack: 22, release: 140 }),
    ],
  ),
  ofChain(
    {
      name: "Trombone, slide left in",
      folder: "Brass",
      for: "Brass",
      tags: "open",
      rating: 2,
      of: ["slate", "Trombone"],
      saved: "2026-11-09",
    },
    [
      eq([
        ["low cut", 70, 12],
        ["bell", 1300, -1.5, 1],
      ]),
      off(comp(-18, 3)),
    ],
  ),
  ofChain(
    {
      name: "Quintet outdoors",
      folder: "Brass",
      for: "Brass",
      tags: "wide",
      rating: 3,
      of: ["bells", "Quintet"],
      saved: "2020-12-06",
      used: "2020-12-20",
    },
    [
      eq([
        ["low cut", 90, 12],
        ["bell", 1800, -2, 1],
      ]),
      called(
        "Hillside",
        delay(
          [
            [95, -10, -60],
            [140, -14, 60],
          ],
          { feedback: 10, damping: 2600, wet: -12 },
        ),
      ),
    ],
  ),
  ofStrip(
    {
      name: "Horn strip, psalm",
      folder: "Brass",
      for: "Brass",
      tags: "warm",
      rating: 3,
      of: ["psalm", "Horn"],
      saved: "2025-12-01",
    },
    ["audio", "Horn", -4, 10],
    eq([["low shelf", 220, 2, 0.7]]),
    set("hall", { decay: 2.4, predelay: 8, wet: -16 }),
  ),
  ofPlugin(
    {
      name: "Brass bus tape",
      folder: "Brass",
      for: "Bus",
      tags: "warm",
      rating: 4,
      of: ["psalm", "Quintet"],
      saved: "2025-11-12",
      used: "2025-12-01",
    },
    set("tape", { drive: 4, bump: 1, bias: 60, output: -1 }),
  ),
];
