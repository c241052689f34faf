import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { PresetRef } from "../chains/chain";
import { follow } from "../recall/gestures";
import { planRecall } from "../recall/plan";
import { applySteps } from "../recall/apply";
import { sentenceOf } from "../recall/sentences";
import { counter, someStrips } from "../recall/testing/generators";
import type { Project } from "../projects/project";
import { getStrip } from "../projects/project";
import { type Strip, aimsOf, createStrip, offeredParts, presetsIn, withAims } from "../strips/strip";
import { asStrip } from "./as-strip";
import { contentMeant } from "./meant";
import { fingerprint } from "./fingerprint";
import { type Content, type Strips, isStrips, withFrom } from "./preset";
import { saveStrips, withoutSet } from "./save";
import { differencesFrom, referenceOf } from "./standing";
import { compareContents, followingKeys } from "./versions-of-sets";
import { findContentProblem } from "./whole";

/* A strip that came from a set goes by that set, and by which strip of it. */

const RUNS = { numRuns: 200, seed: 1313 };
const FROM: PresetRef = { preset: "kit", version: 2, name: "Kit" };
const setOf = (content: Content): Strips => {
  if (!isStrips(content)) throw new Error("no set");
  return content;
};

describe("a set that was loaded", () => {
  it("says on each chain which strip it is; what has an origin of its own came along", () => {
    fc.assert(
      fc.property(someStrips, (content) => {
        const loaded = setOf(withFrom(content, FROM));
        setOf(content).strips.forEach((strip, at) => {
          const from = loaded.strips[at]!.inserts?.from;
          const set = { ...FROM, strip: strip.id };
          const own = strip.inserts?.from;
          expect(from).toEqual(strip.inserts && (own ? { ...own, along: set } : set));
        });
        expect(findContentProblem(loaded)).toEqual(findContentProblem(content));
        expect(fingerprint(loaded)).toBe(fingerprint(content));
      }),
      RUNS,
    );
  });

  it("means the one strip that is named, which knows the others by kind and name", () => {
    fc.assert(
      fc.property(someStrips, (content) => {
        for (const { id, name, ...strip } of setOf(content).strips) {
          const meant = contentMeant(content, { strip: id });
          const saved = meant && asStrip(meant);
          expect(Object.keys(saved ?? {}).toSorted()).toEqual(Object.keys(strip).toSorted());
          expect(aimsOf(saved!).every((ref) => "external" in ref)).toBe(true);
          expect(aimsOf(saved!)).toHaveLength(aimsOf(strip).length);
          expect(findContentProblem(meant!)).toBeNull();
        }
        expect(contentMeant(content, { strip: "nothing of that key" })).toBeNull();
        expect(contentMeant(content, {})).toBe(content);
      }),
      RUNS,
    );
  });
});

describe("the next version of a set", () => {
  /** The same strips as they would be of another project: under other keys. */
  const elsewhere = (content: Strips): Strips => ({
    ...content,
    strips: content.strips.map((strip) => ({
      ...withAims(strip, (ref) => ("strip" in ref ? { strip: `else ${ref.strip}` } : ref)),
      id: `else ${strip.id}`,
    })),
  });

  it("keeps the keys where the same strips are saved again", () => {
    fc.assert(
      fc.property(someStrips, (content) => void expect(followingKeys(setOf(content), setOf(content))).toEqual(content)),
      RUNS,
    );
  });

  it("finds strips of other keys by kind and name; no key is there twice, and all leads where it led", () => {
    fc.assert(
      fc.property(someStrips, (content) => {
        const before = setOf(content);
        const next = elsewhere(before);
        const followed = followingKeys(before, next);
        expect(new Set(followed.strips.map(({ id }) => id)).size).toBe(before.strips.length);
        expect(findContentProblem(followed)).toEqual(findContentProblem(next));
        expect(fingerprint(followed)).toBe(fingerprint(next));
        for (const [at, { id, kind, name }] of followed.strips.entries()) {
          const known = before.strips.find((strip) => strip.id === id);
          expect(known && { kind: known.kind, name: known.name }).toEqual({ kind, name });
          expect(next.strips[at]!.name).toBe(name);
        }
      }),
      RUNS,
    );
  });

  it("differs by nothing from itself, also under other keys", () => {
    fc.assert(
      fc.property(someStrips, (content) => {
        const besides = compareContents(content, elsewhere(setOf(content)));
        expect(besides).toHaveLength(setOf(content).strips.length);
        for (const { differences, parts, missing } of besides)
          expect([differences, parts, missing]).toEqual([[], [], null]);
      }),
      RUNS,
    );
  });

  it("gives a strip that is new a key of its own", () => {
    const [a, b] = ["Kick", "Snare"].map((name) => createStrip(name.toLowerCase(), "audio", { name }, null));
    const keep = (...strips: Strip[]) =>
      setOf(
        saveStrips(
          PROJECT(...strips),
          strips.map((strip) => ({ strip, parts: offeredParts(strip) })),
          "set",
        ),
      );
    const other = { ...a!, id: "k2" };
    expect(followingKeys(keep(a!), keep(b!, other)).strips.map(({ id, name }) => [id, name])).toEqual([
      ["snare", "Snare"],
      ["kick", "Kick"],
    ]);
  });
});

