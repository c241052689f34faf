import { describe, expect, it } from "vitest";
import type { Chain, Processor } from "../chains/chain";
import { findChainProblem } from "../chains/problems";
import { asInPluginPresets, describeDifferences, differencesOf, partnersOf } from "../chains/differences";
import { defaultValues } from "../processors/model";
import { getModel } from "../processors/models";
import type { Values } from "../units/param-spec";
import { fingerprint } from "../presets/fingerprint";
import type { Content } from "../presets/preset";
import { saveChain, saveStrip } from "../presets/save";
import { type Project, getStrip } from "../projects/project";
import { depthOf, ledgerOrder } from "../projects/nesting";
import { findLoop } from "../projects/signal-flow";
import { findProjectProblem } from "../projects/problems";
import { type Layer, type Source, layerOf, layersOf } from "../strips/parts/source";
import { type Strip, createStrip } from "../strips/strip";
import { applySteps } from "./apply";
import * as gestures from "./gestures";
import { mayApplyDirectly, planRecall } from "./plan";
import type { InsertMode } from "./plan-inserts";
import { planLayers } from "./plan-layers";
import { sentenceOf } from "./sentences";
import { invertSteps } from "./step";
import { type Step, kindOf } from "./steps";
import { counter } from "./testing/generators";

/** Recall by example: what the laws do not spell out. */

const processor = (key: string, model: string, values: Values = {}): Processor => ({
  type: "processor",
  key,
  model,
  enabled: true,
  values: { ...defaultValues(getModel(model)), ...values },
});
const chain = (...nodes: Processor[]): Chain => ({ nodes, macros: [] });
const EQ = processor("eq", "parametric-eq", { "band3.used": 1, "band3.gain": -5 });
const COMP = processor("comp", "vca-compressor", { threshold: -22 });
const DELAY = processor("delay", "multitap-delay", { "tap1.time": { note: "1/8", feel: "dotted" } });

const strip = (id: string, to: string, inserts: Chain = chain()): Strip => ({
  ...createStrip(id, "audio", { name: id }, { strip: to }),
  inserts,
});
const PROJECT: Project = {
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
  strips: [
    strip("Cello", "Strings", chain(EQ, COMP)),
    createStrip("Strings", "group", { name: "Strings" }, { strip: "Main" }),
    strip("Voice", "Main"),
    createStrip("Main", "main", { name: "Main" }, { hardware: "Out 1–2" }),
  ],
};
const FROM = { preset: "wood", version: 2, name: "Wood" };
const content = (c: Chain): Content => ({ kind: "chain", schema: 1, chain: c });

function plan(source: Content, strips: string[], mode: InsertMode = "replace", answers: Record<string, string> = {}) {
  const request = {
    source: { content: source, from: FROM, name: "Wood" },
    parts: ["inserts", "level", "pan", "routing", "look"] as const,
    targets: { strips },
    mode,
  };
  return planRecall({ project: PROJECT, requests: [request], except: [], answers, mint: counter() });
}

const after = (steps: readonly Step[]): Project => {
  const applied = applySteps(PROJECT, steps);
  if (!applied.ok) throw new Error(applied.error.reason);
  return applied.value;
};

const keys = (project: Project, id: string) => getStrip(project, id).inserts.nodes.map((n) => n.key);

describe("a chain onto strips", () => {
  it("replaces, and the strip goes by the chain's name; fader, pan and output stay", () => {
    const { steps } = plan(content(chain(DELAY)), ["Cello", "Voice"]);
    expect(steps.map((s) => s.kind)).toEqual(["setChain", "setChain"]);
    const now = getStrip(after(steps), "Cello");
    expect(now.inserts.from).toEqual(FROM);
    const { inserts: _, ...rest } = getStrip(PROJECT, "Cello");
    expect(now).toMatchObject(rest);
  });

  it("goes before or after what stands there, under keys that are free", () => {
    const source = content(chain(processor("eq", "vca-compressor"), DELAY));
    const before = keys(after(plan(source, ["Cello"], "before").steps), "Cello");
    expect(before[0]).toMatch(/^n\d+$/);
    expect(before.slice(1)).toEqual(["delay", "eq", "comp"]);
    expect(keys(after(plan(source, ["Cello"], "after").steps), "Cello").slice(0, 2)).toEqual(["eq", "comp"]);
    expect(keys(after(plan(source, ["Voice"], "after").steps), "Voice")).toEqual(["eq", "delay"]);
  });

  it("sets values only, of the same models; what has no partner is named and left", () => {
    const made = plan(
      content(chain(processor("x", "vca-compressor", { threshold: -30, ratio: 4 }), DELAY)),
      ["Cello"],
      "values",
    );
    expect(made.steps.map((s) => s.kind)).toEqual(["setValue", "setValue"]);
    expect(made.notes.map((n) => n.text)).toEqual([
      "Multi-tap delay has no partner here; its values are left out.",
      "Parametric EQ stays as it is; the source has no such plugin.",
    ]);
    expect(mayApplyDirectly(made)).toBe(false);
    expect(keys(after(made.steps), "Cello")).toEqual(["eq", "comp"]);
  });
});

