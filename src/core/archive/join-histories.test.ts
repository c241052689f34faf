import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { isBranch } from "./branch";
import { type Mark, joinHistories } from "./join-histories";

const mark = (n: number, who: string, time: number): Mark => ({
  n,
  at: new Date(Date.UTC(2026, 0, 1) + time * 1000).toISOString(),
  label: `Change of ${who}`,
  window: null,
});

const past = (who: string, from: number, count: number, offset = 0): readonly Mark[] =>
  Array.from({ length: count }, (_, at) => mark(from + at + 1, who, from + at + offset));

const BOTH = past("both", 0, 3);

describe("Two pasts of a project", () => {
  it("are the same, or one has gone further", () => {
    expect(joinHistories("p", BOTH, BOTH)).toMatchObject({ standing: "same", common: 3 });
    expect(joinHistories("p", BOTH, [...BOTH, ...past("a", 3, 2)])).toMatchObject({ standing: "newer", common: 3 });
    expect(joinHistories("p", [...BOTH, ...past("a", 3, 2)], BOTH)).toMatchObject({ standing: "older", common: 3 });
  });

  it("that forked agree from both sides on which keeps the id, and on that of the other, however far each goes", () => {
    const lengths = fc.integer({ min: 1, max: 5 });
    const offsets = fc.nat(10);
    fc.assert(
      fc.property(lengths, lengths, offsets, (long, short, offset) => {
        const a = [...BOTH, ...past("a", 3, long)];
        const b = [...BOTH, ...past("b", 3, short, offset)];
        const [here, there] = [joinHistories("p", a, b), joinHistories("p", b, a)];
        expect(here.standing).toBe("forked");
        expect(there.trunk).toBe(here.trunk === "own" ? "theirs" : "own");
        expect(there.aside).toBe(here.aside);
        expect(isBranch(here.aside)).toBe(true);
        expect(joinHistories("p", [...a, ...past("a", 20, 2)], b).aside).toBe(here.aside);
        expect(joinHistories("q", a, b).aside).not.toBe(here.aside);
      }),
    );
  });
});
