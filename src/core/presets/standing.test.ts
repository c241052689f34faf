import { describe, expect, it } from "vitest";
import { type Chain, EMPTY_CHAIN, type Processor } from "../chains/chain";
import type { Content } from "./preset";
import { CONTENT_SCHEMA } from "./version";
import { layerOf } from "../strips/parts/source";
import { differencesFrom, referenceOf, soundingChain, unsavedIn } from "./standing";

const RIM = { preset: "rim", version: 1, name: "Rim" };
const BELL = { preset: "bell", version: 2, name: "Bell" };

const plugin = (key: string, model: string, more: Partial<Processor> = {}): Processor => ({
  type: "processor",
  key,
  model,
  enabled: true,
  values: { gain: 0 },
  ...more,
});
const chain = (...nodes: readonly Processor[]): Chain => ({ nodes: [...nodes], macros: [] });
const INPUT = { type: "input", channels: "mono", input: "In 1", gain: 0, inverted: false } as const;
const played = (...instruments: readonly Processor[]) => ({
  type: "layers" as const,
  channels: "stereo" as const,
  layers: instruments.map((i) => ({ ...layerOf(i), key: `layer of ${i.key}` })),
});
const pluginPreset = (processor: Processor): Content => ({ kind: "plugin", schema: CONTENT_SCHEMA, processor });

describe("what a strip came from", () => {
  it("is what its chain came from, whatever its plugins came from", () => {
    const inserts = { ...chain(plugin("a", "gain", { from: BELL })), from: RIM };
    expect(referenceOf({ inserts, source: INPUT })).toBe(RIM);
  });

  it("is what its only plugin came from, or its only instrument with nothing behind it", () => {
    expect(referenceOf({ inserts: chain(plugin("a", "gain", { from: BELL })), source: INPUT })).toBe(BELL);
    expect(referenceOf({ inserts: EMPTY_CHAIN, source: played(plugin("i", "mallets", { from: BELL })) })).toBe(BELL);
  });

  it("is nothing where several came from somewhere, or what came from somewhere is only a part", () => {
    const two = chain(plugin("a", "gain", { from: BELL }), plugin("b", "gain", { from: RIM }));
    expect(referenceOf({ inserts: two, source: INPUT })).toBeNull();
    const behind = { inserts: chain(plugin("a", "gain", { from: BELL })), source: played(plugin("i", "mallets")) };
    expect(referenceOf(behind)).toBeNull();
    expect(referenceOf({ inserts: EMPTY_CHAIN, source: INPUT })).toBeNull();
  });
});

describe("what it differs by", () => {
  it("is nothing for exactly a plugin preset, as an insert and as an instrument", () => {
    const gain = plugin("other key", "gain");
    expect(differencesFrom({ inserts: chain(plugin("a", "gain")), source: INPUT }, pluginPreset(gain))).toEqual([]);
    const mallets = plugin("i", "mallets");
    const strip = { inserts: EMPTY_CHAIN, source: played(mallets) };
    expect(differencesFrom(strip, pluginPreset(plugin("x", "mallets")))).toEqual([]);
  });

  it("tells what was turned on the instrument, and what stands behind it", () => {
    const strip = {
      inserts: chain(plugin("a", "gain")),
      source: played(plugin("i", "mallets", { values: { gain: 3 } })),
    };
    const saved = { inserts: EMPTY_CHAIN, source: played(plugin("i", "mallets")) };
    const content: Content = { kind: "strip", schema: CONTENT_SCHEMA, strip: { kind: "instrument", ...saved } };
    expect(differencesFrom(strip, content).map((d) => d.kind)).toEqual(["value", "added"]);
    expect(soundingChain(strip).nodes.map((n) => n.key)).toEqual(["i", "a"]);
  });
});

describe("a plugin", () => {
  const now = plugin("a", "gain", { values: { gain: 3 } });

  it("is as saved where it is so by itself or within the whole", () => {
    const before = plugin("a", "gain");
    expect(unsavedIn(now, { partner: before, own: now })).toBe(0);
    expect(unsavedIn(now, { partner: now, own: before })).toBe(0);
    expect(unsavedIn(now, { partner: before, own: null })).toBe(1);
  });

  it("is saved nowhere where there is nothing of its model", () => {
    expect(unsavedIn(now, { partner: null, own: plugin("a", "plate") })).toBeNull();
  });
});
