import { describe, expect, it } from "vitest";
import { EMPTY_CHAIN, type Processor, processorName } from "../chains/chain";
import { FADER } from "./params";
import { type Strip, chainAt, completeStrip, createStrip, describeParts, partsOf } from "./strip";
import { findStripProblem } from "./problems";
import { describeLevel, formatFader } from "./parts/level";
import { describePan } from "./parts/pan";
import { type Layer, describeSource, layerOf, layersOf } from "./parts/source";
import { isBus } from "../documents/strip-kinds";

const KINDS = ["audio", "instrument", "return", "group", "main", "folder"] as const;

const plugin = (key: string, model: string, values: Processor["values"] = {}): Processor => ({
  type: "processor",
  key,
  model,
  enabled: true,
  values,
});
const strip = (kind: Strip["kind"], more: Partial<Strip> = {}): Strip => ({
  ...createStrip("s", kind, { name: "Strip" }, null),
  ...more,
});
const playing = (...layers: readonly Layer[]): Strip =>
  strip("instrument", { source: { type: "layers", channels: "stereo", layers: [...layers] } });
const PAD = layerOf(plugin("pad", "pad-synth"));
const problem = (some: Strip) => findStripProblem(some, "strip");

describe("a strip with nothing set", () => {
  it("of every kind is sound, plays at full level in the middle, and holds no plugin", () => {
    for (const kind of KINDS) {
      const blank = strip(kind);
      expect(problem(blank), kind).toBeNull();
      expect(blank.inserts).toBe(EMPTY_CHAIN);
      expect([formatFader(blank.level), describePan(blank.pan)]).toEqual(["0.0", "C"]);
    }
  });

  it("takes its sound from where its kind does", () => {
    const types = KINDS.map((kind) => strip(kind).source.type);
    expect(types).toEqual(["input", "layers", "bus", "bus", "bus", "input"]);
    expect(KINDS.filter(isBus)).toEqual(["return", "group", "main"]);
  });
});

describe("a strip in words", () => {
  it("says its level, silence and muting, its pan and a width that is not whole", () => {
    expect(formatFader({ fader: -4.5, mute: true })).toBe("−4.5, muted");
    expect(describeLevel({ fader: FADER.min, mute: false })).toBe("−∞ dB");
    expect(describePan({ pan: -12, width: 100 })).toBe("L 12");
    expect(describePan({ pan: 0, width: 40 })).toBe("C, width 40 %");
  });

  it("says what it plays", () => {
    expect(describeSource(strip("audio"))).toBe("No input, mono");
    expect(describeSource(strip("main"))).toBe("main output");
    expect(describeSource(playing())).toBe("no instrument");
    const bass = layerOf(plugin("bass", "bass-synth"));
    const both = [PAD, { ...bass, key: "layer2" }];
    expect(describeSource(playing(...both))).toBe(both.map((l) => processorName(l.instrument)).join(", "));
  });
});

describe("the chains of a strip", () => {
  it("are its inserts, and the effects within each layer; of a layer that is not there none", () => {
    const inserts = { nodes: [plugin("eq", "parametric-eq")], macros: [] };
    const effects = { nodes: [plugin("room", "room")], macros: [] };
    const some = { ...playing({ ...PAD, effects }), inserts };
    expect(chainAt(some, undefined)).toBe(inserts);
    expect(chainAt(some, PAD.key)).toBe(effects);
    expect(chainAt(some, "gone")).toBeNull();
    expect(chainAt(strip("audio"), PAD.key)).toBeNull();
    expect([layersOf(some).length, layersOf(strip("audio"))]).toEqual([1, []]);
  });
});

describe("what is wrong with a strip", () => {
  it("is said with its place", () => {
    const wrong: readonly (readonly [Strip, string])[] = [
      [{ ...playing(PAD), kind: "audio" }, "strip.source.type"],
      [playing(PAD, PAD), "strip.source.layers[1].key"],
      [playing({ ...PAD, keys: { low: 60, high: 59 } }), "strip.source.layers[0].keys"],
      [playing({ ...PAD, velocities: { low: 2, high: 1 } }), "strip.source.layers[0].velocities"],
      [playing(layerOf(plugin("eq", "parametric-eq"))), "strip.source.layers[0].instrument.model"],
      [playing(layerOf(plugin("x", "nothing-such"))), "strip.source.layers[0].instrument.model"],
      [
        playing({ ...PAD, effects: { nodes: [plugin("pad", "pad-synth")], macros: [] } }),
        "strip.source.layers[0].effects.nodes[0].model",
      ],
      [
        strip("audio", { inserts: { nodes: [plugin("a", "gain"), plugin("a", "gain")], macros: [] } }),
        "strip.inserts.nodes[1].key",
      ],
      [strip("folder", { level: { fader: -3, mute: false } }), "strip.level"],
      [strip("folder", { routing: { output: { strip: "main" } } }), "strip.routing"],
    ];
    for (const [some, path] of wrong) {
      expect(problem(some)?.path).toBe(path);
      expect(problem(some)?.message).toMatch(/\.$/);
    }
    expect(problem(playing(PAD, { ...PAD, key: "layer2", keys: { low: 60, high: 60 } }))).toBeNull();
  });
});

describe("a saved strip", () => {
  it("holds just the parts that were saved; an input is no part that can be put onto another strip", () => {
    const { source, inserts, level } = playing(PAD);
    expect(partsOf({ kind: "instrument", source, level })).toEqual(["source", "level"]);
    expect(partsOf({ kind: "audio", source: strip("audio").source, inserts })).toEqual(["inserts"]);
    expect(partsOf({ kind: "audio" })).toEqual([]);
  });

  it("gets the values that its plugins were saved without, and is the same again after that", () => {
    const effects = { nodes: [plugin("room", "room")], macros: [] };
    const bare = { ...playing({ ...PAD, effects }), inserts: { nodes: [plugin("eq", "tilt-eq")], macros: [] } };
    const whole = completeStrip(bare);
    const [layer] = layersOf(whole);
    for (const { values } of [
      whole.inserts.nodes[0] as Processor,
      layer!.instrument,
      layer!.effects.nodes[0] as Processor,
    ])
      expect(Object.keys(values).length).toBeGreaterThan(0);
    expect(completeStrip(whole)).toEqual(whole);
    expect(completeStrip({ kind: "audio" })).toEqual({ kind: "audio" });
  });
});

describe("what a preset of parts holds", () => {
  it("is told part by part, with what each is set to", () => {
    const level = { kind: "audio" as const, level: { fader: -3.5, mute: false }, pan: { pan: -20, width: 100 } };
    expect(describeParts(level).map(({ title, words }) => `${title}: ${words}`)).toEqual([
      expect.stringMatching(/^Level: −3\.5/),
      expect.stringMatching(/^Pan: L 20/),
    ]);
  });
});
