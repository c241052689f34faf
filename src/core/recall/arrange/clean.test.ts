import fc from "fast-check";
import { expect, it } from "vitest";
import { findProjectProblem } from "../../projects/problems";
import { PART } from "../../strips/parts";
import { counter, someProject } from "../testing/generators";
import { CLEANED, cleanedDown } from "./clean";

const some = someProject.chain((project) =>
  fc.record({
    project: fc.constant(project),
    strips: fc.subarray(project.strips.map(({ id }) => id)),
    parts: fc.subarray([...CLEANED]),
  }),
);

it("a project cleaned down has the strips and parts that stay, whole, and leads nowhere that is gone", () => {
  const met = { made: 0, refused: 0 };
  fc.assert(
    fc.property(some, ({ project, strips, parts }) => {
      const cleaned = cleanedDown(project, { strips, parts }, counter("new"));
      if (!cleaned.ok) {
        met.refused += 1;
        return expect(cleaned.error).toMatch(/loop/);
      }
      met.made += 1;
      const { value } = cleaned;
      expect(findProjectProblem(value)).toBeNull();
      const main = project.strips.filter(({ kind }) => kind === "main").map(({ id }) => id);
      expect(value.strips.map(({ id }) => id)).toEqual(
        project.strips.map(({ id }) => id).filter((id) => strips.includes(id) || main.includes(id)),
      );
      for (const strip of value.strips) {
        const before = project.strips.find(({ id }) => id === strip.id)!;
        expect([strip.look.name, strip.kind]).toEqual([before.look.name, before.kind]);
        for (const part of CLEANED)
          if (!parts.includes(part)) expect(strip[part]).toEqual(PART[part].empty(strip.kind));
          else if (part === "level" || part === "pan") expect(strip[part]).toEqual(before[part]);
      }
      expect([value.artist, value.client, value.song]).toEqual(["", "", ""]);
    }),
    { numRuns: 200 },
  );
  expect(met.made).toBeGreaterThan(150);
});

it("with all that it has it is the same sound", () => {
  fc.assert(
    fc.property(someProject, (project) => {
      const all = { strips: project.strips.map(({ id }) => id), parts: CLEANED };
      const cleaned = cleanedDown(project, all, counter("new"));
      expect(cleaned.ok && cleaned.value.strips).toEqual(project.strips);
    }),
    { numRuns: 50 },
  );
});
