import { DEMO_PRESETS } from "../../src/demo/library";
import type { Card, Content } from "../../src/core/presets/preset";
import { type Random, seededRandom } from "../../src/core/random";

/*
 * A library of any size, for measuring: the demo's contents with their values turned, under names, tags and origins that are
 * spread as those of a working engineer are: a few very common words, and many that stand once.
 */

const THINGS = [
  "voice",
  "cello",
  "harmonium",
  "vibraphone",
  "frame drum",
  "brass",
  "choir",
  "narrator",
  "patch",
  "room",
  "bass",
  "keys",
];
const WAYS = [
  "close",
  "far",
  "warm",
  "dark",
  "open",
  "eased",
  "wide",
  "dry",
  "soft",
  "bright",
  "low",
  "held",
  "kept",
  "slow",
];
const PLACES = ["quay", "nave", "booth", "stairs", "mill", "lantern", "slack water", "weir", "tide", "harbour"];
const ARTISTS = ["Copper Heron", "Tidal Clocks", "The Quarry Choir", "Moss & Meridian"];
const TAGS = [
  "warm",
  "wide",
  "close",
  "dark",
  "gentle",
  "open",
  "start",
  "return",
  "bright",
  "tempo-locked",
  "rough",
  "still",
];

/** So many tags there are in all; the rest are made-up words that stand on few. */
const DIFFERENT_TAGS = 3000;

/** The first of a list is taken far more often than the last, as words are. */
const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() ** 2 * list.length)]!;

/** Songs at each place: about fifty presets come of one. */
const SONGS = 200;

const SYLLABLES = ["ka", "lo", "mi", "ren", "to", "vas", "el", "un", "dor", "shi", "pe", "gra"];

/** A made-up word that stands once or a few times. */
const rareWord = (random: Random): string =>
  Array.from({ length: 2 + Math.floor(random() * 2) }, () => SYLLABLES[Math.floor(random() * SYLLABLES.length)]).join(
    "",
  );

const rareTags: readonly string[] = (() => {
  const random = seededRandom(7);
  const made = new Set<string>();
  while (made.size < DIFFERENT_TAGS - TAGS.length) made.add(`${rareWord(random)} ${pick(WAYS, random)}`);
  return [...made];
})();

function cardOf(at: number, folders: readonly string[], random: Random): Card {
  const thing = pick(THINGS, random);
  const artist = pick(ARTISTS, random);
  return {
    name: `${thing[0]!.toUpperCase()}${thing.slice(1)}, ${pick(WAYS, random)} ${rareWord(random)} ${at}`,
    folder: folders[Math.floor(random() * folders.length)] ?? null,
    tags: [...new Set([pick(TAGS, random), pick(TAGS, random), rareTags[Math.floor(random() * rareTags.length)]!])],
    purpose: thing,
    rating: Math.floor(random() * 6),
    notes: "",
    origin: {
      artist,
      client: artist,
      song: `${pick(PLACES, random)} ${Math.floor(random() * SONGS)}`,
      strip: pick(THINGS, random),
    },
  };
}

/** Every number of a content a little elsewhere: no two sounds are the same. */
function turned(content: Content, random: Random): Content {
  const turn = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(turn);
    if (typeof value !== "object" || value === null) return value;
    return Object.fromEntries(
      Object.entries(value).map(([key, v]) => [
        key,
        key.endsWith(".gain") ? Math.round((random() - 0.5) * 120) / 10 : turn(v),
      ]),
    );
  };
  return turn(content) as Content;
}

export interface Made {
  readonly id: string;
  readonly card: Card;
  readonly content: Content;
  readonly at: string;
}

const CONTENTS = DEMO_PRESETS.map((preset) => preset.versions.at(-1)!);
const EQUALISER = CONTENTS.find((c) => c.kind === "plugin" && c.processor.model === "parametric-eq")!;
const BEGINNING = Date.parse("2018-01-01T00:00:00Z");
const HALF_HOUR = 1_800_000;

/** The same presets each time; half an hour between one and the next. */
export function* manyPresets(count: number, folders: readonly string[]): Generator<Made> {
  const random = seededRandom(100);
  for (let n = 0; n < count; n++) {
    // Half of them are of one model: nobody has as many of anything else as of equalisers.
    const content = turned(n % 2 === 0 ? EQUALISER : CONTENTS[n % CONTENTS.length]!, random);
    yield {
      id: `many-${n}`,
      card: cardOf(n, folders, random),
      content,
      at: new Date(BEGINNING + n * HALF_HOUR).toISOString(),
    };
  }
}
