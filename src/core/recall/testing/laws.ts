import canonicalize from "canonicalize";
import fc from "fast-check";
import { fingerprint } from "../../presets/fingerprint";
import { saveStrip, saveStrips } from "../../presets/save";
import type { Project } from "../../projects/project";
import { findProjectProblem } from "../../projects/problems";
import { type PartName, PARTS } from "../../strips/parts";
import { type Strip, aimsOf, createStrip, offeredParts } from "../../strips/strip";
import { applySteps } from "../apply";
import { planRecall } from "../plan";
import { answerFor } from "../plan-places";
import type { Plan, PlanInput, RecallRequest } from "../plan-shape";
import { invertSteps } from "../step";
import { cellOf } from "../steps";
import {
  counter,
  someContent,
  someLayers,
  someMode,
  someParts,
  someProject,
  someSendMode,
  someStrips,
} from "./generators";

/*
 * The laws of recall, over projects, presets, sets and mixes by chance. Equality is of canonical JSON (RFC 8785). Each throws where it
 * does not hold; the tests and the bench run them.
 */

/** What is common to a request, whatever its source. */
const howTo = { parts: someParts, mode: someMode, layers: someLayers, sends: someSendMode };

const someRequest = (ids: readonly string[]): fc.Arbitrary<RecallRequest> =>
  fc.record({
    ...howTo,
    source: fc.record({
      content: someContent,
      from: fc.constant({ preset: "pr", version: 3, name: "Wood" }),
      name: fc.constant("Wood"),
      tempo: fc.constantFrom(undefined, 60, 133),
    }),
    targets: fc.oneof(
      fc.subarray([...ids], { minLength: 1 }).map((strips) => ({ strips })),
      fc.constantFrom(null, ...ids).map((after) => ({ newStrip: { after } })),
      fc.record({ strip: fc.constantFrom(...ids), on: fc.constantFrom("p1", "p2", "p3") }).map((slot) => ({ slot })),
      fc
        .record({ strip: fc.constantFrom(...ids), after: fc.constantFrom(null, "p1", "spl", "gone") })
        .map((slot) => ({ slot })),
    ),
  });

/** Several strips at once, found here or made. */
const someRequestOfStrips = (ids: readonly string[]): fc.Arbitrary<RecallRequest> =>
  fc.record({
    ...howTo,
    source: someStrips.map((content) => ({ content, from: { preset: "set", version: 2, name: "Kit" }, name: "Kit" })),
    targets: fc.record({
      set: fc.record({
        onto: fc.constantFrom<"matched" | "new">("matched", "new"),
        among: fc.oneof(fc.constant(null), fc.subarray([...ids])),
        after: fc.constantFrom(null, ...ids),
      }),
    }),
  });

/** As those of generated strips are called, and what stands there. */
const SEND_KEYS = ["send0", "send1", "here:send0", "here:send2"];

const someInput: fc.Arbitrary<PlanInput> = someProject.chain((project) => {
  const ids = project.strips.map((s) => s.id);
  return fc.record({
    project: fc.constant(project),
    requests: fc.array(fc.oneof(someRequest(ids), someRequestOfStrips(ids)), { minLength: 1, maxLength: 2 }),
    except: fc.array(
      fc.record({
        strip: fc.constantFrom(undefined, ...ids),
        part: fc.constantFrom<PartName | undefined>(undefined, ...PARTS),
        send: fc.constantFrom(undefined, undefined, ...SEND_KEYS),
      }),
      { maxLength: 2 },
    ),
    answers: fc.constantFrom(
      {},
      Object.fromEntries(ids.map((id) => [`routing:${id}`, "g1"])),
      Object.fromEntries(ids.map((id) => [`look:${id}`, "number"])),
      Object.fromEntries(ids.map((id) => [`look:${id}`, "same"])),
      { "match:0:r1": "out", "match:0:s0": "new", "match:0:k": "strip:s0", "match:1:g1": "strip:g2" },
      { "tempo:60": "keep", "wet:r1": "keep", "wet:r2": "wet" },
      { "inserts:return:not here": "r2", "inserts:group:cello": "g1", "source:return:not here": "k" },
      { "sends:return:not here": "make", "sends:group:nave": "make", "sends:return:cello": "r2" },
    ),
    mint: fc.constant(counter()),
  });
});

