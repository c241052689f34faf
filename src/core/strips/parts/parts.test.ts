import { describe, expect, it } from "vitest";
import type { Processor } from "../../chains/chain";
import { STRIP_KINDS, type StripKind } from "../../documents/strip-kinds";
import { createStrip, presetsIn } from "../strip";
import { loadedFrom } from "../loaded";

import { PART, PARTS, type PartName } from ".";
import { PART_SCHEMAS } from "./schemas";
import type { Part } from "./part";
import { layerOf } from "./source";

const around = { kind: "audio" as StripKind, nameOf: (id: string) => id.toUpperCase() };
const recordOf = (name: PartName) => PART[name] as Part<unknown>;

describe.each(PARTS)("the part %s", (name) => {
  const record = recordOf(name);

  it("has a title, a phrase and a schema", () => {
    expect(record.title).toMatch(/^[A-Z]/);
    expect(record.phrase).toMatch(/^the /);
    expect(Object.keys(PART_SCHEMAS)).toContain(name);
  });

  it.each(STRIP_KINDS)("has something to begin with on a strip of kind %s, that holds and is whole", (kind) => {
    const empty = record.empty(kind);
    expect(PART_SCHEMAS[name].safeParse(empty).error).toBeUndefined();
    expect(record.complete(empty)).toEqual(empty);
    expect(record.presets(empty)).toEqual([]);
    expect(record.words(empty, around)).not.toBe("");
    expect(record.change(empty, empty, around)).not.toContain("undefined");
    expect(record.aims?.of(empty) ?? []).toEqual([]);
  });
});

const from = (preset: string) => ({ preset, version: 1, name: preset });
const plugin = (key: string, preset?: string): Processor => ({
  type: "processor",
  key,
  model: "vca-compressor",
  enabled: true,
  values: {},
  ...(preset === undefined ? {} : { from: from(preset) }),
});

/** Something from a preset of its own in every place where there can be. */
const STRIP = {
  ...createStrip("pad", "instrument", { name: "Pad" }, null),
  inserts: {
    from: from("the inserts"),
    macros: [],
    nodes: [
      plugin("a", "a plugin"),
      {
        type: "section" as const,
        key: "sec",
        name: "Sec",
        enabled: true,
        from: from("a section"),
        nodes: [plugin("b")],
      },
      {
        type: "split" as const,
        key: "spl",
        by: { way: "copy" as const },
        lanes: ["l1", "l2"].map((key) => ({
          key,
          name: key,
          enabled: true,
          level: 0,
          pan: 0,
          nodes: [plugin(`in-${key}`, `a plugin in ${key}`)],
        })),
      },
    ],
  },
  source: {
    type: "layers" as const,
    channels: "stereo" as const,
    layers: [
      {
        ...layerOf({ ...plugin("synth", "an instrument"), model: "pad-synth" }),
        effects: { from: from("the effects"), macros: [], nodes: [plugin("c", "an effect")] },
      },
    ],
  },
};
const ALL = [
  "an instrument",
  "the effects",
  "an effect",
  "the inserts",
  "a plugin",
  "a section",
  "a plugin in l1",
  "a plugin in l2",
];

describe("what a strip was loaded from", () => {
  it("is found wherever it stands: in sections, lanes, layers and their effects", () => {
    expect(presetsIn(STRIP).map((f) => f.preset)).toEqual(ALL);
  });

  it("is found as it is now, each by itself", () => {
    for (const preset of ALL) expect(loadedFrom(STRIP, preset), preset).toHaveLength(1);
    expect(loadedFrom(STRIP, "a section")[0]!.chain.nodes.map((node) => node.key)).toEqual(["b"]);
    expect(loadedFrom(STRIP, "the effects")[0]!.chain.nodes.map((node) => node.key)).toEqual(["c"]);
    expect(loadedFrom(STRIP, "something else")).toEqual([]);
  });
});

describe("strips that a part leads to", () => {
  const aim = (value: unknown, name: PartName) =>
    recordOf(name).aims!.mapped(value, (ref) => ("strip" in ref ? { strip: `${ref.strip}2` } : null));

  it("are found and replaced in the output, in the keys of plugins, and within layers", () => {
    expect(aim({ output: { strip: "main" } }, "routing")).toEqual({ output: { strip: "main2" } });
    expect(aim({ output: { hardware: "Out 1–2" } }, "routing")).toEqual({ output: { hardware: "Out 1–2" } });
    const keyed = { ...plugin("k"), keyInput: { strip: { strip: "drum" }, tap: "pre" as const } };
    const chain = { nodes: [keyed], macros: [] };
    expect(recordOf("inserts").aims!.of(chain)).toEqual([{ strip: "drum" }]);
    expect(aim(chain, "inserts")).toMatchObject({ nodes: [{ keyInput: { strip: { strip: "drum2" }, tap: "pre" } }] });
    const source = { ...STRIP.source, layers: [{ ...STRIP.source.layers[0]!, effects: chain }] };
    expect(recordOf("source").aims!.of(source)).toEqual([{ strip: "drum" }]);
    expect(aim(source, "source")).toMatchObject({ layers: [{ effects: { nodes: [{ keyInput: { tap: "pre" } }] } }] });
  });

  it("are left out of a plugin's key where there is none for them: it hears itself again", () => {
    const outside = { external: true as const, kind: "audio" as const, name: "Drum" };
    const chain = { nodes: [{ ...plugin("k"), keyInput: { strip: outside, tap: "pre" as const } }], macros: [] };
    expect(aim(chain, "inserts")).toEqual({ nodes: [plugin("k")], macros: [] });
  });
});
