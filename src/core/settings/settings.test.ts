import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { findKeyProblem } from "./keys";
import { NO_SETTINGS, startingPointFor, withPattern, withShortcut, withStartingPoint } from "./settings";

const EVERYWHERE = { model: "room", strip: null } as const;
const RETURNS = { model: "room", strip: "return" } as const;
const NEWEST = (preset: string) => ({ preset, version: null });

describe("starting points", () => {
  it("for a kind of strip come before those for everywhere", () => {
    const both = withStartingPoint(withStartingPoint(NO_SETTINGS, EVERYWHERE, NEWEST("a")), RETURNS, NEWEST("b"));
    expect(startingPointFor(both, "room", "return")?.preset).toBe("b");
    expect(startingPointFor(both, "room", "audio")?.preset).toBe("a");
    expect(startingPointFor(both, "room", null)?.preset).toBe("a");
    expect(startingPointFor(both, "hall", "return")).toBeNull();
  });
  it("are one for each place, and back at the maker's in one step", () => {
    const twice = withStartingPoint(withStartingPoint(NO_SETTINGS, EVERYWHERE, NEWEST("a")), EVERYWHERE, NEWEST("b"));
    expect(twice.startingPoints).toEqual([{ ...EVERYWHERE, ...NEWEST("b") }]);
    expect(withStartingPoint(twice, EVERYWHERE, null)).toEqual(NO_SETTINGS);
  });
  it("of a kind of strip alone are for new strips, not for plugins", () => {
    const strips = withStartingPoint(NO_SETTINGS, { model: null, strip: "audio" }, NEWEST("s"));
    expect(startingPointFor(strips, null, "audio")?.preset).toBe("s");
    expect(startingPointFor(strips, "room", "audio")).toBeNull();
  });
});

describe("patterns", () => {
  it("stand in the order of their last use, each once, and not without end", () => {
    const used = fc.array(fc.constantFrom("a", "b", "c", "d", "e", "f", "g", "h", "i", "j"), { minLength: 1 });
    fc.assert(
      fc.property(used, (list) => {
        const kept = list.reduce((settings, one) => withPattern(settings, "chain", one), NO_SETTINGS).patterns.chain!;
        expect(kept[0]).toBe(list.at(-1));
        expect(new Set(kept).size).toBe(kept.length);
        expect(kept.length).toBeLessThanOrEqual(8);
      }),
    );
  });
});

describe("shortcuts", () => {
  const apply = { preset: "p" };
  const add = { model: "room" };
  it("are one for a thing and one thing for a key", () => {
    const first = withShortcut(NO_SETTINGS, apply, "Q");
    expect(withShortcut(first, apply, "Q V").shortcuts).toEqual([{ keys: "Q V", does: apply }]);
    expect(withShortcut(first, add, "Q").shortcuts).toEqual([{ keys: "Q", does: add }]);
    expect(withShortcut(first, apply, null)).toEqual(NO_SETTINGS);
  });
  it("are refused where they could never be pressed, with the reason", () => {
    const used = [
      { keys: "B", title: "Open on the bench" },
      { keys: "Q V", title: "Apply “Rim”" },
    ];
    for (const [keys, reason] of [
      ["", "one key"],
      ["A B C", "one key"],
      ["Ctrl+W", "browser"],
      ["M", "mute"],
      ["Q S", "solo"],
      ["B", "already"],
      ["B X", "alone is"],
      ["Q", "begins"],
    ] as const)
      expect(findKeyProblem(keys, used)).toContain(reason);
    expect(findKeyProblem("Q X", used)).toBeNull();
    expect(findKeyProblem("Ctrl+Alt+1", used)).toBeNull();
  });
});
