import { describe, expect, it } from "vitest";
import { type Chain, EMPTY_CHAIN, type Processor } from "../chains/chain";
import { layerOf } from "../strips/parts/source";
import { createStrip } from "../strips/strip";
import { effectWords } from "./effect-words";
import type { Content } from "./preset";
import { CONTENT_SCHEMA } from "./version";

const plugin = (key: string, model = "gain"): Processor => ({
  type: "processor",
  key,
  model,
  enabled: true,
  values: {},
});
const chain = (count: number): Chain => ({
  nodes: Array.from({ length: count }, (_, n) => plugin(`p${n}`)),
  macros: [],
});
const strip = (name: string, count: number) => ({
  ...createStrip(name, "audio", { name }, null),
  inserts: chain(count),
});
const CHAIN: Content = { kind: "chain", schema: CONTENT_SCHEMA, chain: chain(3) };
const PLUGIN: Content = { kind: "plugin", schema: CONTENT_SCHEMA, processor: plugin("x") };
const MALLETS: Content = { kind: "plugin", schema: CONTENT_SCHEMA, processor: plugin("x", "mallets") };

describe("what applying does, told before", () => {
  it.each([
    [CHAIN, [strip("Horn", 2)], "replaces 2 plugins of Horn"],
    [CHAIN, [strip("Horn", 1)], "replaces 1 plugin of Horn"],
    [CHAIN, [strip("Horn", 0)], "goes onto Horn"],
    [CHAIN, [strip("Horn", 2), strip("Cello", 3)], "replaces 5 plugins of 2 strips"],
    [PLUGIN, [strip("Horn", 3)], "goes behind the 3 plugins of Horn"],
    [CHAIN, [], null],
  ])("%#", (content, targets, words) => {
    expect(effectWords(content, targets)).toBe(words);
  });

  it("of an instrument, and of what sounds in no chain", () => {
    const blank = createStrip("a", "instrument", { name: "Keys" }, null);
    expect(effectWords(MALLETS, [blank])).toBe("plays on Keys");
    const source = { type: "layers" as const, channels: "stereo" as const, layers: [layerOf(plugin("i", "mallets"))] };
    expect(effectWords(MALLETS, [{ ...blank, source, inserts: EMPTY_CHAIN }])).toBe("replaces 1 instrument of Keys");
    const level: Content = {
      kind: "strip",
      schema: CONTENT_SCHEMA,
      strip: { kind: "audio", level: { fader: -3, mute: false } },
    };
    expect(effectWords(level, [strip("Horn", 2)])).toBe("sets Horn");
  });
});