const PROJECT = (...strips: readonly Strip[]): Project => ({
  schema: 1,
  id: "p",
  name: "Weir Song",
  artist: "Copper Heron",
  client: "",
  song: "Weir Song",
  tempo: 92,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [...strips],
});

describe("strips that came from a set", () => {
  const gain = (dB: number) => ({
    type: "processor" as const,
    key: "g",
    model: "gain",
    enabled: true,
    values: { gain: dB },
  });
  const strip = (id: string, name: string, dB: number): Strip => ({
    ...createStrip(id, "audio", { name }, null),
    inserts: { nodes: [gain(dB)], macros: [] },
  });
  const kitOf = (kick: number, snare: number) => {
    const strips = [strip("kick", "Kick", kick), strip("snare", "Snare", snare)];
    return saveStrips(
      PROJECT(...strips),
      strips.map((one) => ({ strip: one, parts: offeredParts(one) })),
      "set",
    );
  };
  const THERE = PROJECT(strip("a", "SD", 0), strip("b", "BD", 0));
  const applied = (project: Project, request: Parameters<typeof planRecall>[0]["requests"][number]) => {
    const plan = planRecall({ project, requests: [request], except: [], answers: {}, mint: counter() });
    const after = applySteps(project, plan.steps);
    if (!after.ok) throw new Error(after.error.reason);
    return after.value;
  };
  const asSet = applied(THERE, {
    source: { content: kitOf(-3, -6), from: FROM, name: "Kit" },
    parts: ["inserts"],
    targets: { set: { onto: "matched", among: null, after: null } },
    mode: "replace",
  });

  it("go by it, each by its own", () => {
    expect(referenceOf(getStrip(asSet, "a"))).toEqual({ ...FROM, strip: "snare" });
    expect(referenceOf(getStrip(asSet, "b"))).toEqual({ ...FROM, strip: "kick" });
    const kick = contentMeant(kitOf(-3, -6), { strip: "kick" })!;
    expect(differencesFrom(getStrip(asSet, "b"), kick)).toEqual([]);
    expect(differencesFrom(getStrip(asSet, "a"), kick)).not.toEqual([]);
  });

  it("take a newer version of their own strip alone, whole or as a section", () => {
    const newer = { ...FROM, version: 3, strip: "kick" };
    const take = (project: Project) =>
      applied(project, {
        source: { content: contentMeant(kitOf(2, 4), newer)!, from: newer, name: "Kick" },
        parts: ["inserts"],
        targets: { strips: ["a", "b"] },
        mode: "itself",
      });
    const after = take(asSet);
    expect(getStrip(after, "a")).toEqual(getStrip(asSet, "a"));
    expect(getStrip(after, "b").inserts).toEqual({ nodes: [gain(2)], macros: [], from: newer });
    const sections = PROJECT(
      ...["kick", "snare"].map((key, at): Strip => {
        const section = { type: "section" as const, key: "s", name: key, enabled: true, nodes: [gain(-3)] };
        const inserts = { nodes: [{ ...section, from: { ...FROM, strip: key } }], macros: [] };
        return { ...strip(at === 0 ? "b" : "a", key, 0), inserts };
      }),
    );
    const renewed = take(sections);
    expect(getStrip(renewed, "a")).toEqual(getStrip(sections, "a"));
    expect(getStrip(renewed, "b").inserts.nodes).toMatchObject([{ key: "s", from: newer, nodes: [gain(2)] }]);
  });

  const RIM: PresetRef = { preset: "rim", version: 1, name: "Rim" };
  const rimmed = (project: Project): Project => ({
    ...project,
    strips: project.strips.map((one) =>
      one.id === "b" ? { ...one, inserts: { ...one.inserts, from: { ...RIM, along: setRef } } } : one,
    ),
  });
  const setRef = { ...FROM, strip: "kick" };

  it("are strips of the next set once they are saved in that, and go by what they came from", () => {
    expect(withoutSet(getStrip(asSet, "b")).inserts).toEqual({ nodes: [gain(-3)], macros: [] });
    expect(withoutSet(getStrip(rimmed(asSet), "b")).inserts.from).toEqual(RIM);
    expect(presetsIn(getStrip(rimmed(asSet), "b"))).toEqual([RIM, setRef]);
    // What is kept is what was given, not what the project has of it.
    const parts = ["inserts"] as const;
    const saved = saveStrips(
      asSet,
      [
        { strip: withoutSet(getStrip(asSet, "b")), parts },
        { strip: getStrip(asSet, "a"), parts },
      ],
      "set",
    );
    const from = (content: Content) =>
      isStrips(content) ? content.strips.map(({ inserts }) => inserts?.from ?? null) : [];
    expect(new Set(from(saved))).toEqual(new Set([null, { ...FROM, strip: "snare" }]));
  });

  it("that have an origin of their own take the newer of either, and keep the other", () => {
    const bell: Content = { kind: "chain", schema: 1, chain: { nodes: [gain(7)], macros: [] } };
    const take = (content: Content, from: PresetRef) =>
      applied(rimmed(asSet), {
        source: { content, from, name: "" },
        parts: ["inserts"],
        targets: { strips: ["b"] },
        mode: "itself",
      });
    const newer = { ...RIM, version: 2 };
    expect(getStrip(take(bell, newer), "b").inserts).toEqual({
      nodes: [gain(7)],
      macros: [],
      from: { ...newer, along: setRef },
    });
    const set = { ...setRef, version: 3 };
    const told = (from: PresetRef, to: PresetRef) =>
      sentenceOf({ id: "s", strip: "b", kind: "setFrom", from, to }, rimmed(asSet));
    expect(told({ ...newer, along: setRef }, { ...newer, along: set })).toBe("BD: now is as in Kit, version 3.");
    expect(told(RIM, { ...newer, along: set })).toBe("BD: now follows Rim, version 2, as in Kit, version 3.");
    expect(told({ ...RIM, along: setRef }, { ...newer, along: setRef })).toBe("BD: now follows Rim, version 2.");
    const kept = setOf(kitOf(2, 4)).strips.map((one) => ({ ...one, inserts: { ...one.inserts!, from: newer } }));
    const meant = contentMeant({ ...setOf(kitOf(2, 4)), strips: kept }, set)!;
    expect(getStrip(take(meant, set), "b").inserts).toEqual({
      nodes: [gain(2)],
      macros: [],
      from: { ...newer, along: set },
    });
  });

  it("stay what they came along in when they are saved again as what they are, and no longer when as another", () => {
    const followed = (to: PresetRef) => {
      const hand = { strip: getStrip(rimmed(asSet), "b"), mint: counter() };
      const after = applySteps(rimmed(asSet), follow(hand, to));
      return after.ok && getStrip(after.value, "b").inserts.from;
    };
    expect(followed({ ...RIM, version: 2 })).toEqual({ ...RIM, version: 2, along: setRef });
    expect(followed({ preset: "bell", version: 1, name: "Bell" })).toEqual({
      preset: "bell",
      version: 1,
      name: "Bell",
    });
  });
});
