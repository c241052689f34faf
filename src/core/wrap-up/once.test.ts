import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FOLLOWING_PROJECTS } from "@/demo/sets";
import { findCompanions } from "../projects/companions";
import { isStrips } from "../presets/preset";
import { withCompanions } from "./companions";
import { findsIn } from "./finds";
import { type Found, onceEach } from "./once";
import type { FindStanding } from "./standing";

const STANDINGS: readonly FindStanding[] = [
  { is: "new" },
  { is: "near", preset: "p", name: "P", version: 1, distance: 0.01 },
  { is: "changed", preset: "p", name: "P", version: 1, newest: 2 },
];

const [, first] = FOLLOWING_PROJECTS[0]!;
const [aFind] = findsIn(first);

const found = fc
  .record({
    project: fc.constantFrom("a", "b", "c"),
    level: fc.constantFrom("plugin" as const, "chain" as const, "set" as const),
    key: fc.string({ minLength: 1, maxLength: 4 }),
    fingerprint: fc.constantFrom("1", "2", "3", "4"),
    standing: fc.constantFrom(...STANDINGS),
    weight: fc.integer({ min: 0, max: 4 }),
    isProposed: fc.boolean(),
    wasLeft: fc.boolean(),
  })
  .map(
    ({ project, level, key, ...told }): Found => ({
      ...told,
      project: { id: project, name: project, tempo: 120 },
      strip: { id: "s", kind: "audio", look: { name: "S" } },
      find: { ...aFind!, level, key },
      nearest: null,
      work: { changes: 0, minutes: 0, turned: 0, apart: 1 },
      isAlone: true,
      card: { folder: null, purpose: "", tags: [], origin: {} },
    }),
  );

describe("what was found in several projects", () => {
  it("stands once for each sound of a level, with every place in exactly one", () => {
    fc.assert(
      fc.property(fc.array(found, { maxLength: 30 }), (all) => {
        const once = onceEach(all);
        expect(new Set(once.map(({ id }) => id)).size).toBe(once.length);
        const places = once.flatMap((one) => one.places);
        expect(places).toHaveLength(all.length);
        expect(new Set(places)).toEqual(new Set(all));
        for (const { places: own, find, fingerprint } of once)
          for (const place of own) expect([place.find.level, place.fingerprint]).toEqual([find.level, fingerprint]);
      }),
    );
  });

  it("is proposed where it is in any place, was passed over where it was in all, and can be a version where it is in any", () => {
    fc.assert(
      fc.property(fc.array(found, { maxLength: 30 }), (all) => {
        for (const { places, isProposed, wasLeft, standing, weight } of onceEach(all)) {
          expect(isProposed).toBe(places.some((place) => place.isProposed));
          expect(wasLeft).toBe(places.every((place) => place.wasLeft));
          if (places.some((place) => place.standing.is === "changed")) expect(standing.is).toBe("changed");
          expect(weight).toBe(Math.max(...places.map((place) => place.weight)));
        }
      }),
    );
  });

  it("has what is proposed first, then the most work, in whichever order it came", () => {
    fc.assert(
      fc.property(fc.array(found, { maxLength: 30 }), (all) => {
        const ranks = (some: readonly Found[]) =>
          onceEach(some).map(({ isProposed, weight }) => (isProposed ? 10 : 0) + weight);
        expect(ranks(all)).toEqual(ranks(all).toSorted((a, b) => b - a));
        expect(ranks(all.toReversed())).toEqual(ranks(all));
      }),
    );
  });
});

describe("a strip with its companions", () => {
  const projects = FOLLOWING_PROJECTS.map(([, project]) => project);

  it("is kept as a set of all of them, itself first, and leads to them within it", () => {
    let seen = 0;
    for (const project of projects)
      for (const find of findsIn(project).filter(({ level }) => level === "strip")) {
        const along = findCompanions(project, find.strips).map(({ strip }) => strip.id);
        if (along.length === 0) continue;
        seen += 1;
        const whole = withCompanions(project, find, along);
        expect(whole).toMatchObject({ level: "set", from: null, strips: [...find.strips, ...along] });
        if (!isStrips(whole.content)) throw new Error("no set");
        expect(whole.content.strips.map(({ id }) => id).toSorted()).toEqual([...find.strips, ...along].toSorted());
        const inside = new Set(whole.content.strips.map(({ id }) => id));
        const self = whole.content.strips.find(({ id }) => id === find.place.strip)!;
        for (const { to } of self.sends ?? [])
          expect("strip" in to ? inside.has(to.strip) : !along.includes(to.name)).toBe(true);
      }
    expect(seen).toBeGreaterThan(5);
  });

  it("is itself where none of them is there", () => {
    const [project] = projects;
    const find = findsIn(project!).find(({ level }) => level === "strip")!;
    expect(withCompanions(project!, find, [])).toBe(find);
    expect(withCompanions(project!, find, ["nobody", find.place.strip])).toBe(find);
  });
});
