import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fingerprint } from "../presets/fingerprint";
import { findContentProblem } from "../presets/whole";
import { processorsOf } from "../chains/tree";
import { applySteps } from "../recall/apply";
import { counter, someProject } from "../recall/testing/generators";
import { followFind } from "./follow";
import { NEARLY, proposedAmong, standingOf } from "./standing";
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

describe("what was kept", () => {
  it("goes by the name that it was kept as, one after the other, and sounds as it did", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const mint = counter("followed");
        let now = project;
        for (const find of findsIn(project)) {
          const from = { preset: `kept-${find.key}`.slice(0, 80), version: 1, name: find.name };
          const applied = applySteps(now, followFind(now, find, find.content, { from, mint }));
          if (!applied.ok) throw new Error(applied.error.reason);
          now = applied.value;
          const again = findsIn(now).find(({ key }) => key === find.key);
          if (find.level === "plugin" || find.level === "chain") expect(again?.from?.preset).toBe(from.preset);
        }
        const prints = (one: typeof project) => findsIn(one).map(({ key, content }) => [key, fingerprint(content)]);
        expect(prints(now)).toEqual(prints(project));
      }),
    );
  });
});

const sound = { preset: "rim", name: "Rim and air", version: 2 };

describe("how something stands to the library", () => {
  it("is kept where it is there, else a version of what it came from, else near to something, else new", () => {
    const origin = { ...sound, newest: 3 };
    const nearest = { ...sound, distance: NEARLY };
    expect(standingOf({ same: sound, origin, nearest }).is).toBe("kept");
    expect(standingOf({ same: null, origin, nearest })).toEqual({ is: "changed", ...origin });
    expect(standingOf({ same: null, origin: null, nearest })).toEqual({ is: "near", ...nearest });
    expect(standingOf({ same: null, origin: null, nearest: { ...nearest, distance: 0.2 } }).is).toBe("new");
  });

  it("proposes of each strip the smallest that holds all that sounds, where the library has it not", () => {
    fc.assert(
      fc.property(someProject, fc.array(fc.boolean()), (project, kept) => {
        const finds = findsIn(project).map((find, n) => ({
          ...find,
          standing: kept[n] ? standingOf({ same: sound, origin: null, nearest: null }) : ({ is: "new" } as const),
        }));
        const proposed = proposedAmong(finds);
        for (const { id, inserts, source } of project.strips) {
          const own = finds.filter((find) => find.place.strip === id);
          const chosen = own.filter(({ key }) => proposed.has(key));
          expect(chosen.length).toBeLessThanOrEqual(1);
          for (const find of chosen) {
            expect(find.standing.is).toBe("new");
            expect(find.level).not.toBe("set");
            const plugins = processorsOf(inserts).length;
            if (source.type !== "layers") expect(find.level).toBe(plugins > 1 ? "chain" : "plugin");
          }
        }
      }),
    );
  });
});

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
