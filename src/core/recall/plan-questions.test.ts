import { describe, expect, it } from "vitest";
import type { Chain } from "../chains/chain";
import { chain, delay, note } from "../packs/writing";
import { processorsOf } from "../chains/tree";
import { busesAround, saveChain, takeStrips } from "../presets/save";
import { findProjectProblem } from "../projects/problems";
import { layerOf } from "../strips/parts/source";
import { type Project, findStrip, getStrip } from "../projects/project";
import { type Strip, createStrip } from "../strips/strip";
import { applySteps } from "./apply";
import { planRecall } from "./plan";
import type { RecallRequest } from "./plan-shape";
import { counter } from "./testing/generators";

/* Each question that a plan asks beside those of missing buses and outputs, of names, and of sets: what is asked, and what each answer does. */

const MAIN = { strip: "main" };
const taps = chain(delay([[{ note: "1/8", feel: "straight" }, -6]], { dry: 0 }));
const source = (channels: "mono" | "stereo"): Strip["source"] => ({
  type: "input",
  channels,
  input: "In 1",
  gain: 0,
  inverted: false,
});
const project = (tempo: number, strips: readonly Strip[]): Project => ({
  schema: 1,
  id: "p",
  name: "Weir Song",
  artist: "",
  client: "",
  song: "",
  tempo,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [...strips, createStrip("main", "main", { name: "Main" }, { hardware: "Out 1–2" })],
});

const HERE = project(90, [
  { ...createStrip("voice", "audio", { name: "Voice" }, MAIN), source: source("stereo") },
  createStrip("plate", "return", { name: "Plate" }, MAIN),
]);
const THERE = project(120, [
  {
    ...createStrip("cello", "audio", { name: "Cello" }, MAIN),
    source: source("mono"),
    inserts: taps,
    sends: [{ key: "s", to: { strip: "far plate" }, tap: "post", level: -12, pan: 0, on: true }],
  },
  { ...createStrip("far plate", "return", { name: "Plate" }, MAIN), inserts: taps, level: { fader: -7, mute: false } },
]);
const CELLO: RecallRequest["source"] = {
  content: takeStrips(THERE, [getStrip(THERE, "cello")]),
  from: null,
  name: "Cello",
  tempo: THERE.tempo,
  around: busesAround(THERE, [getStrip(THERE, "cello")]),
};

function planned(given: Partial<RecallRequest>, answers: Readonly<Record<string, string>> = {}) {
  const request: RecallRequest = {
    source: CELLO,
    parts: ["inserts"],
    targets: { strips: ["voice"] },
    mode: "replace",
    ...given,
  };
  const plan = planRecall({ project: HERE, requests: [request], except: [], answers, mint: counter() });
  const after = applySteps(HERE, plan.steps);
  if (!after.ok) throw new Error(after.error.reason);
  return { plan, after: after.value, asked: plan.questions.map(({ id, answer }) => [id, answer]) };
}
const first = (after: Project, strip: string) => processorsOf(getStrip(after, strip).inserts)[0]!.values;

describe("mono onto stereo and back", () => {
  it("leaves the strip as it is, or gives it the sides of the other", () => {
    const stays = planned({});
    expect(stays.asked).toContainEqual(["channels:voice", "stay"]);
    // An input stays where it is, also where all parts are asked for.
    expect(planned({ parts: ["source", "inserts"] }).asked).toContainEqual(["channels:voice", "stay"]);
    expect(getStrip(stays.after, "voice").source.channels).toBe("stereo");
    const turned = planned({}, { "channels:voice": "turn" });
    expect(getStrip(turned.after, "voice").source).toEqual({ ...source("mono") });
    expect(turned.plan.rows[0]?.parts.flatMap((part) => part.steps)).toEqual(turned.plan.steps.map(({ id }) => id));
  });
  it("asks nothing where only levels come, or values", () => {
    expect(planned({ parts: ["level"] }).asked).toEqual([]);
    expect(planned({ mode: "values" }).asked).toEqual([]);
  });
});