const applied = (input: PlanInput): { readonly plan: Plan; readonly after: Project } => {
  const plan = planRecall(input);
  const result = applySteps(input.project, plan.steps);
  if (!result.ok) throw new Error(result.error.reason);
  return { plan, after: result.value };
};

const isSame = (a: unknown, b: unknown): boolean => a === b || canonicalize(a) === canonicalize(b);

/** Throws where two are not the same. */
function hold(what: string, is: unknown, shouldBe: unknown): void {
  if (isSame(is, shouldBe)) return;
  const written = (value: unknown) => (canonicalize(value) ?? "nothing").slice(0, 2000);
  throw new Error(`${what}: ${written(is)}\ninstead of ${written(shouldBe)}`);
}

/** Parts that a law has met: those that were changed, and those that would have been, had they been chosen. */
export interface Met {
  readonly changed: Set<PartName>;
  readonly spared: Set<PartName>;
}

/** Which parts of which strips are asked for. */
function askedIn({ requests, except }: PlanInput, { matches }: Plan): (strip: string, part: PartName) => boolean {
  const targets = ({ targets: to }: RecallRequest, at: number): readonly (string | null)[] =>
    "strips" in to
      ? to.strips
      : "slot" in to
        ? [to.slot.strip]
        : matches.filter(({ id }) => id.startsWith(`match:${at}:`)).map((match) => match.strip);
  return (strip, part) =>
    requests.some((r, at) => targets(r, at).includes(strip) && r.parts.includes(part)) &&
    !except.some((e) => e.send === undefined && (e.strip ?? strip) === strip && (e.part ?? part) === part);
}

function nothingElseChanges(input: PlanInput, met: Met): void {
  const { plan, after } = applied(input);
  const touched = new Set(plan.steps.map(cellOf).map(({ strip, part }) => `${strip}/${part}`));
  const asked = askedIn(input, plan);
  for (const strip of input.project.strips) {
    const now = after.strips.find((s) => s.id === strip.id);
    if (!now) throw new Error(`${strip.id} is gone`);
    for (const part of PARTS)
      if (!asked(strip.id, part) || !touched.has(`${strip.id}/${part}`))
        hold(`${part} of ${strip.id}`, now[part], strip[part]);
      else if (!isSame(now[part], strip[part])) met.changed.add(part);
    const isTouched = PARTS.some((part) => touched.has(`${strip.id}/${part}`));
    if (!isTouched && now !== strip) throw new Error(`${strip.id} is another object, though nothing of it changes`);
  }
  hold("the project around its strips", { ...after, strips: null }, { ...input.project, strips: null });
  for (const part of sparedIn(input, asked)) met.spared.add(part);
}

/** Parts that would be changed, had they been chosen. */
function sparedIn(input: PlanInput, asked: ReturnType<typeof askedIn>): readonly PartName[] {
  const all = input.requests.map((request) => ({ ...request, parts: PARTS }));
  const cells = planRecall({ ...input, requests: all, except: [] }).steps.map(cellOf);
  return cells.flatMap(({ strip, part }) => (strip !== null && part !== null && !asked(strip, part) ? [part] : []));
}

function savedAgain(project: Project, parts: readonly PartName[]): void {
  const strip = project.strips.find((s) => s.kind === "instrument") ?? project.strips.at(-1)!;
  const content = saveStrip(project, strip, parts);
  const empty = createStrip("empty", strip.kind, { name: "Empty" }, { strip: "main" });
  const { plan, after } = applied({
    project: { ...project, strips: [...project.strips, empty] },
    requests: [
      { source: { content, from: null, name: "x" }, parts: PARTS, targets: { strips: ["empty"] }, mode: "replace" },
    ],
    except: [],
    answers: {},
    mint: counter(),
  });
  fc.pre(plan.questions.length === 0 && plan.notes.length === 0);
  hold("the fingerprint", fingerprint(saveStrip(after, after.strips.at(-1)!, parts)), fingerprint(content));
}

