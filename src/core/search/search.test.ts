import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { completionsOf } from "./complete";
import { emptyCard } from "../presets/preset";
import { type IndexEntry, searchText, valuesOf, type OrderedBy, orderedBy } from "./entry";
import { LibraryIndex, type Request, type Sort } from "./library-index";
import { MOST_WORDS, NOTHING_SOUGHT, parseQuery } from "./query";
import {
  chosenOf,
  cutQuery,
  openField,
  quoteValue,
  readFilters,
  toggleFilter,
  type Filters,
  writeFilters,
} from "./written";
import { fold, slipsAllowed, slipsToBegin, wordsOf } from "../names/words";
import { isWithin } from "./spans";
import { ValueTable } from "./values";

const begins = (word: string) => ({ word, whole: false });

describe("several values of a field", () => {
  it("mean any of them, each by the beginning of any word", () => {
    const table = new ValueTable();
    const names = ["Rim and air", "Airlock", "Wide air", "x-ray", ""];
    for (const name of names) table.add({ name: [name] });
    const found = (text: string) => {
      const asked = table.ask(parseQuery(text).terms[0]!);
      return names.filter((_, slot) => table.says(slot, asked));
    };
    expect(found("name:air")).toEqual(["Rim and air", "Airlock", "Wide air"]);
    expect(found("name:rim,wi")).toEqual(["Rim and air", "Wide air"]);
    expect(found("name:ray,q")).toEqual(["x-ray"]);
    expect(found('name:"wide air",airl')).toEqual(["Airlock", "Wide air"]);
    expect(found("name:ir,im")).toEqual([]);
    expect(found("-name:air")).toEqual(["x-ray", ""]);
  });
});

describe("a search of more than anyone means", () => {
  it("looks for the first 64 different words, in fields too, and says what it left out", () => {
    const many = Array.from({ length: 5000 }, (_, n) => `w${n}`);
    const query = parseQuery([...many, ...many].join(" "));
    expect(query.words).toHaveLength(MOST_WORDS);
    expect(query.unclear).toEqual(["Only the first 64 different words are looked for; 4936 more were left out."]);
    const fields = parseQuery(`cello tag:${many.join(",")} -drum`);
    expect(fields.terms[0]!.values).toHaveLength(MOST_WORDS - 2);
    expect([fields.words, fields.not].map((list) => list.length)).toEqual([1, 1]);
    expect(parseQuery("cello cello CELLO").words).toHaveLength(1);
    expect(parseQuery("cello warm").unclear).toEqual([]);
    expect(parseQuery(many.map((word) => `${word}:x`).join(" ")).unclear.length).toBeLessThanOrEqual(MOST_WORDS + 1);
  });
  it("is read as far as its first 4,000 letters, never through a sign", () => {
    expect(cutQuery("x".repeat(9000))).toHaveLength(4000);
    expect(cutQuery(`${"x".repeat(3999)}🦁`)).toBe("x".repeat(3999));
  });
});