describe("a return that should be fully wet", () => {
  const onto = { source: { content: saveChain(taps), from: null, name: "Taps" }, targets: { strips: ["plate"] } };
  it("is made so, unless that is left as it was saved", () => {
    const wet = planned(onto);
    expect(wet.asked).toEqual([["wet:plate", "wet"]]);
    expect(first(wet.after, "plate")["dry"]).toBe(-60);
    expect(first(planned(onto, { "wet:plate": "keep" }).after, "plate")["dry"]).toBe(0);
  });
  it("is not asked of a strip that is none, nor of what comes from a return", () => {
    expect(planned({ ...onto, targets: { strips: ["voice"] } }).asked).toEqual([]);
    const content = takeStrips(THERE, [getStrip(THERE, "far plate")]);
    expect(planned({ ...onto, source: { content, from: null, name: "Plate" } }).asked).toEqual([]);
  });
});

describe("another tempo, where values follow it", () => {
  it("is followed, or what was an eighth there stays as long as it was", () => {
    const follows = planned({});
    expect(follows.asked).toContainEqual(["tempo:120", "follow"]);
    expect(first(follows.after, "voice")["tap1.time"]).toEqual(note("1/8"));
    expect(first(planned({}, { "tempo:120": "keep" }).after, "voice")["tap1.time"]).toBeCloseTo(60_000 / 120 / 2, 9);
  });
  it("asks nothing where both are one, or nothing follows", () => {
    const asked = (tempo: number) => planned({ source: { ...CELLO, tempo } }).asked.map(([id]) => id);
    expect(asked(90)).not.toContain("tempo:90");
    expect(planned({ parts: ["sends"] }).asked.map(([id]) => id)).not.toContain("tempo:120");
  });
});

describe("a bus that is here under the same name and set otherwise", () => {
  const sends = { parts: ["sends"] as const };
  it("is used as it is here, or another is made beside it as it is there", () => {
    const here = planned(sends);
    expect(here.asked).toEqual([["same:return:plate", "here"]]);
    expect(getStrip(here.after, "voice").sends.map(({ to }) => to)).toEqual([{ strip: "plate" }]);
    expect(getStrip(here.after, "plate")).toBe(getStrip(HERE, "plate"));
    const { after } = planned(sends, { "same:return:plate": "make" });
    const made = after.strips.find(({ look }) => look.name === "Plate 2")!;
    expect(getStrip(after, "voice").sends.map(({ to }) => to)).toEqual([{ strip: made.id }]);
    expect([made.inserts, made.level]).toEqual([taps, { fader: -7, mute: false }]);
  });
  it("asks nothing where it is set the same, or how it is set there is not known", () => {
    const alike = busesAround(THERE, [getStrip(THERE, "cello")]).map((bus) => ({
      ...bus,
      inserts: HERE.strips[1]!.inserts,
    }));
    expect(planned({ ...sends, source: { ...CELLO, around: alike } }).asked).toEqual([]);
    expect(planned({ ...sends, source: { ...CELLO, around: undefined } }).asked).toEqual([]);
  });
  it("is made as it is there also where none is here", () => {
    const without = { ...HERE, strips: HERE.strips.filter(({ id }) => id !== "plate") };
    const request = { source: CELLO, ...sends, targets: { strips: ["voice"] }, mode: "replace" as const };
    const answers = { "sends:return:plate": "make" };
    const plan = planRecall({ project: without, requests: [request], except: [], answers, mint: counter() });
    const after = applySteps(without, plan.steps);
    const [send] = after.ok ? getStrip(after.value, "voice").sends : [];
    expect(after.ok && send && "strip" in send.to && findStrip(after.value, send.to.strip)).toMatchObject({
      kind: "return",
      look: { name: "Plate" },
      inserts: taps,
      level: { fader: -7 },
    });
  });
});

