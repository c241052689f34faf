import fc from "fast-check";
import type { Project } from "../../projects/project";
import { someProject } from "../../recall/testing/generators";

/** Two moments of one project by chance: they share some strips, in any order, some with parts of the other. */
export const twoMoments: fc.Arbitrary<{ readonly now: Project; readonly then: Project }> = fc
  .tuple(someProject, someProject)
  .chain(([now, other]) => {
    const all = [...now.strips, ...other.strips.filter(({ id }) => !now.strips.some((s) => s.id === id))];
    const mixed = all.map((strip) => other.strips.find((s) => s.id === strip.id && s.kind === strip.kind) ?? strip);
    return fc
      .tuple(fc.subarray(mixed), fc.subarray(all), fc.constantFrom("", "Nave Records"))
      .chain(([some, same, client]) => {
        const kept = same.filter(({ id }) => !some.some((s) => s.id === id));
        return fc
          .shuffledSubarray([...some, ...kept], { minLength: some.length + kept.length })
          .map((strips) => ({ now, then: { ...now, client, strips } }));
      });
  });