describe("the language of the field", () => {
  it("takes words as beginnings, and whole in quotes", () => {
    expect(parseQuery('Warm "room pair"').words).toEqual([
      begins("warm"),
      { word: "room", whole: true },
      { word: "pair", whole: true },
    ]);
  });
  it("takes a field with one value, several, quoted ones, and their opposite", () => {
    expect(parseQuery('artist:"Copper Heron",tidal -tag:too-bright').terms).toEqual([
      {
        field: "artist",
        not: false,
        values: [
          { is: "phrase", words: ["copper", "heron"] },
          { is: "words", words: ["tidal"] },
        ],
      },
      { field: "tag", not: true, values: [{ is: "words", words: ["too", "bright"] }] },
    ]);
  });
  it("takes a value exactly behind a sign of equality, and any value for a star", () => {
    expect(parseQuery('artist:="Copper Heron" -tag:* used:*').terms.map((t) => t.values)).toEqual([
      [{ is: "exactly", text: "copper heron" }],
      [{ is: "any" }],
      [{ is: "exactly", text: "yes" }],
    ]);
  });
  it.each([
    ["rating:3", 3, 3],
    ["rating:3+", 3, Number.POSITIVE_INFINITY],
    ["rating:>=4", 4, Number.POSITIVE_INFINITY],
    ["rating:2..4", 2, 4],
    ["rating:*", 1, Number.POSITIVE_INFINITY],
    ["year:2003..2007", 2003, 2007],
    ["year:..2007", Number.NEGATIVE_INFINITY, 2007],
    ["saved:2024-06", 20_240_600, 20_240_699],
    ["saved:2024..2025-03", 20_240_000, 20_250_399],
    ["saved:2024-06-03", 20_240_603, 20_240_603],
    ["decay:300ms..1.5s", 0.3, 1.5],
    ["decay:>=2.5", 2.5, Number.POSITIVE_INFINITY],
    ["tempo:90bpm", 90, 90],
    ["loudness:-18..-14", -18, -14],
    ["loudness:>=−20.5LUFS", -20.5, Number.POSITIVE_INFINITY],
  ])("takes numbers and days: %s", (text, least, most) => {
    expect(parseQuery(text)).toEqual({
      ...NOTHING_SOUGHT,
      terms: [{ field: text.split(":")[0], not: false, values: [{ is: "within", least, most }] }],
    });
  });
  it.each([
    ["saved:<2024-06", [20_240_531, 20_231_231], [20_240_601, 20_240_630]],
    ["saved:>2024-06", [20_240_701, 20_250_101], [20_240_601, 20_240_630]],
    ["saved:<=2024-06", [20_240_601, 20_240_630], [20_240_701]],
    ["decay:>2s", [2.1], [2, 1]],
    ["decay:<0.5", [0.4], [0.5]],
    ["loudness:<-18 lufs", [-18.1], [-18, -14]],
  ])("holds back what a comparison leaves out: %s", (text, within, without) => {
    const [value] = parseQuery(text).terms[0]!.values;
    if (value?.is !== "within") throw new Error("no span");
    expect(within.map((one) => isWithin(one, value))).toEqual(within.map(() => true));
    expect(without.map((one) => isWithin(one, value))).toEqual(without.map(() => false));
  });
  it.each(["rating:many", "year:2024-06", "decay:2bpm", "tempo:..", "saved:yesterday", "rating:>4+"])(
    "looks for the words of what is no number: %s",
    (text) => {
      expect(parseQuery(text).terms).toEqual([]);
      expect(parseQuery(text).unclear).toHaveLength(1);
    },
  );
  it("looks for the words of what is no query, and says so", () => {
    const { words, terms, unclear } = parseQuery("colour:red rating:many");
    expect(terms).toEqual([]);
    expect(words.map((w) => w.word)).toEqual(["colour", "red", "rating", "many"]);
    expect(unclear).toHaveLength(2);
    expect(unclear[0]).toContain("colour");
  });
  it("does not complain about a field whose value is still to come", () => {
    expect(parseQuery("warm artist:")).toEqual({ ...NOTHING_SOUGHT, words: [begins("warm")] });
  });
  it("reads whatever is typed without failing, and finds each of its values again", () => {
    fc.assert(fc.property(fc.string({ unit: "binary" }), (text) => parseQuery(text).words.every((w) => w.word !== "")));
    fc.assert(
      fc.property(fc.string({ minLength: 1 }), (text) => {
        const value = text.replaceAll('"', "").trim();
        fc.pre(value !== "");
        const { terms, unclear } = parseQuery(`artist:${quoteValue(value)}`);
        const [found] = terms[0]?.values ?? [];
        return unclear.length === 0 && terms.length === 1 && found?.is === "exactly" && found.text === fold(value);
      }),
    );
  });
  it("tells which field is being typed", () => {
    expect(openField("warm artist:Cop")).toEqual({ field: "artist", begun: "Cop", from: 12 });
    expect(openField('artist:"Copper H')).toEqual({ field: "artist", begun: "Copper H", from: 7 });
    expect(openField('tag:warm,"to')).toEqual({ field: "tag", begun: "to", from: 9 });
    expect(openField('artist:="Tidal Clocks",="Copper H')).toEqual({ field: "artist", begun: "Copper H", from: 23 });
    expect(openField("tag:warm close")).toBeNull();
    expect(openField("colour:re")).toBeNull();
  });
});