describe("a plugin preset", () => {
  const plugin: Content = { kind: "plugin", schema: 1, processor: processor("k", "vca-compressor", { ratio: 8 }) };
  it("takes the place, and the key, of the first of its model", () => {
    const { steps } = plan(plugin, ["Cello"]);
    expect(steps.map((s) => s.kind)).toEqual(["setNode"]);
    expect(getStrip(after(steps), "Cello").inserts.nodes[1]).toMatchObject({
      key: "comp",
      from: FROM,
      values: { ratio: 8 },
    });
  });
  it("goes last where there is none of its model, and where it is told to", () => {
    expect(keys(after(plan(plugin, ["Voice"]).steps), "Voice")).toEqual(["k"]);
    expect(keys(after(plan(plugin, ["Cello"], "after").steps), "Cello")).toEqual(["eq", "comp", "k"]);
  });
});

describe("an output that is not here", () => {
  const saved: Content = {
    kind: "strip",
    schema: 1,
    strip: { kind: "audio", routing: { output: { external: true, kind: "group", name: "Bowed" } } },
  };
  it("is asked about, left as it is until answered, and goes where the answer says", () => {
    const asked = plan(saved, ["Voice"]);
    expect(asked.questions).toMatchObject([{ id: "routing:Voice", answer: "leave" }]);
    expect(asked.steps).toEqual([]);
    const answered = plan(saved, ["Voice"], "replace", { "routing:Voice": "Strings" });
    expect(getStrip(after(answered.steps), "Voice").routing.output).toEqual({ strip: "Strings" });
  });
  it("is found by kind and name, whatever its case", () => {
    const here = {
      ...saved,
      strip: {
        kind: "audio" as const,
        routing: { output: { external: true as const, kind: "group" as const, name: "STRINGS" } },
      },
    };
    expect(getStrip(after(plan(here, ["Voice"]).steps), "Voice").routing.output).toEqual({ strip: "Strings" });
  });
  it("never closes a loop: the note spells it out", () => {
    const onto = plan(
      { ...saved, strip: { kind: "group", routing: { output: { external: true, kind: "audio", name: "Cello" } } } },
      ["Strings"],
    );
    expect(onto.steps).toEqual([]);
    expect(onto.notes[0]?.text).toContain("Strings → Cello → Strings");
  });
});

describe("a look", () => {
  const looks = (name: string): Content => ({
    kind: "strip",
    schema: 1,
    strip: { kind: "audio", look: { name, colour: "clay" } },
  });
  const look = (answers: Record<string, string> = {}) =>
    getStrip(after(plan(looks("cello"), ["Voice"], "replace", answers).steps), "Voice").look;

  it("that would give two strips one name asks first, and leaves the name until it is answered", () => {
    const asked = plan(looks("cello"), ["Voice"]);
    expect(asked.questions).toMatchObject([{ id: "look:Voice", answer: "keep" }]);
    expect(mayApplyDirectly(asked)).toBe(false);
    expect(look()).toEqual({ name: "Voice", colour: "clay" });
    expect(look({ "look:Voice": "number" })).toEqual({ name: "cello 2", colour: "clay" });
    expect(look({ "look:Voice": "same" })).toEqual({ name: "cello", colour: "clay" });
    expect(look({ "look:Voice": "nonsense" })).toEqual({ name: "Voice", colour: "clay" });
  });

  it("that brings its own strip its own name back, or a name nobody has, asks nothing", () => {
    expect(plan(looks("Cello"), ["Cello"]).questions).toEqual([]);
    expect(plan(looks("Horn"), ["Cello"]).questions).toEqual([]);
  });

  it("is numbered on a new strip that a preset of a name that is here gives its name", () => {
    const request = {
      source: { content: content(chain(EQ)), from: FROM, name: "Cello" },
      parts: ["inserts"] as const,
      targets: { newStrip: { after: null } },
      mode: "replace" as const,
    };
    const { steps } = planRecall({ project: PROJECT, requests: [request], except: [], answers: {}, mint: counter() });
    expect(after(steps).strips.map((s) => s.look.name)).toContain("Cello 2");
  });
});

