import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Card, emptyCard } from "../presets/preset";
import { several } from "../names/several";
import { WORD_LIST_NAMES, type WordList, withWords } from "./word-lists";

const WORDS = ["Maren Ask", "Oskar Vane", "Copper Heron", "warm", "wide"];
const some = fc.uniqueArray(fc.constantFrom(...WORDS), { maxLength: 3 });
const line = some.map((words) => words.join("; "));
const card: fc.Arbitrary<Card> = fc
  .record({
    tags: some,
    purpose: line,
    artist: line,
    client: line,
    performer: line,
    instrument: line,
    microphone: line,
  })
  .map(({ tags, purpose, ...origin }) => ({
    ...emptyCard("Rim"),
    tags,
    purpose,
    origin: Object.fromEntries(Object.entries(origin).filter(([, word]) => word !== "")),
  }));

const saidIn = ({ tags, purpose, origin }: Card): Readonly<Record<WordList, readonly string[][]>> => ({
  tags: [tags],
  people: [origin.artist, origin.client, origin.performer].map((one) => [...several(one)]),
  instruments: [[...several(origin.instrument)]],
  microphones: [[...several(origin.microphone)]],
  purposes: [[...several(purpose)]],
});

describe("words that are kept in order", () => {
  it("stand in the place of others everywhere in their list, none twice, and all else stays", () => {
    fc.assert(
      fc.property(
        card,
        fc.constantFrom(...WORD_LIST_NAMES),
        fc.subarray(WORDS, { minLength: 1 }),
        fc.option(fc.constantFrom(...WORDS, "Tidal Clocks")),
        (before, list, from, to) => {
          const fields = withWords(before, list, new Set(from), to);
          const after: Card = fields ? ({ ...before, ...fields } as Card) : before;
          const [was, is] = [saidIn(before), saidIn(after)];
          for (const other of WORD_LIST_NAMES.filter((name) => name !== list)) expect(is[other]).toEqual(was[other]);
          was[list].forEach((words, at) => {
            const wanted = words.flatMap((word) => (from.includes(word) ? (to === null ? [] : [to]) : [word]));
            expect(is[list][at]).toEqual([...new Set(wanted)]);
          });
          expect(withWords(after, list, new Set(from), to)).toBeNull();
        },
      ),
      { numRuns: 500, seed: 7 },
    );
  });
});