describe("completing", () => {
  const counts = {
    artist: [
      { value: "Copper Heron", n: 12 },
      { value: "Tidal Clocks", n: 4 },
    ],
    tag: [{ value: "warm", n: 3 }],
  };
  it("goes on with the values of the field that is typed, by the beginning of any of their words", () => {
    expect(completionsOf("warm artist:her", counts)).toEqual([
      { text: 'warm artist:"Copper Heron" ', label: "Copper Heron", aside: "12", of: "value" },
    ]);
    expect(completionsOf('artist:"Copper Heron",ti', counts).map((c) => c.text)).toEqual([
      'artist:"Copper Heron","Tidal Clocks" ',
    ]);
    expect(completionsOf("artist:", counts)).toHaveLength(2);
    expect(completionsOf("tag:warm", counts)).toEqual([]);
  });
  it("goes on with names of fields from two letters on, and leaves finished words alone", () => {
    expect(completionsOf("close per", counts).map((c) => c.text)).toEqual(["close performer:"]);
    expect(completionsOf("p", counts)).toEqual([]);
    expect(completionsOf("performer ", counts)).toEqual([]);
  });
});

describe("filters", () => {
  const value = fc.string({ minLength: 1, maxLength: 12 }).filter((v) => v.trim() !== "" && !v.includes('"'));
  const bare = fc.constantFrom("own", "warm", "4+", "2026");
  const written = fc.oneof(value.map(quoteValue), bare);
  const filters = fc
    .array(fc.tuple(fc.constantFrom("artist", "tag", "for"), fc.uniqueArray(written, { minLength: 1, maxLength: 3 })))
    .map((list) => new Map(list) as Filters);
  it("come out of an address as they went in, and mean the same to the field", () => {
    fc.assert(
      fc.property(filters, (some) => {
        expect(readFilters(writeFilters(some))).toEqual(some);
        expect(parseQuery(writeFilters(some)).terms.map((t) => [t.field, t.values.length])).toEqual(
          [...some].map(([field, values]) => [field, values.length]),
        );
      }),
    );
  });
  it("are switched on and off again", () => {
    fc.assert(
      fc.property(filters, value, (some, one) => {
        const twice = toggleFilter(toggleFilter(some, "song", one), "song", one);
        expect(writeFilters(twice)).toBe(writeFilters(some));
      }),
    );
  });
  it("that a hand wrote without quotes are chosen too, and stay as they were written", () => {
    const some = readFilters('pack:own rating:4+ artist:"Copper Heron",clocks');
    expect([chosenOf(some, "pack"), chosenOf(some, "rating"), chosenOf(some, "artist")]).toEqual([
      ["own"],
      ["4+"],
      ["Copper Heron", "clocks"],
    ]);
    expect(writeFilters(toggleFilter(some, "tag", "warm"))).toBe(
      'pack:own rating:4+ artist:"Copper Heron",clocks tag:="warm"',
    );
    expect(writeFilters(toggleFilter(some, "pack", "own"))).toBe('rating:4+ artist:"Copper Heron",clocks');
  });
});