describe("an instrument", () => {
  const layer = (name: string, model: string, ...effects: Processor[]): Layer => ({
    ...layerOf(processor(name, model)),
    key: name,
    name,
    effects: chain(...effects),
  });
  const layers = (...all: Layer[]): Source => ({ type: "layers", channels: "stereo", layers: all });
  const now = layers(layer("Low", "sampler", EQ), layer("High", "mallets"));
  const wanted = layers(
    layer("high", "electric-piano", COMP),
    layer("Air", "mallets", DELAY),
    layer("Top", "mallets", EQ),
  );
  const told = (source: Source) =>
    layersOf({ source }).map(({ name, instrument, effects }) => [
      name,
      instrument.model,
      ...effects.nodes.map((node) => node.key),
    ]);

  it("is taken whole, or what plays without what is inside, or what is inside alone", () => {
    expect(planLayers({ now, wanted, take: "whole" }).source).toBe(wanted);
    expect(told(planLayers({ now, wanted, take: "played" }).source)).toEqual([
      ["high", "electric-piano"],
      ["Air", "mallets"],
      ["Top", "mallets"],
    ]);
    // By name first: what was inside "Low" goes with no one, since "Air" stands where "High" does, which is taken.
    const inside = planLayers({ now, wanted, take: "effects" });
    expect(told(inside.source)).toEqual([
      ["Low", "sampler", "eq"],
      ["High", "mallets", "comp"],
    ]);
    expect(inside.left).toEqual([
      "There is no layer for the effects inside “Air”; they are left out.",
      "There is no layer for the effects inside “Top”; they are left out.",
    ]);
  });

  it("goes with the layer in its place where none has its name", () => {
    const one = layers(layer("Bell", "mallets", DELAY));
    expect(told(planLayers({ now, wanted: one, take: "effects" }).source)).toEqual([
      ["Low", "sampler", "delay"],
      ["High", "mallets"],
    ]);
    expect(told(planLayers({ now, wanted: one, take: "played" }).source)).toEqual([["Bell", "mallets", "eq"]]);
  });
});

