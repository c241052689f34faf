import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applySteps } from "../recall/apply";
import { counter, someProject } from "../recall/testing/generators";
import { cellOf } from "../recall/steps";
import { inPlace, stepsBetween } from "./between";
import { twoMoments } from "./testing/moments";

const RUNS = { numRuns: 60 };

describe("the steps between two moments", () => {
  it("lead from one to the other", () => {
    fc.assert(
      fc.property(twoMoments, ({ now, then }) => {
        const there = applySteps(now, stepsBetween({ now, then }, counter()));
        expect(there.ok && there.value).toEqual(then);
      }),
      RUNS,
    );
  });

  it("are none where nothing differs, and leave alone what is alike", () => {
    fc.assert(
      fc.property(twoMoments, ({ now, then }) => {
        expect(stepsBetween({ now, then: structuredClone(now) }, counter())).toEqual([]);
        const steps = stepsBetween({ now, then }, counter());
        const there = applySteps(now, steps);
        const touched = new Set(steps.flatMap((step) => cellOf(step).strip ?? []));
        for (const strip of now.strips)
          if (!touched.has(strip.id)) expect(there.ok && there.value.strips.includes(strip)).toBe(true);
      }),
      RUNS,
    );
  });

  it("move one strip where only one stands elsewhere", () => {
    fc.assert(
      fc.property(someProject, fc.nat(), fc.nat(), (now, from, to) => {
        const strips = [...now.strips];
        const [moved] = strips.splice(from % strips.length, 1);
        strips.splice(to % (strips.length + 1), 0, moved!);
        expect(stepsBetween({ now, then: { ...now, strips } }, counter()).length).toBeLessThanOrEqual(1);
      }),
      RUNS,
    );
  });
});

describe("what stays in place", () => {
  it("is in order in both, and as many as there can be", () => {
    const some = fc.uniqueArray(fc.constantFrom(..."abcdefgh"), { maxLength: 8 });
    const both = some.chain((now) =>
      fc.tuple(fc.constant(now), fc.shuffledSubarray(now, { minLength: now.length, maxLength: now.length })),
    );
    fc.assert(
      fc.property(both, ([now, then]) => {
        const still = inPlace(now, then);
        expect(now.filter((id) => still.has(id))).toEqual(then.filter((id) => still.has(id)));
        // By trying all.
        const subsets = Array.from({ length: 2 ** now.length }, (_, mask) => now.filter((_, at) => mask & (2 ** at)));
        const isRun = (ids: readonly string[]) =>
          then.filter((id) => ids.includes(id)).every((id, at) => id === ids[at]);
        expect(still.size).toBe(Math.max(...subsets.filter(isRun).map((ids) => ids.length)));
      }),
    );
  });
});
