import type { Project } from "@/core/projects/project";
import { CLEANED, cleanedDown } from "@/core/recall/arrange";
import { chain, comp, delay, eq, note, set } from "@/core/packs/writing";
import { layerOf } from "@/core/strips/parts/source";
import { EARLIER_PROJECTS } from "./earlier-projects";
import { kept, project } from "./project";
import { QUAY_VIBRAPHONE } from "./wired-presets";

const SONGS: readonly (readonly [changed: string, project: Project])[] = [
  [
    "2026-11-24T18:00:00.000Z",
    project({ id: "salt-lanterns", name: "Salt Lanterns", artist: "Copper Heron", tempo: 92, key: "D minor" }, [
      {
        id: "strings",
        icon: "strings",
        colour: "ochre",
        keyedBy: { 1: "voice" },
        kind: "group",
        name: "Strings",
        fader: -2,
        inserts: chain(
          eq([
            ["low cut", 35, 12],
            ["bell", 280, -1.5, 0.8],
          ]),
          comp(-14, 1.8, { attack: 30, release: 200 }),
        ),
      },
      {
        id: "nyckelharpa",
        sends: { eighths: -22 },
        name: "Nyckelharpa",
        to: "strings",
        input: "In 1",
        fader: -3,
        pan: -12,
        inserts: kept("nyckelharpa-kept"),
      },
      { id: "cello", sends: { echo: -24 }, name: "Cello", to: "strings", input: "In 2", fader: -4.5, pan: 15 },
      {
        id: "harmonium",
        icon: "keys",
        sends: { echo: -20 },
        name: "Harmonium",
        input: "In 3–4",
        stereo: true,
        fader: -6,
        inserts: kept("harmonium-softened", [[0, "band2.gain", -6]]),
      },
      {
        id: "drum",
        icon: "percussion",
        colour: "madder",
        kind: "group",
        name: "Drum",
        fader: -2.5,
        inserts: chain(comp(-16, 3, { attack: 25, release: 80 })),
      },
      {
        id: "drum-close",
        name: "Frame drum close",
        to: "drum",
        input: "In 5",
        fader: -1.5,
        inserts: kept("frame-drum-close"),
      },
      {
        id: "drum-rim",
        sends: { eighths: -16 },
        name: "Frame drum rim",
        to: "drum",
        input: "In 6",
        fader: -8,
        pan: 30,
        inserts: kept("rim-and-air"),
      },
      {
        id: "drum-far",
        name: "Frame drum far",
        to: "drum",
        input: "In 7–8",
        stereo: true,
        fader: -10,
        inserts: kept("room-pair-far", [
          [1, "threshold", -26],
          [1, "ratio", 3],
        ]),
      },
      {
        id: "voice",
        icon: "voice",
        colour: "verdigris",
        sends: { eighths: -17, echo: -21 },
        name: "Voice",
        input: "In 9",
        fader: -1,
        inserts: kept("voice-forward", [[2, "threshold", -24]]),
      },
      { id: "eighths", kind: "return", name: "Eighths", fader: -7, inserts: kept("eighths-left-right") },
      {
        id: "echo",
        kind: "return",
        name: "Long echo",
        fader: -11,
        inserts: chain(delay([[note("1/2"), 0, 0]], { dry: -60, wet: 0, feedback: 50, damping: 1500 })),
      },
      { id: "main", kind: "main", name: "Main", fader: 0, inserts: kept("main-quiet-hand") },
    ]),
  ],
  [
    "2026-11-20T10:00:00.000Z",
    project({ id: "neap-tide", name: "Neap Tide", artist: "Tidal Clocks", tempo: 118, key: "F lydian" }, [
      { id: "mallets", colour: "verdigris", kind: "group", name: "Mallets", fader: -1.5 },
      {
        id: "vibes-low",
        sends: { eighths: -19 },
        name: "Vibraphone low",
        to: "mallets",
        input: "In 1",
        fader: -2,
        pan: -25,
        inserts: kept("vibraphone-halo"),
      },
      {
        id: "vibes-high",
        sends: { eighths: -15 },
        name: "Vibraphone high",
        to: "mallets",
        input: "In 2",
        fader: -3.5,
        pan: 25,
        inserts: kept("vibraphone-halo", [[1, "wet", -14]]),
      },
      { id: "bowed-bars", name: "Bowed bars", to: "mallets", input: "In 3", fader: -9, pan: 10 },
      { id: "patch-bass", name: "Patch bass", input: "In 5", fader: -3, inserts: kept("patch-bass-held") },
      {
        id: "patch-line",
        presends: { eighths: -24 },
        name: "Patch line",
        input: "In 6",
        fader: -6.5,
        pan: -8,
        inserts: chain(
          eq([
            ["low cut", 200, 12],
            ["bell", 1500, 3, 1.2],
          ]),
        ),
      },
      { id: "patch-noise", name: "Patch noise", input: "In 7–8", stereo: true, fader: -14 },
      {
        id: "ghost-vibes",
        sends: { eighths: -12 },
        kind: "instrument",
        name: "Ghost vibraphone",
        to: "mallets",
        fader: -11,
        layers: QUAY_VIBRAPHONE,
        inserts: kept("quay-vibraphone"),
      },
      {
        id: "quay-kit",
        icon: "percussion",
        kind: "instrument",
        name: "Quay kit",
        fader: -10,
        layers: [layerOf(set("drum-kit", { kickTune: 46, kickDecay: 280, snareTune: 168, hatDecay: 40 }))],
      },
      {
        id: "kit-snare",
        name: "Kit snare",
        outputOf: ["quay-kit", 2],
        sends: { eighths: -18 },
        fader: -11,
        inserts: chain(comp(-18, 3, { attack: 12, release: 90 })),
      },
      { id: "kit-hats", name: "Kit hats", outputOf: ["quay-kit", 3], fader: -16, pan: -30 },
      {
        id: "clock-ticks",
        name: "Clock ticks",
        input: "In 9",
        fader: -12,
        pan: 40,
        inserts: chain(
          eq([["low cut", 600, 24]]),
          delay(
            [
              [note("1/16"), -6, -70],
              [note("1/8"), -9, 70],
            ],
            { wet: -12, feedback: 15 },
          ),
        ),
      },
      {
        id: "eighths",
        kind: "return",
        name: "Eighths",
        fader: -8,
        inserts: kept("eighths-left-right", [[0, "feedback", 40]]),
      },
      { id: "main", kind: "main", name: "Main", fader: -0.5, inserts: chain(comp(-10, 1.5, { attack: 30, knee: 10 })) },
    ]),
  ],
  [
    "2026-11-24T16:30:00.000Z",
    project({ id: "tidemill-tour", name: "The Tidemill tour", artist: "Moss & Meridian", tempo: 60 }, [
      {
        id: "narrator",
        icon: "voice",
        sends: { gallery: -26 },
        name: "Narrator",
        input: "In 1",
        fader: 0,
        inserts: kept("narrator-close", [
          [0, "band2.gain", -9],
          [2, "wet", -30],
        ]),
      },
      {
        id: "miller",
        sends: { gallery: -14 },
        name: "The miller",
        input: "In 2",
        fader: -1.5,
        pan: -10,
        inserts: kept("telephone-tour"),
      },
      {
        id: "captions",
        colour: "ochre",
        name: "Captions",
        input: "In 1",
        fader: -2,
        inserts: chain(comp(-30, 6, { attack: 6, release: 90 })),
      },
      { id: "wheel", icon: "water", name: "Mill wheel", input: "Field 1–2", stereo: true, fader: -11 },
      {
        id: "water",
        name: "Water, below the sluice",
        input: "Field 3–4",
        stereo: true,
        fader: -16,
        inserts: chain(
          eq([
            ["low cut", 90, 12],
            ["high shelf", 5000, -3],
          ]),
          comp(-28, 3, { attack: 40, release: 600, knee: 12 }),
        ),
        keyedBy: { 1: "narrator" },
      },
      { id: "steps", presends: { gallery: -10 }, name: "Steps on the stair", input: "Field 5", fader: -13, pan: 22 },
      { id: "gallery", kind: "return", name: "Gallery", fader: -9, inserts: kept("gallery-echo") },
      { id: "main", kind: "main", name: "Main", fader: 0 },
    ]),
  ],
  [
    "2026-11-11T18:30:00.000Z",
    project({ id: "slate-and-rain", name: "Slate and Rain", artist: "The Quarry Choir", tempo: 72, key: "G minor" }, [
      {
        id: "choir",
        icon: "voice",
        colour: "verdigris",
        kind: "group",
        name: "Choir",
        fader: -1,
        inserts: kept("choir-four-parts"),
      },
      { id: "soprano", name: "Soprano", to: "choir", input: "In 1", fader: -3, pan: -45 },
      { id: "alto", name: "Alto", to: "choir", input: "In 2", fader: -2.5, pan: -15 },
      { id: "tenor", name: "Tenor", to: "choir", input: "In 3", fader: -2.5, pan: 15 },
      {
        id: "bass",
        name: "Bass",
        to: "choir",
        input: "In 4",
        fader: -2,
        pan: 45,
        inserts: chain(eq([["low shelf", 110, 2]])),
      },
      {
        id: "quintet",
        icon: "brass",
        colour: "ochre",
        kind: "group",
        name: "Quintet",
        fader: -2,
        inserts: kept("quintet-blend"),
      },
      {
        id: "trumpets",
        name: "Trumpets",
        to: "quintet",
        input: "In 5–6",
        stereo: true,
        fader: -5,
        pan: -20,
        inserts: chain(comp(-16, 8, { attack: 2, release: 60, knee: 2 })),
      },
      { id: "horn", name: "Horn", to: "quintet", input: "In 7", fader: -4, pan: 10 },
      { id: "trombone", name: "Trombone", to: "quintet", input: "In 8", fader: -4.5, pan: 25 },
      { id: "tuba", name: "Tuba", to: "quintet", input: "In 9", fader: -5, pan: 5 },
      { id: "nave", name: "Nave pair", input: "In 11–12", stereo: true, fader: -8, inserts: kept("room-pair-far") },
      { id: "main", kind: "main", name: "Main", fader: 0, inserts: kept("main-quiet-hand") },
    ]),
  ],
  ...EARLIER_PROJECTS,
];

/** The choir's room without its song: what the next one begins from. */
function choirStarter(): Project {
  const [, psalm] = SONGS.find(([, { id }]) => id === "psalm-for-a-weir")!;
  let keys = 0;
  const kept = { strips: psalm.strips.map(({ id }) => id).filter((id) => id !== "tuba"), parts: CLEANED };
  const cleaned = cleanedDown(psalm, kept, () => `key ${keys++}`);
  if (!cleaned.ok) throw new Error(cleaned.error);
  return { ...cleaned.value, id: "choir-and-brass-starter", name: "Choir and brass, starter", starter: true };
}

export const DEMO_PROJECTS: typeof SONGS = [...SONGS, ["2025-12-02T09:00:00.000Z", choirStarter()]];
