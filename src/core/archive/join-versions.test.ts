import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Lineage, joinVersions, renumbering, standingOfVersions } from "./join-versions";

const at = (n: number): string => new Date(Date.UTC(2026, 0, 1) + n * 60_000).toISOString();

/** A library of one preset that went its way: it saves, and takes in what another has. */
const saved = (versions: readonly Lineage[], time: number, who: string): readonly Lineage[] => [
  ...versions,
  { version: versions.length + 1, savedAt: at(time), fingerprint: `${who}${time}`, basedOn: null },
];

const asLineage = (own: readonly Lineage[], theirs: readonly Lineage[]): readonly Lineage[] =>
  joinVersions(own, theirs).map(({ version, basedOn, own: here, theirs: there }) => {
    const { savedAt, fingerprint } = here !== null ? own[here - 1]! : theirs[there! - 1]!;
    return { version, savedAt, fingerprint, basedOn };
  });

const BEGUN = saved(saved([], 0, "x"), 1, "x");

/** Three machines that save and take each other's in any order; the clocks of two are wrong. */
const machines = fc
  .array(
    fc.oneof(
      fc.record({ kind: fc.constant("save" as const), who: fc.nat(2), time: fc.integer({ min: -3, max: 40 }) }),
      fc.record({ kind: fc.constant("take" as const), who: fc.nat(2), from: fc.nat(2) }),
    ),
    { maxLength: 24 },
  )
  .map((acts) => {
    const all: (readonly Lineage[])[] = [BEGUN, BEGUN, BEGUN];
    for (const [n, act] of acts.entries())
      all[act.who] =
        act.kind === "save"
          ? saved(all[act.who]!, act.time + n / 100, "abc"[act.who]!)
          : asLineage(all[act.who]!, all[act.from]!);
    return all as unknown as readonly [readonly Lineage[], readonly Lineage[], readonly Lineage[]];
  });

describe("Versions of two sides", () => {
  it("are one list from both sides, and with it again that list", () => {
    fc.assert(
      fc.property(machines, ([a, b]) => {
        const both = asLineage(a, b);
        expect(asLineage(b, a)).toEqual(both);
        expect(asLineage(both, a)).toEqual(both);
        expect(asLineage(b, both)).toEqual(both);
        expect(asLineage(a, a)).toEqual(a);
      }),
    );
  });

  it("of three, it does not matter which two meet first", () => {
    fc.assert(
      fc.property(machines, ([a, b, c]) => {
        expect(asLineage(asLineage(a, b), c)).toEqual(asLineage(a, asLineage(b, c)));
      }),
    );
  });

  it("hold all that either had, each behind what it was made of", () => {
    fc.assert(
      fc.property(machines, ([a, b]) => {
        const both = asLineage(a, b);
        const names = (list: readonly Lineage[]) => list.map((v) => `${v.savedAt} ${v.fingerprint}`);
        expect(new Set(names(both))).toEqual(new Set([...names(a), ...names(b)]));
        expect(both.map((v) => v.version)).toEqual(both.map((_, n) => n + 1));
        for (const { version, basedOn } of both) expect(basedOn ?? version - 1).toBeLessThan(version);
      }),
    );
  });

  it("keep their numbers where one side only went on, and stand beside each other where both did", () => {
    const further = saved(saved(BEGUN, 5, "a"), 6, "a");
    const joined = joinVersions(BEGUN, further);
    expect(standingOfVersions(joined)).toBe("newer");
    expect(standingOfVersions(joinVersions(further, BEGUN))).toBe("older");
    expect(renumbering(joined, "theirs").size).toBe(0);
    expect(standingOfVersions(joinVersions(further, further))).toBe("same");

    const other = saved(BEGUN, 4, "b");
    const forked = joinVersions(further, other);
    expect(standingOfVersions(forked)).toBe("forked");
    // What was saved first comes first: this side's 3 and 4 are 4 and 5 now, and 4 was made of 2.
    expect([...renumbering(forked, "own")]).toEqual([
      [3, 4],
      [4, 5],
    ]);
    expect(forked[3]).toEqual({ version: 4, basedOn: 2, own: 3, theirs: null });
    expect(renumbering(forked, "theirs").size).toBe(0);
  });
});
