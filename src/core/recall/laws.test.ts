import equal from "fast-deep-equal";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { findProjectProblem } from "../projects/problems";
import { fingerprint } from "../presets/fingerprint";
import { saveStrip, saveStrips } from "../presets/save";
import type { Project } from "../projects/project";
import { cellOf } from "./steps";
import { createStrip, offeredParts } from "../strips/strip";
import { type PartName, PARTS, eachPart } from "../strips/parts";
import { applySteps } from "./apply";
import { planRecall } from "./plan";
import { answerFor } from "./plan-places";
import type { PlanInput, RecallRequest } from "./plan-shape";
import { invertSteps } from "./step";
import {
  counter,
  someContent,
  someLayers,
  someSendMode,
  someMode,
  someParts,
  someProject,
  someStrips,
} from "./testing/generators";

const RUNS = { numRuns: 150 };

const someRequest = (ids: readonly string[]): fc.Arbitrary<RecallRequest> =>
  fc.record({
    source: someContent.map((content) => ({ content, from: { preset: "pr", version: 3, name: "Wood" }, name: "Wood" })),
    parts: someParts,
    mode: someMode,
    layers: someLayers,
    sends: someSendMode,
    targets: fc.oneof(
      fc.subarray([...ids], { minLength: 1 }).map((strips) => ({ strips })),
      fc.constantFrom(null, ...ids).map((after) => ({ newStrip: { after } })),
    ),
  });

/** Several strips at once, found here or made. */
const someRequestOfStrips = (ids: readonly string[]): fc.Arbitrary<RecallRequest> =>
  fc.record({
    source: someStrips.map((content) => ({ content, from: { preset: "set", version: 2, name: "Kit" }, name: "Kit" })),
    parts: someParts,
    mode: someMode,
    layers: someLayers,
    sends: someSendMode,
    targets: fc.record({
      set: fc.record({
        onto: fc.constantFrom<"matched" | "new">("matched", "new"),
        among: fc.oneof(fc.constant(null), fc.subarray([...ids])),
        after: fc.constantFrom(null, ...ids),
      }),
    }),
  });

const someInput: fc.Arbitrary<PlanInput> = someProject.chain((project) => {
  const ids = project.strips.map((s) => s.id);
  return fc.record({
    project: fc.constant(project),
    requests: fc.array(fc.oneof(someRequest(ids), someRequestOfStrips(ids)), { minLength: 1, maxLength: 2 }),
    except: fc.array(
      fc.record({
        strip: fc.constantFrom(undefined, ...ids),
        part: fc.constantFrom<PartName | undefined>(undefined, ...PARTS),
      }),
      { maxLength: 1 },
    ),
    answers: fc.constantFrom(
      {},
      Object.fromEntries(ids.map((id) => [`routing:${id}`, "g1"])),
      Object.fromEntries(ids.map((id) => [`look:${id}`, "number"])),
      Object.fromEntries(ids.map((id) => [`look:${id}`, "same"])),
      { "match:0:r1": "out", "match:0:s0": "new", "match:0:k": "strip:s0", "match:1:g1": "strip:g2" },
      { "sends:return:not here": "make", "sends:group:nave": "make", "sends:return:cello": "r2" },
    ),
    mint: fc.constant(counter()),
  });
});

const applied = (input: PlanInput) => {
  const plan = planRecall(input);
  const result = applySteps(input.project, plan.steps);
  if (!result.ok) throw new Error(result.error.reason);
  return { plan, after: result.value };
};

