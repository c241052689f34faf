import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Content } from "../presets/preset";
import { saveStrip } from "../presets/save";
import { type Project, getStrip } from "../projects/project";
import { findProjectProblem } from "../projects/problems";
import type { Send } from "../strips/parts/sends";
import { createStrip } from "../strips/strip";
import { applySteps } from "./apply";
import { planRecall } from "./plan";
import { type SendMode, SEND_MODES, planSends } from "./plan-sends";
import { sentenceOf } from "./sentences";
import { invertSteps } from "./step";
import type { Step } from "./steps";
import { counter } from "./testing/generators";

const send = (key: string, to: string, level = -12): Send => ({
  key,
  to: { strip: to },
  tap: "post",
  level,
  pan: 0,
  on: true,
});
const MAIN = { strip: "main" };
const PROJECT: Project = {
  schema: 1,
  id: "p",
  name: "Weir Song",
  artist: "",
  client: "",
  song: "",
  tempo: 92,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [
    { ...createStrip("voice", "audio", { name: "Voice" }, MAIN), sends: [send("a", "plate"), send("b", "echo", -20)] },
    createStrip("cello", "audio", { name: "Cello" }, MAIN),
    createStrip("plate", "return", { name: "Plate" }, MAIN),
    createStrip("echo", "return", { name: "Long echo" }, MAIN),
    createStrip("main", "main", { name: "Main" }, { hardware: "Out 1–2" }),
  ],
};
const nameOf = ({ to }: Send) => ("strip" in to ? to.strip : to.name);
const applied = (project: Project, steps: readonly Step[]): Project => {
  const result = applySteps(project, steps);
  if (!result.ok) throw new Error(result.error.reason);
  expect(applySteps(result.value, invertSteps(steps))).toEqual({ ok: true, value: project });
  return result.value;
};
function planned(wanted: readonly Send[], mode: SendMode) {
  const { sends: now } = getStrip(PROJECT, "voice");
  const { steps, left } = planSends({ strip: "voice", now, wanted, mode, nameOf, mint: counter() });
  return { sends: getStrip(applied(PROJECT, steps), "voice").sends, steps, left };
}

describe("sends that are taken", () => {
  it("take the place of those that are there, each to the same strip under its key", () => {
    const { sends, steps } = planned([send("x", "echo", -6), send("a", "main", 0)], "replace");
    expect(sends).toEqual([send("b", "echo", -6), { ...send("a", "main", 0), key: "n0" }]);
    expect(steps.map((step) => sentenceOf(step, PROJECT))).toEqual([
      "Voice: no send to Plate any more.",
      "Voice: new send to Main 0.0 dB.",
      "Voice: send to Long echo −20.0 dB → −6.0 dB.",
    ]);
  });

  it("are added where there is none to that strip, and leave what is there", () => {
    const { sends, left } = planned([send("x", "echo", -6), send("a", "main", 0)], "add");
    expect(sends.map((s) => [nameOf(s), s.level])).toEqual([
      ["plate", -12],
      ["echo", -20],
      ["main", 0],
    ]);
    expect(left).toEqual(["There is a send to echo already; it stays as it is."]);
  });

  it("give their levels alone to those that go to the same strip", () => {
    const { sends, left, steps } = planned(
      [{ ...send("x", "echo", -6), tap: "pre", on: false }, send("y", "main")],
      "levels",
    );
    expect(sends).toEqual([send("a", "plate"), send("b", "echo", -6)]);
    expect(steps.map(({ kind }) => kind)).toEqual(["setSend"]);
    expect(left).toEqual(["There is no send to main; its level is left out."]);
  });

  it("end as they are wanted, whatever is there: in place of it as just those; a second time nothing is left to do", () => {
    const some = fc
      .array(fc.tuple(fc.constantFrom("plate", "echo", "main"), fc.integer({ min: -60, max: 6 })), { maxLength: 5 })
      .map((all) => all.map(([to, level], at) => send(`k${at}`, to, level)));
    fc.assert(
      fc.property(some, some, fc.constantFrom(...SEND_MODES), (now, wanted, mode) => {
        const project = {
          ...PROJECT,
          strips: PROJECT.strips.map((s) => (s.id === "voice" ? { ...s, sends: now } : s)),
        };
        const plan = (onto: Project) =>
          planSends({ strip: "voice", now: getStrip(onto, "voice").sends, wanted, mode, nameOf, mint: counter("new") });
        const after = applied(project, plan(project).steps);
        const { sends } = getStrip(after, "voice");
        const heard = (all: readonly Send[]) => all.map(({ to, level, tap, on }) => ({ to, level, tap, on }));
        if (mode === "replace") expect(heard(sends)).toEqual(heard(wanted));
        if (mode === "add") expect(sends.slice(0, now.length)).toEqual(now);
        if (mode === "levels")
          expect(sends.map((s) => ({ ...s, level: 0 }))).toEqual(now.map((s) => ({ ...s, level: 0 })));
        expect(new Set(sends.map(({ key }) => key)).size).toBe(sends.length);
        if (mode !== "add") expect(plan(after).steps).toEqual([]);
      }),
      { numRuns: 500 },
    );
  });
});

