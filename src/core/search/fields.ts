/** What the field on top can be asked for by name, and how each is told to a person. */
export const FIELDS = {
  kind: "what is kept: plugin, chain, strip, set, mix",
  name: "words of the name",
  for: "what it is for",
  family: "a family of plugins inside",
  has: "a plugin inside",
  maker: "the maker of a plugin inside",
  artist: "the artist it was made for",
  client: "the client it was made for",
  song: "the song it comes from",
  project: "the project it comes from",
  performer: "who played",
  instrument: "what was played",
  mic: "the microphone",
  tag: "a tag",
  measured: "what was measured: warm, gentle, long tail",
  folder: "the name of its folder",
  pack: "the pack it came with, or own",
  from: "the sound or the pack that it was made out of",
  in: "a project that uses it",
  notes: "words of the notes",
  rating: "stars: 4, 4+ or >=4 for at least four, 2..4; 0 for none",
  year: "the year it comes from: 2026, 2024+, <2020, 2003..2007",
  saved: "when it was saved: 2026-03, <2024-06, 2024..2025-03",
  loudness: "how loud it is, in LUFS: -18..-14, >=-20",
  decay: "how long its reverbs ring: >2s, 300ms..1s",
  tempo: "the tempo of a whole mix, in bpm: 90, 88..96",
  used: "yes or no: whether a project uses it; changed: its sound is another since",
} as const;

export type Field = keyof typeof FIELDS;
export const FIELD_NAMES = Object.keys(FIELDS) as readonly Field[];

export const isField = (name: string): name is Field => Object.hasOwn(FIELDS, name);