function mixSavedAgain(project: Project): void {
  const all = (of: Project) => of.strips.map((strip: Strip) => ({ strip, parts: offeredParts(strip) }));
  const content = saveStrips(project, all(project), "mix");
  const { plan, after } = applied({
    project: { ...project, strips: [createStrip("out", "main", { name: "Out" }, { hardware: "Out 1–2" })] },
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
  hold("questions and notes", [plan.questions, plan.notes], [[], []]);
  hold("the fingerprint", fingerprint(saveStrips(after, all(after), "mix")), fingerprint(content));
}

function nothingASecondTime(input: PlanInput): void {
  // What is put between others, or on a strip of its own, is put there each time.
  fc.pre(input.requests.every(({ targets }) => !("newStrip" in targets || "slot" in targets)));
  const requests = input.requests.map((r) => ({ ...r, mode: "replace" as const, sends: "replace" as const }));
  const once = { ...input, requests };
  const { plan, after } = applied(once);
  // Strips of a set go to those to which they went, also where these were made for them.
  const went = Object.fromEntries(plan.matches.map(({ id, strip }) => [id, strip === null ? "out" : answerFor(strip)]));
  const again = { ...once, project: after, answers: { ...once.answers, ...went } };
  hold("steps of the second time", planRecall(again).steps, []);
}

function samePlan(input: PlanInput): void {
  const [first, second] = [applied({ ...input, mint: counter() }), applied({ ...input, mint: counter() })];
  hold("the plan", second.plan, first.plan);
  hold("the project", second.after, first.after);
  const told = first.plan.rows.flatMap((row) => row.parts.flatMap((p) => p.steps));
  hold("steps that rows tell of", [...new Set(told)].toSorted(), first.plan.steps.map((s) => s.id).toSorted());
}

function leadsSomewhere(input: PlanInput): void {
  const { after } = applied(input);
  hold("what is wrong with the project", findProjectProblem(after), null);
  const here = new Set(after.strips.map((strip) => strip.id));
  for (const strip of after.strips)
    for (const ref of aimsOf(strip))
      if ("strip" in ref && !here.has(ref.strip))
        throw new Error(`${strip.id} leads to ${ref.strip}, which is not here`);
}

function silentWhereOff(input: PlanInput, part: PartName): void {
  const without = planRecall({ ...input, except: [{ part }], mint: counter() });
  const requests = input.requests.map((r) => ({ ...r, parts: r.parts.filter((p) => p !== part) }));
  const never = planRecall({ ...input, requests, except: [], mint: counter() });
  hold("questions", without.questions, never.questions);
  hold("notes", without.notes, never.notes);
}

export interface Law {
  readonly name: string;
  readonly property: (met: Met) => fc.IRawProperty<unknown, false>;
}

export const LAWS: readonly Law[] = [
  {
    name: "1: applying and applying the inverse gives the same project",
    property: () =>
      fc.property(someInput, (input) => {
        const { plan, after } = applied(input);
        hold("taken back", applySteps(after, invertSteps(plan.steps)), { ok: true, value: input.project });
      }),
  },
  {
    name: "2: outside the chosen parts and targets nothing changes, and untouched strips are the same objects",
    property: (met) => fc.property(someInput, (input) => nothingElseChanges(input, met)),
  },
  {
    name: "3: a strip saved, applied to an empty strip of its kind and saved again has the same fingerprint",
    property: () => fc.property(someProject, someParts, savedAgain),
  },
  {
    name: "3: a whole mix, applied to a blank project and saved again, has the same fingerprint",
    property: () => fc.property(someProject, mixSavedAgain),
  },
  {
    name: "4: in mode replace onto strips that are there, a second time plans no steps",
    property: () => fc.property(someInput, nothingASecondTime),
  },
  {
    name: "5: the same input plans the same, so what is previewed is what is applied",
    property: () => fc.property(someInput, samePlan),
  },
  {
    name: "6: no plan leaves a reference to a strip that is not there, or a loop",
    property: () => fc.property(someInput, leadsSomewhere),
  },
  {
    name: "7: a part that is switched off asks nothing and says nothing",
    property: () => fc.property(someInput, fc.constantFrom(...PARTS), silentWhereOff),
  },
];
