import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fingerprint } from "../presets/fingerprint";
import { findContentProblem } from "../presets/whole";
import { someProject } from "../recall/testing/generators";
import { type Find, LEVELS, findsIn } from "./finds";
import { type Told, type Work, readingSpent, turnedIn, weightOf } from "./work";

describe("what a project has to be kept", () => {
  it("can be kept as it is, stands once each, and is what its strips hold", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const finds = findsIn(project);
        expect(new Set(finds.map(({ key }) => key)).size).toBe(finds.length);
        for (const { content, strips, level } of finds) {
          // What is kept of one strip leads to no other of this project but by its name.
          if (level !== "set") expect(JSON.stringify(content)).not.toContain('{"strip":"');
          expect(findContentProblem(content)).toBeNull();
          expect(LEVELS).toContain(level);
          for (const strip of strips) expect(project.strips.some(({ id }) => id === strip)).toBe(true);
          expect(fingerprint(content)).toMatch(/^2:/);
        }
      }),
    );
  });
});

const MINUTE = 60_000;
const told = (at: number, strips: readonly string[], parts: Told["about"]["parts"] = ["inserts"]): Told => ({
  at: at * MINUTE,
  about: { strips: strips.map((id) => ({ id, name: id })), parts },
});
const chain = (strip: string): Pick<Find, "level" | "strips"> => ({ level: "chain", strips: [strip] });

describe("the work that is in something", () => {
  it("is what was done to it, and the time before each change, but for pauses", () => {
    const spent = readingSpent([
      told(0, ["cello"]),
      told(2, ["cello"]),
      told(3, ["voice"]),
      told(4, ["cello"], ["level"]),
      told(400, ["cello", "voice"]),
    ]);
    expect(spent(chain("cello"))).toEqual({ changes: 3, minutes: 2 + 2.5 });
    expect(spent(chain("voice"))).toEqual({ changes: 2, minutes: 1 + 2.5 });
    expect(spent({ level: "strip", strips: ["cello"] })).toEqual({ changes: 4, minutes: 2 + 1 + 2.5 });
    expect(spent({ level: "set", strips: ["cello", "voice"] })).toEqual({ changes: 5, minutes: 2 + 1 + 1 + 5 });
    expect(spent(chain("nobody"))).toEqual({ changes: 0, minutes: 0 });
  });

  it("counts what is not where it begins", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const finds = findsIn(project);
        for (const find of finds.filter(({ level }) => level === "chain"))
          expect(turnedIn(find.content)).toBeGreaterThan(0);
      }),
    );
  });

  it("is never less for more of anything", () => {
    const some = fc.record({
      changes: fc.nat(1000),
      minutes: fc.double({ min: 0, max: 1000, noNaN: true }),
      turned: fc.nat(300),
      apart: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(some, fc.constantFrom<keyof Work>("changes", "minutes", "turned"), (work, field) => {
        expect(weightOf({ ...work, [field]: work[field] + 1 })).toBeGreaterThanOrEqual(weightOf(work));
        expect(weightOf(work)).toBeLessThanOrEqual(4);
      }),
    );
  });
});