describe("words and slips", () => {
  it("forgets case and accents", () => {
    expect(wordsOf("Éva’s Nyckelharpa, 2nd take")).toEqual(["eva", "s", "nyckelharpa", "2nd", "take"]);
  });
  it("takes letters that others write with two, or without their stroke, for those", () => {
    expect(["größe", "Œuvre", "Łukasz", "Þór", "Ærø", "ﬁeld"].map(fold)).toEqual([
      "grosse",
      "oeuvre",
      "lukasz",
      "thor",
      "aero",
      "field",
    ]);
    fc.assert(fc.property(fc.string({ unit: "binary" }), (text) => fold(fold(text)) === fold(text)));
  });

  it("of a text without accents are those that they are beside accents", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary-ascii" }), (text) => {
        expect(fold(`${text}é`)).toBe(`${fold(text)}e`);
        expect(wordsOf(`${text} é`)).toEqual([...wordsOf(text), "e"]);
      }),
    );
  });

  it("takes every two letters of a script without spaces for a word, so that what stands inside is found", () => {
    expect(wordsOf("春の海 no 2")).toEqual(["春の", "の海", "海", "no", "2"]);
    const run = fc.string({ unit: fc.constantFrom("春", "の", "海", "夜"), minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(run, run, run, (before, sought, behind) => {
        const table = new ValueTable();
        table.add({ name: [`${before}${sought}${behind}`] });
        for (const text of [`name:${sought}`, `name:"${sought}"`])
          expect(table.says(0, table.ask(parseQuery(text).terms[0]!))).toBe(true);
        const index = new LibraryIndex();
        const plain = { artist: "", tags: [], rating: 0, touchedAt: 0, folder: null };
        index.put(entryOf(1, { ...plain, name: `${before}${sought}${behind}` }));
        expect([ask(index, sought).total, ask(index, `"${sought}"`).total]).toEqual([1, 1]);
      }),
    );
  });
  it("counts letters left out, put in, exchanged and turned round, up to where the word goes on", () => {
    for (const [typed, word, slips] of [
      ["vib", "vibraphone", 0],
      ["virb", "vibraphone", 1],
      ["harmnium", "harmonium", 1],
      ["nykcelharpa", "nyckelharpa", 1],
      ["celllo", "cello", 1],
    ] as const)
      expect(slipsToBegin(typed, word, 2)).toBe(slips);
    expect(slipsToBegin("drum", "cello", 2)).toBe(Number.POSITIVE_INFINITY);
    expect([slipsAllowed("rim"), slipsAllowed("cello"), slipsAllowed("harmonium")]).toEqual([0, 1, 2]);
  });
  it("is 0 exactly for beginnings, and no further from them than one letter is", () => {
    const word = fc.string({ unit: fc.constantFrom("a", "b", "c"), minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(word, word, (typed, other) => {
        expect(slipsToBegin(typed, other, 9) === 0).toBe(other.startsWith(typed));
        expect(slipsToBegin(`${typed}a`, other, 9)).toBeLessThanOrEqual(slipsToBegin(typed, other, 9) + 1);
      }),
    );
  });
});

const NAMES = ["Warm close voice", "Voice, one step forward", "Rim and air", "Éclair of brass", "Room pair, far"];
const ARTISTS = ["Copper Heron", "Tidal Clocks", "The Quarry Choir"];
const TAGS = ["warm", "wide", "close"];

const entryOf = (row: number, { name, artist, tags, rating, touchedAt, folder }: Made): IndexEntry => {
  const card = { ...emptyCard(name), tags: [...tags], rating, origin: { artist } };
  const inside = {
    names: ["VCA compressor"],
    models: ["VCA compressor"],
    families: ["dynamics"],
    makers: ["Diathesis"],
    length: 1,
    found: ["gentle"],
  };
  const more = {
    kind: "chain",
    folder: folder === null ? [] : [folder],
    pack: null,
    fromPack: null,
    projects: rating > 2 ? ["Salt Lanterns"] : [],
    savedOn: `2026-0${1 + (touchedAt % 9)}-12`,
    loudness: -14 - row / 10,
    isChanged: rating > 3,
  };
  const text = searchText(card, inside);
  const by = orderedBy(card, inside, { path: folder === null ? [] : [folder], loudness: -14 - row / 10 });
  return { row, text, values: valuesOf(card, inside, more), folder, sortName: name, savedAt: row, touchedAt, by };
};

interface Made {
  readonly name: string;
  readonly artist: string;
  readonly tags: readonly string[];
  readonly rating: number;
  readonly touchedAt: number;
  readonly folder: string | null;
}

const made = fc.record({
  name: fc.constantFrom(...NAMES),
  artist: fc.constantFrom(...ARTISTS),
  tags: fc.subarray(TAGS),
  rating: fc.integer({ min: 0, max: 5 }),
  touchedAt: fc.integer({ min: 0, max: 20 }),
  folder: fc.constantFrom(null, "a", "b"),
});

const ask = (index: LibraryIndex, text: string, more: Partial<Request> = {}) =>
  index.find({ query: parseQuery(text), folders: null, sort: "used", after: null, limit: 1000, ...more });

const has =
  (...begins: readonly string[]) =>
  ({ name, artist, tags }: Made): boolean => {
    const words = wordsOf([name, artist, ...tags, "VCA compressor"].join(" "));
    return begins.every((begin) => words.some((word) => word.startsWith(begin)));
  };