describe("sends of a preset", () => {
  const saved = saveStrip(PROJECT, getStrip(PROJECT, "voice"), ["sends"]);
  const elsewhere: Project = {
    ...PROJECT,
    strips: PROJECT.strips.filter(({ id }) => id !== "plate" && id !== "voice"),
  };
  const plan = (
    project: Project,
    strips: readonly string[],
    answers: Record<string, string> = {},
    content: Content = saved,
  ) =>
    planRecall({
      project,
      requests: [
        { source: { content, from: null, name: "x" }, parts: ["sends"], targets: { strips }, mode: "replace" },
      ],
      except: [],
      answers,
      mint: counter(),
    });

  it("name the strips that they go to, and find them by that", () => {
    expect(saved).toMatchObject({
      strip: { sends: [{ to: { external: true, kind: "return", name: "Plate" } }, { to: { name: "Long echo" } }] },
    });
    const { steps, questions } = plan(PROJECT, ["cello"]);
    expect(questions).toEqual([]);
    expect(getStrip(applied(PROJECT, steps), "cello").sends).toEqual(getStrip(PROJECT, "voice").sends);
  });

  it("ask once for what is missing, of however many strips: left out, made, or another", () => {
    const main = elsewhere.strips.at(-1)!;
    const two: Project = {
      ...elsewhere,
      strips: [createStrip("horn", "audio", { name: "Horn" }, MAIN), ...elsewhere.strips.slice(0, -1), main],
    };
    const strips = ["horn", "cello"];
    const left = plan(two, strips);
    expect(left.questions).toMatchObject([
      { id: "sends:return:plate", text: "“Plate” is missing here, and sends would go to it.", answer: "leave" },
    ]);
    expect(left.questions[0]!.choices.map(({ text }) => text)).toEqual([
      "Leave these sends out",
      "Make a return called Plate here",
      "Use Long echo instead",
      "Use Main instead",
    ]);
    const sendsOf = (project: Project, id: string) => getStrip(project, id).sends.map(nameOf);
    for (const id of strips) expect(sendsOf(applied(two, left.steps), id)).toEqual(["echo"]);
    const made = plan(two, strips, { "sends:return:plate": "make" });
    const after = applied(two, made.steps);
    expect(findProjectProblem(after)).toBeNull();
    const plate = after.strips.find(({ look }) => look.name === "Plate")!;
    expect([plate.kind, plate.routing.output]).toEqual(["return", MAIN]);
    for (const id of strips) expect(sendsOf(after, id)).toEqual([plate.id, "echo"]);
    expect(made.rows.find(({ strip }) => strip === plate.id)).toMatchObject({ isNew: true });
    const other = plan(two, strips, { "sends:return:plate": "main" });
    for (const id of strips) expect(sendsOf(applied(two, other.steps), id)).toEqual(["main", "echo"]);
  });

  it("that would come back to where they start are left out, and the loop is spelled out", () => {
    const onto = plan(PROJECT, ["plate"]);
    expect(getStrip(applied(PROJECT, onto.steps), "plate").sends.map(nameOf)).toEqual(["echo"]);
    const fed: Project = {
      ...PROJECT,
      strips: PROJECT.strips.map((s) => (s.id === "echo" ? { ...s, sends: [send("e", "cello")] } : s)),
    };
    const { notes, steps } = plan(fed, ["cello"]);
    expect(notes.map(({ text }) => text)).toEqual([
      "A send of Cello is left out: Cello → Long echo → Cello would be a loop.",
    ]);
    expect(getStrip(applied(fed, steps), "cello").sends.map(nameOf)).toEqual(["plate"]);
  });

  it("come with a new strip, and what is made for them stands before it", () => {
    const request = {
      source: { content: saved, from: null, name: "Voice" },
      parts: ["sends"] as const,
      targets: { newStrip: { after: null } },
      mode: "replace" as const,
    };
    const { steps } = planRecall({
      project: elsewhere,
      requests: [request],
      except: [],
      answers: { "sends:return:plate": "make" },
      mint: counter(),
    });
    const after = applied(elsewhere, steps);
    expect(findProjectProblem(after)).toBeNull();
    const strip = after.strips.find(({ look }) => look.name === "Voice")!;
    expect(strip.sends.map(nameOf)).toEqual([after.strips.find(({ look }) => look.name === "Plate")!.id, "echo"]);
  });
});

describe("a single send", () => {
  const content: Content = saveStrip(
    PROJECT,
    { ...getStrip(PROJECT, "cello"), sends: [send("c", "plate", -3), send("d", "main", 0)] },
    ["sends"],
  );
  const plan = (off: readonly string[]) =>
    planRecall({
      project: PROJECT,
      requests: [
        {
          source: { content, from: null, name: "Cello" },
          parts: ["sends"],
          targets: { strips: ["voice"] },
          mode: "replace",
        },
      ],
      except: off.map((one) => ({ strip: "voice", send: one })),
      answers: {},
      mint: counter(),
    });
  const levels = (off: readonly string[]) =>
    getStrip(applied(PROJECT, plan(off).steps), "voice").sends.map(({ to, level }) => [nameOf({ to } as Send), level]);

  it("is told of by itself: those that come, and those that go", () => {
    expect(plan([]).rows[0]?.parts[0]?.sends).toEqual([
      { key: "c", name: "Plate", on: true },
      { key: "d", name: "Main", on: true },
      { key: "here:b", name: "Long echo", on: true },
    ]);
    expect(plan(["c"]).rows[0]?.parts[0]?.sends?.map(({ on }) => on)).toEqual([false, true, true]);
  });
  it("is switched off: what is to the same bus stays as it is, what would go stays, all else is done", () => {
    expect(levels([])).toEqual([
      ["plate", -3],
      ["main", 0],
    ]);
    expect(levels(["c"])).toEqual([
      ["plate", -12],
      ["main", 0],
    ]);
    expect(levels(["d", "here:b"])).toEqual([
      ["plate", -3],
      ["echo", -20],
    ]);
    expect(plan(["c", "d", "here:b"]).steps).toEqual([]);
  });
});