describe("the laws of recall", () => {
  it("1: applying and applying the inverse gives the same project", () => {
    fc.assert(
      fc.property(someInput, (input) => {
        const { plan, after } = applied(input);
        expect(applySteps(after, invertSteps(plan.steps))).toEqual({ ok: true, value: input.project });
      }),
      RUNS,
    );
  });

  it("2: outside the chosen parts and targets nothing changes, and untouched strips are the same objects", () => {
    /** Parts that were changed, and parts that the preset would have changed, had they been chosen. */
    const [changed, spared] = [new Set<PartName>(), new Set<PartName>()];
    fc.assert(
      fc.property(someInput, (input) => {
        const { plan, after } = applied(input);
        const touched = new Set(plan.steps.map(cellOf).map(({ strip, part }) => `${strip}/${part}`));
        const targets = ({ targets: to }: RecallRequest, at: number): readonly (string | null)[] =>
          "strips" in to
            ? to.strips
            : plan.matches.filter(({ id }) => id.startsWith(`match:${at}:`)).map(({ strip }) => strip);
        const asked = (strip: string, part: PartName) =>
          input.requests.some((r, at) => targets(r, at).includes(strip) && r.parts.includes(part)) &&
          !input.except.some((e) => (e.strip ?? strip) === strip && (e.part ?? part) === part);
        for (const strip of input.project.strips) {
          const now = after.strips.find((s) => s.id === strip.id)!;
          for (const part of PARTS)
            if (!asked(strip.id, part) || !touched.has(`${strip.id}/${part}`)) expect(now[part]).toEqual(strip[part]);
            else if (!equal(now[part], strip[part])) changed.add(part);
          if (!PARTS.some((part) => touched.has(`${strip.id}/${part}`))) expect(now).toBe(strip);
        }
        expect({ ...after, strips: null }).toEqual({ ...input.project, strips: null });
        const all = input.requests.map((request) => ({ ...request, parts: PARTS }));
        for (const { strip, part } of planRecall({ ...input, requests: all, except: [] }).steps.map(cellOf))
          if (strip !== null && part !== null && !asked(strip, part)) spared.add(part);
      }),
      RUNS,
    );
    // Of each part, or the law would say nothing about it.
    expect([...changed].toSorted()).toEqual([...PARTS].toSorted());
    expect([...spared].toSorted()).toEqual([...PARTS].toSorted());
  });

  it("3: a strip saved, applied to an empty strip of its kind and saved again has the same fingerprint", () => {
    fc.assert(
      fc.property(someProject, someParts, (project, parts) => {
        const strip = project.strips.find((s) => s.kind === "instrument") ?? project.strips.at(-1)!;
        const content = saveStrip(project, strip, parts);
        const empty = createStrip("empty", strip.kind, { name: "Empty" }, { strip: "main" });
        const into = { ...project, strips: [...project.strips, empty] };
        const { plan, after } = applied({
          project: into,
          requests: [
            {
              source: { content, from: null, name: "x" },
              parts: PARTS,
              targets: { strips: ["empty"] },
              mode: "replace",
            },
          ],
          except: [],
          answers: {},
          mint: counter(),
        });
        fc.pre(plan.questions.length === 0 && plan.notes.length === 0);
        expect(fingerprint(saveStrip(after, after.strips.at(-1)!, parts))).toBe(fingerprint(content));
      }),
      RUNS,
    );
  });

  it("3: a whole mix, applied to a blank project and saved again, has the same fingerprint", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const all = (of: Project) => of.strips.map((strip) => ({ strip, parts: offeredParts(strip) }));
        const content = saveStrips(project, all(project), "mix");
        const blank = { ...project, strips: [createStrip("out", "main", { name: "Out" }, { hardware: "Out 1–2" })] };
        const { plan, after } = applied({
          project: blank,
          requests: [
            {
              source: { content, from: null, name: "x" },
              parts: PARTS,
              targets: { set: { onto: "new", among: null, after: "out" } },
              mode: "replace",
            },
          ],
          except: [],
          answers: {},
          mint: counter(),
        });
        expect(plan.questions).toEqual([]);
        expect(plan.notes).toEqual([]);
        expect(fingerprint(saveStrips(after, all(after), "mix"))).toBe(fingerprint(content));
      }),
      RUNS,
    );
  });

  it("4: in mode replace onto strips that are there, a second time plans no steps", () => {
    fc.assert(
      fc.property(someInput, (input) => {
        const [request] = input.requests;
        fc.pre(request !== undefined && !("newStrip" in request.targets));
        const once = { ...input, requests: [{ ...request, mode: "replace" as const, sends: "replace" as const }] };
        const { plan, after } = applied(once);
        // Strips of a set go to those to which they went, also where these were made for them.
        const went = Object.fromEntries(
          plan.matches.map(({ id, strip }) => [id, strip === null ? "out" : answerFor(strip)]),
        );
        const again = { ...once, project: after, answers: { ...once.answers, ...went } };
        expect(planRecall(again).steps).toEqual([]);
      }),
      RUNS,
    );
  });

  it("5: the same input plans the same, so what is previewed is what is applied", () => {
    fc.assert(
      fc.property(someInput, (input) => {
        const [first, second] = [applied({ ...input, mint: counter() }), applied({ ...input, mint: counter() })];
        expect(second.plan).toEqual(first.plan);
        expect(second.after).toEqual(first.after);
        const ids = first.plan.rows.flatMap((row) => row.parts.flatMap((p) => p.steps));
        expect(new Set(ids)).toEqual(new Set(first.plan.steps.map((s) => s.id)));
      }),
      RUNS,
    );
  });

  it("6: no plan leaves a reference to a strip that is not there, or a loop", () => {
    fc.assert(
      fc.property(someInput, (input) => {
        const { after } = applied(input);
        expect(findProjectProblem(after)).toBeNull();
        const here = new Set(after.strips.map((strip) => strip.id));
        for (const strip of after.strips)
          for (const ref of eachPart(strip, (_, { aims }, value) => aims?.of(value) ?? []).flat())
            expect("external" in ref || here.has(ref.strip)).toBe(true);
      }),
      RUNS,
    );
  });

  it("7: a part that is switched off asks nothing and says nothing", () => {
    fc.assert(
      fc.property(someInput, fc.constantFrom(...PARTS), (input, part) => {
        const without = planRecall({ ...input, except: [{ part }], mint: counter() });
        const only = {
          ...input,
          requests: input.requests.map((r) => ({ ...r, parts: r.parts.filter((p) => p !== part) })),
        };
        const never = planRecall({ ...only, except: [], mint: counter() });
        expect(without.questions).toEqual(never.questions);
        expect(without.notes).toEqual(never.notes);
      }),
      RUNS,
    );
  });
});
