import { comp, delay, eq, note, set } from "@/core/packs/writing";
import { ofChain, ofPlugin, ofStrip } from "./rows";

/** What every library has: sounds saved in a hurry, sounds saved twice, and sounds that were never finished. */
export const UNFINISHED = [
  ofChain({ name: "Untitled", folder: "Anywhere", for: "", saved: "2026-10-14" }, [
    eq([
      ["low cut", 60, 12],
      ["bell", 1200, -2, 1],
    ]),
    comp(-20, 2),
  ]),
  ofChain({ name: "Untitled 2", folder: "Anywhere", for: "", saved: "2026-10-14" }, [comp(-26, 4, { attack: 5 })]),
  ofChain({ name: "New sound 7", folder: "Anywhere", for: "", of: ["ferry", "Harmonium"], saved: "2026-09-13" }, [
    eq([
      ["low cut", 90, 18],
      ["bell", 210, -2, 1.2],
    ]),
    set("hall", { decay: 2, wet: -20 }),
  ]),
  ofPlugin({ name: "comp", folder: "Anywhere", for: "", saved: "2024-02-02" }, comp(-18, 3, { attack: 12 })),
  ofPlugin({ name: "comp 2", folder: "Anywhere", for: "", saved: "2024-02-02" }, comp(-18, 3, { attack: 12.5 })),
  ofPlugin(
    { name: "asdf", folder: "Anywhere", for: "", saved: "2023-08-25", of: ["slack", "Drums"] },
    set("gate", { threshold: -36, range: -40 }),
  ),
  ofPlugin({ name: "test", folder: "Anywhere", for: "", saved: "2022-03-30" }, set("phaser", { rate: 1.2, mix: 60 })),
  ofChain(
    {
      name: "vox final FINAL",
      folder: "Voices",
      for: "Voice",
      of: ["reeds", "Voice"],
      saved: "2021-03-01",
      used: "2021-03-01",
    },
    [
      eq([
        ["low cut", 92, 12],
        ["bell", 690, -2, 0.8],
        ["high cut", 9200, 12],
      ]),
      set("tube", { drive: 9, mix: 78 }),
    ],
  ),
  ofChain({ name: "Copy of drums", folder: "Percussion", for: "", of: ["slack", "Drums"], saved: "2023-09-01" }, [
    set("fet-compressor", { threshold: -26, ratio: 8, attack: 0.2, release: 60, colour: 60, mix: 50 }),
    set("tilt-eq", { tilt: -2 }),
    set("room", { decay: 0.9, damping: 2500, wet: -13.5 }),
  ]),
  ofPlugin(
    { name: "Preset 12", folder: "Delays", for: "", saved: "2022-11-05" },
    delay(
      [
        [note("1/8", "dotted"), -2, -48],
        [note("1/4"), -6, 50],
      ],
      { dry: -60, wet: 0, feedback: 23, damping: 3800 },
    ),
  ),
  ofPlugin(
    { name: "eq for that horn", folder: "Brass", for: "", of: ["slate", "Horn"], saved: "2026-11-09" },
    eq([
      ["low shelf", 210, 2, 0.7],
      ["high shelf", 4500, -2.5, 0.7],
    ]),
  ),
  ofPlugin(
    {
      name: "Narration leveller (old)",
      folder: "Voices/Narration",
      for: "Narration",
      of: ["mill", "Narrator"],
      saved: "2025-06-02",
    },
    set("opto-compressor", { threshold: -25.5, ratio: 3, release: 900 }),
  ),
  ofPlugin(
    { name: "Skin comp", folder: "Percussion", for: "Percussion", saved: "2021-03-02" },
    set("fet-compressor", { threshold: -22, ratio: 4, attack: 0.8, release: 95, colour: 25 }),
  ),
  ofStrip(
    { name: "Audio 3", folder: "Anywhere", for: "", of: ["rope", "Audio 3"], saved: "2026-03-09" },
    ["audio", "Audio 3", -6, 0],
    eq([["low cut", 150, 24]]),
  ),
  ofStrip(
    { name: "strip", folder: "Anywhere", for: "", saved: "2020-12-06" },
    ["audio", "strip", -3, 20],
    comp(-20, 3),
  ),
  ofPlugin(
    { name: "name later", folder: "Anywhere", for: "", saved: "2019-09-09" },
    set("flanger", { rate: 0.9, feedback: 70, mix: 50 }),
  ),
];
