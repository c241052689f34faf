import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { ProjectRow } from "@/contracts/records";
import { type Figure, type SortBy, clientDrawers, clientOf, isFound, isIn, sorted } from "./filing";
import { formatSize } from "./size";

const someRow: fc.Arbitrary<ProjectRow> = fc.record({
  id: fc.uuid(),
  name: fc.constantFrom("Salt Lanterns", "salt lanterns", "Neap Tide 2", "Neap Tide 10", "Ebb Machine"),
  artist: fc.constantFrom("Copper Heron", "Tidal Clocks", ""),
  client: fc.constantFrom("", "  ", "Moss & Meridian", "Copper Heron"),
  song: fc.constantFrom("", "Ferry Light"),
  tempo: fc.constantFrom(60, 92.5, 118),
  sampleRate: fc.constant(48_000),
  starter: fc.boolean(),
  strips: fc.nat(40),
  revision: fc.nat(9),
  changedAt: fc.constantFrom("2024-03-01T10:00:00.000Z", "2025-07-01T10:00:00.000Z", "2026-11-24T10:00:00.000Z"),
  binnedAt: fc.constant(null),
});

const someRows = fc.uniqueArray(someRow, { selector: ({ id }) => id, maxLength: 12 });
const SORTS: readonly SortBy[] = ["name", "client", "tempo", "strips", "unsaved", "size", "changed"];

describe("the drawers of projects", () => {
  it("hold each project once by client, and once by year; starters in their own", () => {
    fc.assert(
      fc.property(someRows, (rows) => {
        const drawers = clientDrawers(rows);
        for (const row of rows) {
          const holding = drawers.filter(({ client }) => isIn({ of: "client", client, year: null }, row));
          expect(holding).toHaveLength(row.starter ? 0 : 1);
          const years = drawers.flatMap(({ client, years: some }) =>
            some.filter(({ year }) => isIn({ of: "client", client, year }, row)),
          );
          expect(years).toHaveLength(row.starter ? 0 : 1);
          expect(isIn({ of: "starters" }, row)).toBe(row.starter);
        }
        const kept = rows.filter(({ starter }) => !starter).length;
        expect(drawers.reduce((sum, { count }) => sum + count, 0)).toBe(kept);
        for (const { years, count } of drawers) {
          expect(years.reduce((sum, year) => sum + year.count, 0)).toBe(count);
          const order = years.map(({ year }) => year);
          expect(order).toEqual(order.toSorted().toReversed());
        }
      }),
    );
  });

  it("stand by name, those for nobody last; a project without a client is for its artist", () => {
    const row = (client: string, artist: string) => ({ ...fc.sample(someRow, 1)[0]!, starter: false, client, artist });
    const rows = [row("", ""), row("", "Tidal Clocks"), row("Copper Heron", "Tidal Clocks")];
    expect(clientDrawers(rows).map(({ client }) => client)).toEqual(["Copper Heron", "Tidal Clocks", ""]);
    expect(clientOf({ client: "  ", artist: " Tidal Clocks " })).toBe("Tidal Clocks");
  });
});

describe("the list of projects", () => {
  it("holds each once in any order; what is not counted yet stands last, either way", () => {
    fc.assert(
      fc.property(someRows, fc.constantFrom(...SORTS), fc.boolean(), fc.nat(), (rows, by, reversed, seed) => {
        const counted = rows.filter((_, at) => (at + seed) % 2 === 0);
        const figures = new Map(
          counted.map(({ id }, at): [string, Figure] => [id, { id, bytes: 1000 * at, unsaved: at % 3 }]),
        );
        const list = sorted(rows, { by, reversed }, figures);
        expect(list.toSorted((a, b) => (a.id < b.id ? -1 : 1))).toEqual(
          rows.toSorted((a, b) => (a.id < b.id ? -1 : 1)),
        );
        if (by !== "size" && by !== "unsaved") return;
        const isCounted = list.map(({ id }) => figures.has(id));
        expect(isCounted).toEqual(isCounted.toSorted((a, b) => Number(b) - Number(a)));
      }),
    );
  });

  it("reads names from A, with numbers as numbers, and counts and days from the most", () => {
    fc.assert(
      fc.property(someRows, (rows) => {
        const of = <K extends keyof ProjectRow>(by: SortBy, field: K, reversed = false) =>
          sorted(rows, { by, reversed }, new Map()).map((row) => row[field]);
        const names = of("name", "name");
        const [ten, two] = [names.indexOf("Neap Tide 10"), names.lastIndexOf("Neap Tide 2")];
        expect(ten < 0 || ten > two).toBe(true);
        expect(of("strips", "strips")).toEqual(of("strips", "strips").toSorted((a, b) => b - a));
        expect(of("strips", "strips", true)).toEqual(of("strips", "strips").toReversed());
        expect(of("changed", "changedAt")).toEqual(of("changed", "changedAt").toSorted().toReversed());
        expect(of("tempo", "tempo")).toEqual(of("tempo", "tempo").toSorted((a, b) => a - b));
      }),
    );
  });

  it("is found by the beginnings of words of name, song, artist, client and year", () => {
    const row = { ...fc.sample(someRow, 1)[0]!, name: "Salt Lanterns", song: "Ferry Light", artist: "Copper Heron" };
    const is = (typed: string) =>
      isFound({ ...row, client: "Moss & Meridian", changedAt: "2025-07-01T10:00:00Z" }, typed);
    expect(["", "lant", "COPPER fer", "meridian 2025", "salt moss"].every(is)).toBe(true);
    expect(["anterns", "salt 2026", "tidal"].some(is)).toBe(false);
  });
});

it("sizes are told in the largest unit that leaves something before the point", () => {
  expect(
    [0, 400, 21_600, 999_400, 1_240_000, 2_500_000_000].map((bytes) => Object.values(formatSize(bytes)).join(" ")),
  ).toEqual(["1 kB", "1 kB", "22 kB", "999 kB", "1.2 MB", "2.5 GB"]);
});
