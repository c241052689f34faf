import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fold } from "../names/words";
import { type DatedFolder, joinFolders } from "./join-folders";

const at = (n: number): string => new Date(Date.UTC(2026, 0, 1) + n * 60_000).toISOString();

const folder = (id: string, name: string, parent: string | null, time = 0): DatedFolder => ({
  id,
  name,
  parent,
  changedAt: at(time),
});

/** A tree of a few folders whose ids and names meet those of other trees. */
const tree = fc
  .array(fc.record({ id: fc.nat(9), name: fc.nat(4), parent: fc.option(fc.nat(9)), time: fc.nat(6) }), { maxLength: 9 })
  .map((drafts) => {
    const made = new Map<string, DatedFolder>();
    for (const { id, name, parent, time } of drafts) {
      const stands = parent !== null && made.has(`f${parent}`) ? `f${parent}` : null;
      const clash = [...made.values()].some((f) => f.parent === stands && f.name === `Name ${name}`);
      if (!clash && !made.has(`f${id}`)) made.set(`f${id}`, folder(`f${id}`, `Name ${name}`, stands, time));
    }
    return [...made.values()];
  });

const byId = (folders: readonly DatedFolder[]) => folders.toSorted((a, b) => (a.id < b.id ? -1 : 1));

describe("Folders of two sides", () => {
  it("are the same from both sides, and with what came of it that again", () => {
    fc.assert(
      fc.property(tree, tree, (a, b) => {
        const both = joinFolders(a, b);
        const other = joinFolders(b, a);
        expect(byId(other.folders)).toEqual(byId(both.folders));
        expect(new Map(other.instead)).toEqual(new Map(both.instead));
        expect(byId(joinFolders(both.folders, both.folders).folders)).toEqual(byId(both.folders));
      }),
    );
  });

  it("stand in one that is there, none within itself, no two of a name beside each other, and none is lost", () => {
    fc.assert(
      fc.property(tree, tree, (a, b) => {
        const { folders, instead } = joinFolders(a, b);
        const seen = new Set<string>();
        for (const { id, parent } of folders) {
          if (parent !== null) expect(seen).toContain(parent);
          seen.add(id);
        }
        const places = folders.map(({ name, parent }) => `${parent} ${fold(name)}`);
        expect(new Set(places).size).toBe(places.length);
        for (const { id } of [...a, ...b]) expect(seen.has(id) || seen.has(instead.get(id) ?? "")).toBe(true);
      }),
    );
  });

  it("go by the later name, and are one where nobody could tell them apart", () => {
    const here = [folder("a", "Drums", null, 1), folder("c", "Kick", "a", 1)];
    const there = [folder("a", "Percussion", null, 2), folder("b", "percussion", null, 1), folder("d", "Kick", "b", 1)];
    const { folders, instead } = joinFolders(here, there);
    expect(folders.map((f) => [f.id, f.name, f.parent])).toEqual([
      ["a", "Percussion", null],
      ["c", "Kick", "a"],
    ]);
    expect([...instead]).toEqual([
      ["b", "a"],
      ["d", "c"],
    ]);
  });

  it("that were moved into each other stand again, the one that was moved last at the top", () => {
    const here = [folder("a", "A", null, 1), folder("b", "B", "a", 3)];
    const there = [folder("b", "B", null, 1), folder("a", "A", "b", 2)];
    const { folders } = joinFolders(here, there);
    expect(folders.map((f) => [f.id, f.parent])).toEqual([
      ["b", null],
      ["a", "b"],
    ]);
  });
});
