import { called, comp, delay, eq, note, off, set } from "@/core/packs/writing";
import { held, ofChain, ofPlugin, ofStrip } from "./rows";

const ines = { performer: "Ines Maréchal", microphone: "ribbon, a hand away" };
const tomas = { performer: "Tomas Quill", microphone: "large condenser" };

/** Voices: sung, spoken, in choir. */
export const VOICES = [
  ofChain(
    {
      name: "Heron voice, verses",
      folder: "Voices",
      for: "Voice",
      tags: "close soft",
      rating: 4,
      of: ["ferry", "Voice", { performer: "Maud Ferrier" }],
      saved: "2026-09-14",
      used: "2026-10-02",
    },
    [
      eq([
        ["low cut", 85, 18],
        ["bell", 260, -2.5, 1.1],
        ["bell", 3100, 1.2, 0.9],
      ]),
      set("opto-compressor", { threshold: -25, ratio: 3 }),
      held("Maud's esses", 2, set("de-esser", { freq: 6800, threshold: -34, range: -7, ratio: 5 })),
    ],
    [[1, "threshold", -21]],
    [
      [1, "threshold", -23],
      [0, "band3.gain", 0],
    ],
  ),
  ofChain(
    {
      name: "Heron voice, choruses lifted",
      folder: "Voices",
      for: "Voice",
      tags: "forward",
      rating: 5,
      of: ["ferry", "Voice", { performer: "Maud Ferrier" }],
      saved: "2026-09-15",
      used: "2026-10-02",
    },
    [
      eq([
        ["low cut", 100, 18],
        ["bell", 260, -3, 1.1],
        ["bell", 3400, 2.5, 0.8],
        ["high shelf", 9500, 2, 0.7],
      ]),
      set("fet-compressor", { threshold: -19, attack: 0.3, release: 85, colour: 35 }),
      comp(-22, 3, { attack: 12, release: 140 }),
      set("de-esser", { freq: 7000, threshold: -30, range: -7 }),
    ],
    [
      [1, "colour", 10],
      [2, "ratio", 2],
    ],
  ),
  ofChain(
    {
      name: "Whispered double",
      folder: "Voices",
      for: "Voice",
      tags: "soft wide",
      rating: 3,
      of: ["ferry", "Voice double"],
      saved: "2026-09-16",
    },
    [
      eq([
        ["low cut", 220, 18],
        ["high shelf", 6000, 3, 0.7],
      ]),
      set("opto-compressor", { threshold: -32, ratio: 5, release: 700 }),
      delay(
        [
          [14, -3, -80],
          [21, -3, 80],
        ],
        { feedback: 0, wet: -8 },
      ),
    ],
  ),
  ofChain(
    {
      name: "Voice through reeds",
      folder: "Voices",
      for: "Voice",
      tags: "warm",
      rating: 2,
      of: ["reeds", "Voice"],
      saved: "2021-02-11",
      used: "2021-03-01",
    },
    [
      eq([
        ["low cut", 95, 12],
        ["bell", 700, -2, 0.8],
        ["high cut", 9000, 12],
      ]),
      set("tube", { drive: 9, mix: 80 }),
    ],
  ),
  ofChain(
    {
      name: "Old desk voice",
      folder: "Voices",
      for: "Voice",
      tags: "warm",
      rating: 3,
      of: ["reeds", "Voice"],
      saved: "2021-02-12",
      used: "2022-06-20",
      notes: "The way it was done before the room was treated.",
    },
    [
      set("console-eq", { lowCut: 90, "lowMid.gain": -2.5, "lowMid.freq": 340, "high.gain": 3 }),
      set("vca-compressor", { threshold: -20, ratio: 4, attack: 6, release: 90 }),
    ],
  ),
  ofStrip(
    {
      name: "Voice strip, Ferry Light",
      folder: "Voices",
      for: "Voice",
      tags: "forward",
      rating: 4,
      of: ["ferry", "Voice"],
      saved: "2026-09-30",
      used: "2026-10-02",
    },
    ["audio", "Voice", -1.5, 0],
    eq([
      ["low cut", 95, 18],
      ["bell", 3300, 2, 0.8],
    ]),
    comp(-23, 3, { attack: 10, release: 150 }),
    set("plate", { decay: 1.3, predelay: 30, wet: -19 }),
  ),
  ofPlugin(
    {
      name: "Maud's esses",
      folder: "Voices",
      for: "Voice",
      tags: "smooth",
      rating: 4,
      of: ["ferry", "Voice"],
      saved: "2026-09-14",
      used: "2026-10-02",
    },
    set("de-esser", { freq: 7250, threshold: -34, range: -7, ratio: 5 }),
    { threshold: -30 },
    { freq: 6800 },
  ),
  ofPlugin(
    {
      name: "Voice plate, words in front",
      folder: "Voices",
      for: "Voice",
      tags: "return open",
      rating: 4,
      of: ["ferry", "Plate"],
      saved: "2026-09-20",
      used: "2026-10-02",
    },
    set("plate", { decay: 1.6, predelay: 42, lowCut: 240, damping: 5200, dry: -60, wet: 0 }),
  ),
  ofChain(
    {
      name: "Rope walk narrator",
      folder: "Voices/Narration",
      for: "Narration",
      tags: "close gentle",
      rating: 5,
      of: ["rope", "Narrator", ines],
      saved: "2026-03-04",
      used: "2026-03-19",
    },
    [
      eq([
        ["low cut", 85, 18],
        ["bell", 310, -3, 1.2],
        ["bell", 2800, 1, 1],
      ]),
      set("expander", { threshold: -46, range: -9, ratio: 1.8 }),
      set("opto-compressor", { threshold: -27, ratio: 3, release: 800 }),
      set("de-esser", { freq: 6300, threshold: -32, range: -6 }),
    ],
    [[2, "ratio", 2]],
    [[1, "range", -18]],
    [[3, "range", -10]],
  ),
  ofChain(
    {
      name: "Second narrator, same booth",
      folder: "Voices/Narration",
      for: "Narration",
      tags: "close",
      rating: 3,
      of: ["rope", "Old ropemaker", tomas],
      saved: "2026-03-04",
      used: "2026-03-19",
    },
    [
      eq([
        ["low cut", 75, 18],
        ["bell", 180, -2, 1],
        ["bell", 4200, 1.5, 0.9],
      ]),
      set("opto-compressor", { threshold: -24, ratio: 3 }),
    ],
  ),
  ofChain(
    {
      name: "Narrator outdoors, wind kept down",
      folder: "Voices/Narration",
      for: "Narration",
      tags: "clean",
      rating: 2,
      of: ["rope", "Narrator, quay"],
      saved: "2026-03-06",
      used: "2026-03-19",
    },
    [
      eq([
        ["low cut", 150, 36],
        ["bell", 420, -3, 1.4],
        ["high shelf", 8500, -2, 0.7],
      ]),
      set("multiband-compressor", { "low.threshold": -36, "low.ratio": 5, "low.release": 90 }),
      comp(-26, 3),
    ],
  ),
  ofChain(
    {
      name: "Child guide, gently",
      folder: "Voices/Narration",
      for: "Narration",
      tags: "gentle",
      rating: 3,
      of: ["mill", "Child guide"],
      saved: "2026-11-18",
      used: "2026-11-24",
    },
    [
      eq([
        ["low cut", 140, 12],
        ["bell", 3800, -2.5, 1.6],
      ]),
      set("opto-compressor", { threshold: -22, ratio: 2 }),
    ],
  ),
  ofChain(
    {
      name: "Letter being read",
      folder: "Voices/Narration",
      for: "Narration",
      tags: "close soft",
      rating: 4,
      of: ["mill", "The letter", ines],
      saved: "2026-11-19",
      used: "2026-11-24",
    },
    [
      eq([
        ["low cut", 65, 12],
        ["low shelf", 170, 1.5, 0.7],
        ["high cut", 12_000, 12],
      ]),
      set("opto-compressor", { threshold: -29, ratio: 4, release: 1300 }),
      set("room", { decay: 0.3, wet: -24 }),
    ],
  ),
  ofPlugin(
    {
      name: "Booth gaps",
      folder: "Voices/Narration",
      for: "Narration",
      tags: "gentle",
      rating: 3,
      of: ["rope", "Narrator", ines],
      saved: "2026-03-04",
    },
    set("expander", { threshold: -47, ratio: 1.7, range: -8, release: 320 }),
  ),
  ofPlugin(
    {
      name: "Narration leveller",
      folder: "Voices/Narration",
      for: "Narration",
      tags: "gentle smooth",
      rating: 4,
      of: ["mill", "Narrator", ines],
      saved: "2025-06-02",
      used: "2026-11-24",
    },
    set("opto-compressor", { threshold: -26, ratio: 3, release: 900 }),
    { threshold: -22, release: 1200 },
  ),
  ofChain(
    {
      name: "Sopranos, edge eased",
      folder: "Voices/Choir",
      for: "Choir",
      tags: "smooth",
      rating: 4,
      of: ["psalm", "Soprano"],
      saved: "2025-11-08",
      used: "2025-12-01",
    },
    [
      eq([
        ["low cut", 160, 12],
        ["bell", 2900, -3.5, 1.6],
        ["bell", 6200, -1.5, 1.2],
      ]),
      set("opto-compressor", { threshold: -20, ratio: 2, release: 1000 }),
    ],
    [[0, "band2.gain", -6]],
  ),
  ofChain(
    {
      name: "Altos, body back",
      folder: "Voices/Choir",
      for: "Choir",
      tags: "warm",
      rating: 4,
      of: ["psalm", "Alto"],
      saved: "2025-11-08",
      used: "2025-12-01",
    },
    [
      eq([
        ["low cut", 110, 12],
        ["low shelf", 240, 2, 0.7],
        ["bell", 1100, -1.5, 1],
      ]),
    ],
  ),
  ofChain(
    {
      name: "Tenors in the nave",
      folder: "Voices/Choir",
      for: "Choir",
      tags: "open",
      rating: 3,
      of: ["psalm", "Tenor"],
      saved: "2025-11-08",
      used: "2025-12-01",
    },
    [
      eq([
        ["low cut", 100, 12],
        ["bell", 520, -2, 1],
      ]),
      set("hall", { decay: 2.2, predelay: 20, wet: -24 }),
    ],
  ),
  ofChain(
    {
      name: "Basses, floor only",
      folder: "Voices/Choir",
      for: "Choir",
      tags: "warm",
      rating: 4,
      of: ["psalm", "Bass"],
      saved: "2025-11-09",
      used: "2025-12-01",
    },
    [
      eq([
        ["low cut", 55, 12],
        ["low shelf", 130, 2.5, 0.7],
        ["bell", 380, -2, 1.1],
      ]),
      comp(-22, 2, { attack: 30, release: 260 }),
    ],
  ),
  ofChain(
    {
      name: "Whole choir, one wall",
      folder: "Voices/Choir",
      for: "Choir",
      tags: "wide gentle",
      rating: 5,
      of: ["psalm", "Choir"],
      saved: "2025-11-10",
      used: "2025-12-01",
    },
    [
      eq([
        ["low cut", 80, 12],
        ["bell", 450, -1.5, 0.7],
        ["high shelf", 10_000, 1.5, 0.7],
      ]),
      comp(-22, 1.8, { attack: 35, release: 320, knee: 12 }),
      set("stereo-width", { width: 115 }),
    ],
    [[1, "ratio", 2.5]],
    [[2, "width", 140]],
  ),
  ofChain(
    {
      name: "Bells Under Hill, far voices",
      folder: "Voices/Choir",
      for: "Choir",
      tags: "wide dark",
      rating: 3,
      of: ["bells", "Choir"],
      saved: "2020-12-05",
      used: "2020-12-20",
    },
    [
      eq([
        ["low cut", 130, 12],
        ["high cut", 7000, 12],
      ]),
      set("hall", { decay: 4.5, predelay: 10, wet: -6 }),
    ],
  ),
  ofStrip(
    {
      name: "Choir group, psalm",
      folder: "Voices/Choir",
      for: "Choir",
      tags: "wide",
      rating: 4,
      of: ["psalm", "Choir"],
      saved: "2025-12-01",
      used: "2025-12-01",
    },
    ["group", "Choir", -1.5, 0],
    eq([
      ["low cut", 80, 12],
      ["bell", 450, -1.5, 0.7],
    ]),
    comp(-22, 1.8, { attack: 35, release: 320 }),
  ),
  ofPlugin(
    {
      name: "Nave, three seconds",
      folder: "Voices/Choir",
      for: "Choir",
      tags: "return wide",
      rating: 5,
      of: ["psalm", "Nave"],
      saved: "2025-11-10",
      used: "2025-12-01",
    },
    set("hall", { decay: 3.1, predelay: 38, lowCut: 150, damping: 3800, dry: -60, wet: 0 }),
    { decay: 2.4 },
    { decay: 3.6, damping: 5200 },
  ),
  ofChain(
    {
      name: "Radio play voice",
      folder: "Voices",
      for: "Voice",
      tags: "rough",
      rating: 2,
      of: ["mill", "The miller", tomas],
      saved: "2024-05-14",
    },
    [
      eq([
        ["low cut", 350, 24],
        ["bell", 1800, 3, 1],
        ["high cut", 4000, 24],
      ]),
      called("Paper cone", set("overdrive", { drive: 15, mix: 45 })),
      off(set("phaser", { rate: 0.1, mix: 25 })),
      delay([[note("1/16"), -14, 0]], { wet: -20, feedback: 5 }),
    ],
  ),
];