/** What each search finds, by a plain look at one entry. */
const ORACLE: Readonly<Record<string, (one: Made) => boolean>> = {
  voi: has("voi"),
  "war clo": has("war", "clo"),
  eclair: has("eclair"),
  'artist:"Tidal Clocks"': ({ artist }) => artist === "Tidal Clocks",
  'artist:="Quarry Choir"': () => false,
  "artist:herno": ({ artist }) => artist === "Copper Heron",
  "tag:warm,wide rating:2+": ({ tags, rating }) => (tags.includes("warm") || tags.includes("wide")) && rating >= 2,
  "-warm": (one) => !has("warm")(one),
  "-tag:close": ({ tags }) => !tags.includes("close"),
  "used:yes": ({ rating }) => rating > 2,
  'in:"Lanterns"': ({ rating }) => rating > 2,
  "-used:*": ({ rating }) => rating <= 2,
  "used:changed": ({ rating }) => rating > 3,
  "-folder:*": ({ folder }) => folder === null,
  "-tag:*": ({ tags }) => tags.length === 0,
  "rating:0": ({ rating }) => rating === 0,
  "rating:2..3": ({ rating }) => rating === 2 || rating === 3,
  "saved:<2026-05": ({ touchedAt }) => touchedAt % 9 < 4,
  'name:"close voice"': ({ name }) => name === "Warm close voice",
};