describe("a key input that finds no strip", () => {
  const keyed = { kind: "return", external: true, name: "Bell tower" } as const;
  const opened = { ...taps, nodes: taps.nodes.map((node) => ({ ...node, keyInput: { strip: keyed, tap: "post" } })) };
  const asked = (answers: Readonly<Record<string, string>> = {}) =>
    planned(
      {
        source: { content: saveChain(opened as Chain), from: null, name: "Toll" },
        targets: { strips: ["voice", "plate"] },
      },
      answers,
    );
  const keysIn = (after: Project) =>
    ["voice", "plate"].map((id) => processorsOf(getStrip(after, id).inserts)[0]!.keyInput);

  it("is asked for once, and kept by its name until it is answered", () => {
    const { plan, after } = asked();
    const questions = plan.questions.filter(({ id }) => id.startsWith("inserts:"));
    expect(questions).toMatchObject([{ id: "inserts:return:bell tower", answer: "leave" }]);
    expect(keysIn(after)).toEqual([
      { strip: keyed, tap: "post" },
      { strip: keyed, tap: "post" },
    ]);
  });

  it("is another strip by the answer, but for the one that would hear itself", () => {
    const { plan, after } = asked({ "inserts:return:bell tower": "plate" });
    expect(keysIn(after)).toEqual([{ strip: { strip: "plate" }, tap: "post" }, undefined]);
    expect(plan.notes).toEqual([]);
  });
});

describe("a plugin whose model is not known here", () => {
  const press = {
    ...processorsOf(taps)[0]!,
    key: "press",
    model: "wood-press",
    values: { threshold: -20, ratio: 4, grain: 7 },
  };
  const moved = (node: string, param: string) => ({ node, param, from: -20, to: 0, bend: 0 });
  const strange: Chain = {
    nodes: [press, ...taps.nodes],
    macros: [
      { key: "m", name: "Press", style: "line", axes: [[moved("press", "threshold"), moved("press", "grain")]] },
    ],
  };
  const asked = (given: Partial<RecallRequest>, answers: Readonly<Record<string, string>> = {}) =>
    planned({ source: { content: saveChain(strange), from: null, name: "Grain" }, ...given }, answers);
  const models = (after: Project) => processorsOf(getStrip(after, "voice").inserts).map(({ model }) => model);

  it("is left out with what moved it, unless another that has values of it stands in", () => {
    const { plan, after } = asked({});
    expect(plan.questions).toMatchObject([{ id: "model:wood-press", answer: "leave", strip: "voice" }]);
    expect(plan.questions[0]!.text).toBe("The plugin “wood-press” is not known here.");
    expect(models(after)).toEqual(["multitap-delay"]);
    expect(getStrip(after, "voice").inserts.macros[0]!.axes).toEqual([[]]);
    const choices = plan.questions[0]!.choices.slice(1);
    expect(choices.length).toBeGreaterThan(0);
    for (const { id, text } of choices) {
      expect(text).toContain("with 2 of its values");
      const { after: other } = asked({}, { "model:wood-press": id });
      expect(models(other)).toEqual([id, "multitap-delay"]);
      const [own] = processorsOf(getStrip(other, "voice").inserts);
      expect(own!.values).toMatchObject({ threshold: -20, ratio: 4 });
      expect(own!.values).not.toHaveProperty("grain");
      expect(getStrip(other, "voice").inserts.macros[0]!.axes).toEqual([[moved("press", "threshold")]]);
      expect(findProjectProblem(other)).toBeNull();
    }
  });

  it("asks nothing where inserts are not taken; an instrument that is not known is left out, and said", () => {
    const strip = {
      kind: "instrument" as const,
      inserts: strange,
      source: { type: "layers" as const, channels: "stereo" as const, layers: [layerOf({ ...press, key: "played" })] },
    };
    const content = { kind: "strip" as const, schema: 1 as const, strip };
    const source = { content, from: null, name: "Grain" };
    const onto = { newStrip: { after: null } };
    expect(planned({ source, parts: ["level"], targets: onto }).plan.questions).toEqual([]);
    const { plan, after } = planned({ source, parts: ["source"], targets: onto });
    expect(plan.questions).toEqual([]);
    expect(plan.notes.map(({ text }) => text)).toEqual([
      "The instrument “wood-press” is not known here; it is left out.",
    ]);
    expect(findProjectProblem(after)).toBeNull();
  });
});
