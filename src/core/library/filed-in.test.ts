import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type FiledIn, alsoIn, foldersOf, isFiledWell, movedTo, outOf } from "./filed-in";

const FOLDERS = ["voices", "lead", "brass", "rooms"];
const folder = fc.constantFrom(...FOLDERS);
const acts = fc.array(
  fc.oneof(
    fc.record({ act: fc.constant("move" as const), to: fc.option(folder) }),
    fc.record({ act: fc.constant("also" as const), to: folder }),
    fc.record({ act: fc.constant("out" as const), to: folder }),
  ),
);

const after = (all: typeof acts extends fc.Arbitrary<infer A> ? A : never): FiledIn =>
  all.reduce<FiledIn>(
    (card, step) =>
      step.act === "move" ? movedTo(card, step.to) : step.act === "also" ? alsoIn(card, step.to) : outOf(card, step.to),
    { folder: null },
  );

describe("where a sound lies", () => {
  it("keeps the laws, whatever is done", () => {
    fc.assert(fc.property(acts, (all) => isFiledWell(after(all))));
    expect(isFiledWell({ folder: null, alsoIn: ["lead"] })).toBe(false);
    expect(isFiledWell({ folder: "lead", alsoIn: ["lead"] })).toBe(false);
    expect(isFiledWell({ folder: "lead", alsoIn: ["rooms", "rooms"] })).toBe(false);
  });

  it("is its new home, and still all that referred to it", () => {
    fc.assert(
      fc.property(acts, folder, (all, home) => {
        const before = after(all);
        const now = movedTo(before, home);
        expect(now.folder).toBe(home);
        expect(now.alsoIn).toEqual((before.alsoIn ?? []).filter((one) => one !== home));
      }),
    );
  });

  it("is one folder more, and that less again", () => {
    fc.assert(
      fc.property(acts, folder, (all, more) => {
        const before = after(all);
        expect(foldersOf(alsoIn(before, more))).toContain(more);
        if (foldersOf(before).includes(more)) return;
        expect(foldersOf(outOf(alsoIn(before, more), more))).toEqual(foldersOf(before));
      }),
    );
  });

  it("is the first that referred to it when it is taken out of its home", () => {
    expect(outOf({ folder: "lead", alsoIn: ["brass", "rooms"] }, "lead")).toEqual({
      folder: "brass",
      alsoIn: ["rooms"],
    });
    expect(outOf({ folder: "lead" }, "lead")).toEqual({ folder: null, alsoIn: [] });
  });
});
