import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MOST_MIXES } from "../../documents/limits";
import { type Mix, findMix, mixTitle, mixesOf, withMix } from "../../projects/mixes";
import { type Project, withoutKept } from "../../projects/project";
import { applySteps } from "../apply";
import { invertSteps } from "../step";
import { someProject } from "../testing/generators";
import type { Step } from ".";

const someMix: fc.Arbitrary<Mix> = fc.record({
  id: fc.constantFrom("a", "b", "c", "d"),
  name: fc.constantFrom("Chorus up", "For the label", "Dry"),
  take: fc.constantFrom("", "2"),
  note: fc.constantFrom("", "as they heard it"),
  at: fc.constantFrom("2026-11-24T10:00:00.000Z", "2026-11-25T10:00:00.000Z"),
  n: fc.nat(5),
});

const setMix = (project: Project, mix: string, to: Mix | null): Step => ({
  id: "s",
  kind: "setMix",
  mix,
  from: findMix(project, mix),
  to,
});

const after = (project: Project, steps: readonly Step[]): Project => {
  const applied = applySteps(project, steps);
  if (!applied.ok) throw new Error(applied.error.reason);
  return applied.value;
};

const CHORUS: Mix = { id: "a", name: "Chorus up", take: "", note: "", at: "2026-11-24T10:00:00.000Z", n: 3 };

describe("mixes that are kept of a project", () => {
  it("are taken back by the inverse of their steps, and touch nothing that is heard", () => {
    fc.assert(
      fc.property(someProject, fc.array(someMix, { maxLength: 8 }), (project, mixes) => {
        const steps: Step[] = [];
        let kept = project;
        for (const mix of mixes) {
          const step = setMix(kept, mix.id, mix);
          steps.push(step);
          kept = after(kept, [step]);
        }
        expect(withoutKept(kept)).toEqual(project);
        expect(kept.strips).toBe(project.strips);
        expect(after(kept, invertSteps(steps))).toEqual(project);
      }),
      { numRuns: 60 },
    );
  });

  it("stand by their moments, in whichever order they were kept", () => {
    fc.assert(
      fc.property(someProject, fc.uniqueArray(someMix, { selector: ({ id }) => id }), (project, mixes) => {
        const all = (some: readonly Mix[]) => some.reduce((kept, mix) => withMix(kept, mix.id, mix), project);
        expect(all(mixes)).toEqual(all(mixes.toReversed()));
        expect(mixesOf(all(mixes)).map(({ n }) => n)).toEqual(mixes.map(({ n }) => n).toSorted((a, b) => a - b));
      }),
      { numRuns: 60 },
    );
  });

  it("are refused where another stands there, under another key, and beyond the most", () => {
    const [project] = fc.sample(someProject, 1);
    const refusal = (on: Project, step: Step) => {
      const applied = applySteps(on, [step]);
      return applied.ok ? null : applied.error.reason;
    };
    const kept = after(project!, [setMix(project!, "a", CHORUS)]);
    const other = { ...CHORUS, name: "Dry" };
    expect(refusal(kept, { ...setMix(project!, "a", other) })).toBe("The kept mix has changed since.");
    expect(refusal(kept, setMix(kept, "b", CHORUS))).toBe("The step is for “b” and places “a”.");
    const full = { ...project!, mixes: Array.from({ length: MOST_MIXES }, (_, at) => ({ ...CHORUS, id: `m${at}` })) };
    expect(refusal(full, setMix(full, "a", CHORUS))).toBe("Of a project 500 mixes are kept at the most.");
  });

  it("are told by name, and by take where one is told", () => {
    expect(mixTitle(CHORUS)).toBe("Chorus up");
    expect(mixTitle({ ...CHORUS, take: "3" })).toBe("Chorus up, take 3");
  });
});