describe("the index", () => {
  it("finds what a plain walk over the entries finds, also after changes and removals", () => {
    const change = fc.tuple(fc.integer({ min: 0, max: 12 }), fc.option(made));
    const terms = fc.constantFrom(...Object.keys(ORACLE));
    fc.assert(
      fc.property(fc.array(change, { maxLength: 40 }), fc.array(terms, { maxLength: 3 }), (changes, texts) => {
        const index = new LibraryIndex();
        const kept = new Map<number, Made>();
        for (const [row, one] of changes) {
          if (one) index.put(entryOf(row, one));
          else index.remove(row);
          if (one) kept.set(row, one);
          else kept.delete(row);
        }
        const fits = (one: Made): boolean => texts.every((text) => ORACLE[text]!(one));
        // Slips of words are forgiven only where nothing is found otherwise: they may add, and are looked at below.
        const found = ask(index, texts.join(" "));
        fc.pre(found.corrected.every(({ typed }) => typed === "herno"));
        const expected = [...kept].filter(([, one]) => fits(one)).map(([row]) => row);
        expect(found.rows.toSorted((a, b) => a - b)).toEqual(expected.toSorted((a, b) => a - b));
        expect(found.total).toBe(expected.length);
        const counted = (values: readonly string[], has: (one: Made, value: string) => boolean) =>
          Object.fromEntries(
            values
              .map((value) => [value, expected.filter((row) => has(kept.get(row)!, value)).length] as const)
              .filter(([, n]) => n !== 0),
          );
        expect(Object.fromEntries(found.facets!.artist)).toEqual(counted(ARTISTS, (one, a) => one.artist === a));
        expect(Object.fromEntries(found.facets!.tag)).toEqual(counted(TAGS, (one, t) => one.tags.includes(t)));
      }),
    );
  });

  it("puts a list in order by what is greatest, and by letters; what is not known stands last", () => {
    const index = new LibraryIndex();
    const put = (row: number, by: Partial<OrderedBy>) => {
      const plain = { name: "Rim", artist: "", tags: [], rating: 0, touchedAt: 0, folder: null };
      index.put({
        ...entryOf(row, plain),
        by: { rating: 0, origin: null, length: 1, folder: null, loudness: null, ...by },
      });
    };
    put(1, { rating: 3, origin: Date.parse("2021-02-14"), folder: "voices / lead" });
    put(2, { rating: 5, length: 4 });
    put(3, { origin: Date.parse("2026-11-14"), length: 2, folder: "brass" });
    put(4, { origin: Date.parse("1969-05-01"), folder: "voices" });
    const order = (sort: Sort) => ask(index, "", { sort }).rows;
    expect(order("rating")).toEqual([2, 1, 4, 3]);
    expect(order("origin")).toEqual([3, 1, 4, 2]);
    expect(order("length")).toEqual([2, 3, 4, 1]);
    expect(order("folder")).toEqual([3, 4, 1, 2]);
  });

  it("turns pages in one order without a gap or a repetition, whatever the order", () => {
    fc.assert(
      fc.property(
        fc.array(made, { maxLength: 30 }),
        fc.constantFrom<Sort>("used", "saved", "name", "rank", "rating", "origin", "length", "folder"),
        fc.integer({ min: 1, max: 7 }),
        fc.constantFrom("", "vo"),
        (entries, sort, limit, text) => {
          const index = new LibraryIndex();
          entries.forEach((one, row) => index.put(entryOf(row, one)));
          const all = ask(index, text, { sort }).rows;
          const paged: number[] = [];
          for (let after: Request["after"] = null, more = true; more; ) {
            const page = ask(index, text, { sort, limit, after });
            paged.push(...page.rows);
            after = page.next;
            more = after !== null;
          }
          expect(paged).toEqual(all);
          // Anywhere in the list, and still after something changed.
          for (let offset = 0; offset <= all.length; offset += 3)
            expect(ask(index, text, { sort, limit, offset }).rows).toEqual(all.slice(offset, offset + limit));
          const [gone] = all;
          if (gone === undefined) return;
          index.remove(gone);
          expect(ask(index, text, { sort, limit: 1000, offset: 1 }).rows).toEqual(
            ask(index, text, { sort }).rows.slice(1),
          );
        },
      ),
    );
  });

  it("ranks a word of the name over one of the tags, and those over one of the origin", () => {
    const index = new LibraryIndex();
    const plain = { artist: "", tags: [], rating: 0, touchedAt: 0, folder: null };
    index.put(entryOf(1, { ...plain, name: "Rim and air", artist: "Heron quartet" }));
    index.put(entryOf(2, { ...plain, name: "Rim and air", tags: ["heron"] }));
    index.put(entryOf(3, { ...plain, name: "Heron and air" }));
    for (let row = 4; row < 12; row++) index.put(entryOf(row, { ...plain, name: "Room pair" }));
    expect(ask(index, "heron", { sort: "rank" }).rows).toEqual([3, 2, 1]);
  });

  it("reads a mistyped word as the nearest, and says as which", () => {
    const index = new LibraryIndex();
    NAMES.forEach((name, row) =>
      index.put(entryOf(row, { name, artist: "Copper Heron", tags: [], rating: 0, touchedAt: 0, folder: null })),
    );
    const found = ask(index, "voise");
    expect(found.corrected).toEqual([{ typed: "voise", read: "voice" }]);
    expect(found.rows.toSorted((a, b) => a - b)).toEqual([0, 1]);
    expect(ask(index, "xyz").total).toBe(0);
    expect(ask(index, '"voise"').total).toBe(0);
  });

  it("reads a mistyped word of a field as the nearest of that field, and says as which", () => {
    const index = new LibraryIndex();
    const plain = { tags: [], rating: 0, touchedAt: 0, folder: null };
    index.put(entryOf(1, { ...plain, name: "Rim", artist: "Łukasz Tapper" }));
    index.put(entryOf(2, { ...plain, name: "Lukasy", artist: "Copper Heron" }));
    const found = ask(index, "artist:lukasy");
    expect([found.rows, found.corrected]).toEqual([[1], [{ typed: "lukasy", read: "lukasz" }]]);
    expect(ask(index, "artist:lukasz").corrected).toEqual([]);
    // What must not be there is taken as it is written.
    expect(ask(index, "-artist:lukasy").total).toBe(2);
  });

  it("finds what the notes say, behind all else", () => {
    const index = new LibraryIndex();
    const plain = { artist: "", tags: [], rating: 0, touchedAt: 0, folder: null };
    const inNotes = entryOf(1, { ...plain, name: "Rim and air" });
    index.put({ ...inNotes, text: { ...inNotes.text, notes: "Two steps back, the lantern behind." } });
    index.put(entryOf(2, { ...plain, name: "Lantern" }));
    expect(ask(index, "lantern", { sort: "rank" }).rows).toEqual([2, 1]);
  });

  it("keeps to folders, and tells how much of it is dead", () => {
    const index = new LibraryIndex();
    const one = { name: "Rim", artist: "Tidal Clocks", tags: [], rating: 0, touchedAt: 0 };
    index.put(entryOf(1, { ...one, folder: "a" }));
    index.put(entryOf(2, { ...one, folder: "b" }));
    index.put(entryOf(2, { ...one, folder: "a" }));
    expect(ask(index, "", { folders: new Set(["a"]) }).total).toBe(2);
    expect(ask(index, "", { folders: new Set(["b"]) }).total).toBe(0);
    expect(index.waste).toBeCloseTo(1 / 3);
  });
});
