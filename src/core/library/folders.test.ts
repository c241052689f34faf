import { describe, expect, it } from "vitest";
import { depthsOf, pathsOf, withBelow } from "./folders";

const FOLDERS = [
  { id: "v", name: "Voices", parent: null },
  { id: "c", name: "Choir", parent: "v" },
  { id: "n", name: "Nave", parent: "c" },
  { id: "b", name: "Brass", parent: null },
];

describe("folders within folders", () => {
  it("are told by their depth, their path and what is below them", () => {
    expect([...depthsOf(FOLDERS).values()]).toEqual([0, 1, 2, 0]);
    expect([...pathsOf(FOLDERS).values()]).toEqual(["Voices", "Voices / Choir", "Voices / Choir / Nave", "Brass"]);
    expect([...withBelow(FOLDERS, "c")]).toEqual(["c", "n"]);
    expect(withBelow(FOLDERS, "gone").size).toBe(0);
  });

  it("may be in each other as deep as anyone likes", () => {
    const deep = Array.from({ length: 20_000 }, (_, n) => ({
      id: `f${n}`,
      name: "x",
      parent: n === 0 ? null : `f${n - 1}`,
    }));
    expect(depthsOf(deep).get("f19999")).toBe(19_999);
    expect(withBelow(deep, "f10").size).toBe(19_990);
  });
});