describe("steps", () => {
  const value: Step = {
    id: "a",
    strip: "Cello",
    kind: "setValue",
    node: "comp",
    param: "threshold",
    from: -22,
    to: -30,
  };
  it("are refused when their from is not what stands there, and the project stays the same object", () => {
    const refused = applySteps(PROJECT, [value, { ...value, id: "b" }]);
    expect(refused).toMatchObject({
      ok: false,
      error: { step: { id: "b" }, reason: "Cello: the value has changed since." },
    });
    for (const [wrong, reason] of [
      [{ ...value, strip: "Harp" }, /“Harp” is not here/],
      [{ ...value, node: "gate" }, /“gate” is not here/],
    ] as const) {
      const result = applySteps(PROJECT, [wrong]);
      expect(!result.ok && result.error.reason).toMatch(reason);
    }
  });
  it("leave what they do not touch the same object", () => {
    const now = after([value]);
    expect(getStrip(now, "Voice")).toBe(getStrip(PROJECT, "Voice"));
    expect(getStrip(now, "Cello").inserts.nodes[0]).toBe(EQ);
  });
  it("are told in a sentence each", () => {
    expect(sentenceOf(value, PROJECT)).toBe("Cello: VCA compressor, Threshold −22.0 dB → −30.0 dB.");
    expect(plan(content(chain(DELAY)), ["Voice"]).steps.map((s) => sentenceOf(s, PROJECT))).toEqual([
      "Voice: put in 1 plugin of Wood.",
    ]);
    const [placed] = gestures.takeOut({ strip: getStrip(PROJECT, "Cello"), mint: counter() }, "eq");
    expect(sentenceOf(placed!, PROJECT)).toBe("Cello: take out Parametric EQ.");
    const said = (step: object) => sentenceOf({ id: "t", kind: "setDetail", ...step } as Step, PROJECT);
    expect(said({ detail: "tempo", from: 92, to: 96 })).toBe("Weir Song: tempo 92 → 96 bpm.");
    expect(said({ detail: "artist", from: "", to: "Copper Heron" })).toBe("Weir Song: artist none → Copper Heron.");
    expect(said({ detail: "meter", from: { beats: 4, unit: 4 }, to: { beats: 6, unit: 8 } })).toBe(
      "Weir Song: meter 4/4 → 6/8.",
    );
  });
  it("get a value for every parameter when they bring in a plugin that lacks some", () => {
    const bare: Processor = { ...COMP, key: "new", values: { ratio: 3 } };
    const placing: Step = {
      id: "a",
      strip: "Cello",
      kind: "placeNode",
      node: "new",
      from: null,
      to: { node: bare, after: null },
    };
    const step = kindOf(placing).complete(placing);
    expect(step.kind === "placeNode" && step.to?.node).toMatchObject({
      values: { ratio: 3, threshold: -18, mix: 100 },
    });
  });
});

describe("gestures of the hand", () => {
  const hand = { strip: getStrip(PROJECT, "Cello"), mint: counter() };
  const cases: readonly [string, readonly Step[], (p: Project) => void][] = [
    [
      "turn",
      gestures.turn(hand, "comp", { threshold: -10, ratio: 2 }),
      (p) => expect(getStrip(p, "Cello").inserts.nodes[1]).toMatchObject({ values: { threshold: -10 } }),
    ],
    [
      "switch off",
      gestures.switchOn(hand, ["eq"], false),
      (p) => expect(getStrip(p, "Cello").inserts.nodes[0]).toMatchObject({ enabled: false }),
    ],
    [
      "name",
      gestures.rename(hand, "eq", "Nose out"),
      (p) => expect(getStrip(p, "Cello").inserts.nodes[0]).toMatchObject({ label: "Nose out" }),
    ],
    ["move", gestures.move(hand, "eq", 1), (p) => expect(keys(p, "Cello")).toEqual(["comp", "eq"])],
    ["take out", gestures.takeOut(hand, "comp"), (p) => expect(keys(p, "Cello")).toEqual(["eq"])],
    [
      "put in",
      gestures.putIn(hand, DELAY, { within: null, after: "eq" }),
      (p) => expect(keys(p, "Cello")).toEqual(["eq", "delay", "comp"]),
    ],
    ["follow", gestures.follow(hand, FROM), (p) => expect(getStrip(p, "Cello").inserts.from).toEqual(FROM)],
  ];
  for (const [name, steps, check] of cases)
    it(`${name}, and back again`, () => {
      const now = after(steps);
      check(now);
      expect(applySteps(now, invertSteps(steps))).toEqual({ ok: true, value: PROJECT });
    });
  it("that change nothing make no step", () => {
    expect(
      [
        gestures.turn(hand, "comp", { threshold: -22 }),
        gestures.switchOn(hand, ["eq"], true),
        gestures.move(hand, "eq", -1),
        gestures.move(hand, "gone", 1),
        gestures.rename(hand, "eq", null),
      ].flat(),
    ).toEqual([]);
  });
});

