import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { StripKind } from "../../documents/strip-kinds";
import { stripWords } from "../../names/instrument-words";
import type { Face } from "./alike";
import { assign } from "./assign";
import { describeConfidence, matchStrips } from "./match";

/** The least cost there is, by trying all. */
function leastByTrying(costs: readonly (readonly number[])[], row = 0, taken: readonly number[] = []): number {
  if (row === costs.length) return 0;
  return Math.min(
    ...costs[row]!.flatMap((cost, column) =>
      taken.includes(column) ? [] : [cost + leastByTrying(costs, row + 1, [...taken, column])],
    ),
  );
}

describe("the assignment", () => {
  const matrix = fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 0, max: 2 })).chain(([rows, more]) =>
    fc.array(fc.array(fc.integer({ min: 0, max: 20 }), { minLength: rows + more, maxLength: rows + more }), {
      minLength: rows,
      maxLength: rows,
    }),
  );

  it("is one of the least cost, each column once", () => {
    fc.assert(
      fc.property(matrix, (costs) => {
        const columns = assign(costs);
        expect(new Set(columns).size).toBe(costs.length);
        expect(columns.reduce((sum, column, row) => sum + costs[row]![column]!, 0)).toBe(leastByTrying(costs));
      }),
      { numRuns: 300 },
    );
  });

  it("says where there are more rows than columns", () => {
    expect(() => assign([[1], [2]])).toThrow("2 rows");
  });
});

const face = (name: string, { kind = "audio", group = null }: Partial<Face> = {}): Face => ({
  id: name,
  kind,
  name,
  group,
  inserts: undefined,
  source: undefined,
});
const partners = (set: readonly Face[], here: readonly Face[]) =>
  Object.fromEntries(matchStrips(set, here).map(({ saved, strip }) => [saved, strip]));
const all = (names: readonly string[], of: Partial<Face> = {}) => names.map((name) => face(name, of));

/** The same eight drums, as four people call them. */
const KIT = ["Kick in", "Kick out", "Snare top", "Snare bottom", "Hi-hat", "Floor tom", "Overhead L", "Overhead R"];
const KITS: Readonly<Record<string, readonly string[]>> = {
  "in abbreviations": ["BD In", "BD Out", "SD Top", "SD Btm", "HH", "FT", "OHL", "OHR"],
  "in German": [
    "Bassdrum innen",
    "Bassdrum außen",
    "Kleine Trommel oben",
    "Kleine Trommel unten",
    "HiHat",
    "Standtom",
    "Overheads links",
    "Overheads rechts",
  ],
  "in French": [
    "Grosse caisse dedans",
    "Grosse caisse dehors",
    "Caisse claire dessus",
    "Caisse claire dessous",
    "Charley",
    "Floor Tom",
    "OH gauche",
    "OH droite",
  ],
  "with numbers of a console before them": [
    "01 KickIn",
    "02 KickOut",
    "03 SnrTop",
    "04 SnrBot",
    "05 Hats",
    "06 FloorTom",
    "07 OH L",
    "08 OH R",
  ],
};

describe("strips of a set find theirs", () => {
  it.each(Object.entries(KITS))("%s, in another order, with others beside them", (_, names) => {
    const here = [...names.map((name) => face(name)), face("Room"), face("Talkback")];
    const want = Object.fromEntries(KIT.map((name, at) => [name, names[at]!]));
    fc.assert(
      fc.property(fc.shuffledSubarray(here, { minLength: here.length }), (shuffled) => {
        expect(partners(all(KIT), shuffled)).toEqual(want);
      }),
      { numRuns: 30 },
    );
  });

  it("by the same name always, whatever else there is", () => {
    const names = ["Voice", "Voice 2", "Vox double", "Cello", "Cello far", "Nyckelharpa", "Frame drum rim", "Patch 7"];
    fc.assert(
      fc.property(fc.subarray(names, { minLength: 1 }), fc.shuffledSubarray(names, { minLength: 8 }), (set, here) => {
        const matches = matchStrips(all(set), all(here));
        for (const { saved, strip, reason, confidence } of matches) {
          expect(strip).toBe(saved);
          expect(reason).toBe("the same name");
          expect(describeConfidence(confidence)).toBe("sure");
        }
      }),
      { numRuns: 100 },
    );
  });

  it("never two to one, and none where nothing is like it", () => {
    expect(partners(all(["Voice", "Vocal"]), all(["Lead vox"]))).toEqual({ Voice: "Lead vox", Vocal: null });
    expect(partners(all(["Tuba"]), all(["Narrator", "Mill wheel"]))).toEqual({ Tuba: null });
    expect(partners([], all(["Voice"]))).toEqual({});
    expect(partners(all(["Voice"]), [])).toEqual({ Voice: null });
  });

  it("by number and by side, though all else is the same", () => {
    expect(partners(all(["Vox 1", "Vox 2", "Vox 3"]), all(["Voice 3", "Voice 1", "Voice 2"]))).toEqual({
      "Vox 1": "Voice 1",
      "Vox 2": "Voice 2",
      "Vox 3": "Voice 3",
    });
    expect(partners(all(["Choir left", "Choir right"]), all(["Chœur droite", "Chor R", "Chor L"]))).toMatchObject({
      "Choir left": "Chor L",
    });
  });

  it("buses to buses, the main output to the main output", () => {
    const of = (name: string, kind: StripKind) => ({ ...face(name), kind, id: `${kind} ${name}` });
    const here = [of("Drums", "audio"), of("Drums", "group"), of("Stereo out", "main"), of("Drum room", "return")];
    expect(partners([of("Drums", "group"), of("Mix", "main"), of("Room", "return")], here)).toEqual({
      "group Drums": "group Drums",
      "main Mix": "main Stereo out",
      "return Room": "return Drum room",
    });
  });

  it("by the group in which they stand, where the names say little", () => {
    const set = [face("Close", { group: "Drum" })];
    const here = [
      { ...face("Spot", { group: "Voices" }), id: "a" },
      { ...face("Spot", { group: "Drums" }), id: "b" },
    ];
    expect(matchStrips(set, here)[0]?.strip).toBe("b");
  });
});

describe("what a name says", () => {
  it.each([
    ["OHL", { things: ["overhead"], side: "left" }],
    ["Gtr2 R", { things: ["guitar"], numbers: ["2"], side: "right" }],
    ["Bass Drum", { things: ["kick"] }],
    ["Kontrabass", { things: ["contrabass"] }],
    ["Nyckelharpa 01", { things: ["nyckelharpa"], numbers: ["1"] }],
    ["LeadVox", { things: ["lead", "voice"] }],
  ])("%s", (name, says) => {
    expect(stripWords(name)).toMatchObject(says);
  });
});
