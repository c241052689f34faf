import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { emptyCard } from "../../presets/preset";
import { type Listed, decodeTable, readCatalogue, writeCatalogue } from "./catalogue";

const listed = (id: string, more: Partial<Listed["card"]> = {}, folder = ""): Listed => ({
  id,
  kind: "chain",
  card: { ...emptyCard("A sound"), ...more },
  folder,
  version: 1,
  savedAt: "2026-11-02T10:00:00.000Z",
});

const read = (text: string) => {
  const catalogue = readCatalogue(text);
  if (!catalogue.ok) throw new Error(catalogue.error);
  return catalogue.value;
};

const words = fc
  .string({ unit: "grapheme", minLength: 1, maxLength: 40 })
  .map((text) => `a${text.replaceAll(/[\p{C}\u2028\u2029\ufeff]/gu, "")}b`);
/** As tables meet them: formulas, quotes, separators, lines. */
const nasty = fc.oneof(
  words,
  fc.constantFrom("=1+1", "@x", "+44 20", "-3.5 dB", "-3.5", 'say "no"', "a;b", "a,b", "x\ny", "'=x", "é ß 漢"),
);

describe("A catalogue", () => {
  it("reads back what it was written from, whatever stands in it", () => {
    fc.assert(
      fc.property(nasty, nasty, nasty, fc.nat(5), (name, purpose, notes, rating) => {
        const card = {
          name: name.replaceAll("\n", " ").trim(),
          purpose: purpose.trim(),
          notes,
          rating,
          tags: ["warm", "-6 dB"],
        };
        const { rows, problems } = read(writeCatalogue([listed("p1", card, "Voices / Lead")]));
        expect(problems).toEqual([]);
        expect(rows).toEqual([{ id: "p1", line: 2, fields: { ...card, folder: "Voices / Lead" } }]);
      }),
    );
  });

  it("has no cell that a table would take for a formula", () => {
    const text = writeCatalogue([
      listed("p1", { name: "=HYPERLINK(1)", purpose: "@SUM", notes: "+1 more", rating: 3 }),
    ]);
    for (const cell of text.split(/[,\r\n]+/)) expect(cell.replace(/^"/, "")).not.toMatch(/^[=@+]/);
    expect(writeCatalogue([listed("p1", { notes: "-3.5" })])).toContain(",-3.5,");
  });

  it("is read with other separators, other encodings, only some columns, quotes across lines", () => {
    expect(read('id;notes\np1;"Two ""in""\nlines"\n').rows).toEqual([
      { id: "p1", line: 2, fields: { notes: 'Two "in"\nlines' } },
    ]);
    expect(read("ID\tRating\nP1\t4\n").rows).toEqual([{ id: "P1", line: 2, fields: { rating: 4 } }]);
    expect(decodeTable(Uint8Array.of(0xff, 0xfe, 0x69, 0, 0x64, 0))).toBe("id");
    expect(decodeTable(Uint8Array.of(0xfe, 0xff, 0, 0x69, 0, 0x64))).toBe("id");
    expect(decodeTable(Uint8Array.of(0x6d, 0xfc, 0x68))).toBe("müh");
    expect(read("id,name,colour\np1,X,red\n").passedOver).toEqual(["colour"]);
  });

  it("tells lines that cannot be read by their number, and reads all others", () => {
    const text = "id,name,rating\np1,One,9\n,Two,1\np3,Three,2\np3,Again,2\np5,,3\np6,Six,many\n";
    const { rows, problems } = read(text);
    expect(rows.map(({ id }) => id)).toEqual(["p3"]);
    expect(problems.map((words) => /Line (\d)/.exec(words)![1])).toEqual(["2", "3", "5", "6", "7"]);
  });

  it("is none without ids, or without anything to change", () => {
    const refused = (text: string) => {
      const catalogue = readCatalogue(text);
      return catalogue.ok ? "" : catalogue.error;
    };
    expect(refused("name,tags\nx,y\n")).toMatch(/no column “id”/);
    expect(refused("id,colour\nx,y\n")).toMatch(/none of the columns/);
    expect(refused("")).toMatch(/no column/);
    expect(refused("PK\u0003\u0004 binary")).toMatch(/no column/);
  });
});