describe("what differs", () => {
  it("is told value by value, and counted in words", () => {
    const now = chain({ ...EQ, enabled: false }, { ...COMP, values: { ...COMP.values, threshold: -20 } }, DELAY);
    const found = differencesOf(chain(EQ, COMP), now);
    expect(found.map((d) => d.kind)).toEqual(["enabled", "value", "added"]);
    expect(describeDifferences(found)).toBe("1 plugin and 2 values");
    expect(describeDifferences(differencesOf(chain(EQ, COMP), chain(COMP, EQ)))).toBe("the order");
    expect(describeDifferences(differencesOf(chain(EQ), chain(EQ)))).toBe("nothing");
  });
  it("pairs by key, then by model; a plugin under another key is the same plugin", () => {
    expect(differencesOf(chain(EQ, COMP), chain({ ...EQ, key: "other" }, COMP))).toEqual([]);
    expect(partnersOf(chain(EQ, COMP), chain({ ...EQ, key: "other" })).get("other")).toBe(EQ);
    expect(differencesOf(chain(EQ), chain({ ...COMP, key: "eq" })).map((d) => d.kind)).toEqual(["added", "removed"]);
  });
  it("is told against each plugin's own preset where the chain was never saved", () => {
    const from = { preset: "p", version: 2, name: "Close" };
    const saved = { ...COMP, key: "other", values: { ...COMP.values, threshold: -11 } };
    const now = chain(EQ, { ...COMP, from });
    const find = (asked: typeof from) => (asked === from ? saved : null);
    expect(differencesOf(asInPluginPresets(now, find), now)).toEqual([
      { kind: "value", processor: COMP.key, param: "threshold", from: -11, to: COMP.values.threshold },
    ]);
    // Another model by now: the preset says nothing about it.
    expect(asInPluginPresets(chain({ ...EQ, from }), find)).toEqual(chain({ ...EQ, from }));
  });
});

describe("a fingerprint", () => {
  const of = (c: Chain) => fingerprint(content(c));
  it("is of what sounds: names, keys and origins do not count, values, switches and order do", () => {
    const base = of(chain(EQ, COMP));
    expect(base).toMatch(/^2:[0-9a-f]{64}$/);
    expect(of(chain({ ...EQ, key: "z", label: "Nose", from: FROM }, COMP))).toBe(base);
    expect(of({ ...chain(EQ, COMP), from: FROM })).toBe(base);
    expect(of(chain({ ...EQ, values: { ...EQ.values, "band3.gain": -5.0000001 } }, COMP))).toBe(base);
    for (const other of [
      chain(COMP, EQ),
      chain({ ...EQ, enabled: false }, COMP),
      chain({ ...EQ, values: { ...EQ.values, "band3.gain": -5.01 } }, COMP),
      chain(EQ),
    ])
      expect(of(other)).not.toBe(base);
  });
  it("keeps a note length apart from the time that it makes", () => {
    expect(of(chain(DELAY))).not.toBe(of(chain({ ...DELAY, values: { ...DELAY.values, "tap1.time": 489 } })));
  });
});

describe("saving", () => {
  it("takes the chosen parts and turns references into names; the chain leaves its origin behind", () => {
    const saved = saveStrip(PROJECT, getStrip(PROJECT, "Cello"), ["inserts", "routing"]);
    expect(saved).toMatchObject({
      kind: "strip",
      strip: { routing: { output: { external: true, kind: "group", name: "Strings" } } },
    });
    expect(saved.kind === "strip" && saved.strip.level).toBeUndefined();
    expect(saveChain({ ...chain(EQ), from: FROM })).toEqual(content(chain(EQ)));
  });
});

describe("a project", () => {
  it("stands in the ledger with members under their group", () => {
    expect(ledgerOrder(PROJECT).map((s) => s.id)).toEqual(["Strings", "Cello", "Voice", "Main"]);
    expect(depthOf(PROJECT, getStrip(PROJECT, "Cello"))).toBe(1);
    expect(findLoop(PROJECT, "Cello")).toBeNull();
  });
  it("is refused with the field that is wrong", () => {
    const twice = { ...PROJECT, strips: [...PROJECT.strips, strip("Voice", "Main")] };
    expect(findProjectProblem(twice)).toMatchObject({ path: "strips[4].id" });
    expect(findProjectProblem({ ...PROJECT, strips: [strip("A", "gone")] })).toMatchObject({
      path: "strips[0].routing.output",
    });
    expect(findProjectProblem({ ...PROJECT, strips: [strip("A", "B"), strip("B", "A")] })?.message).toContain(
      "A → B → A",
    );
    expect(findChainProblem(chain(EQ, { ...COMP, key: "eq" }), "x")).toMatchObject({ path: "x.nodes[1].key" });
  });
});
