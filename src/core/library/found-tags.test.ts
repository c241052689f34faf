import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Processor } from "../chains/chain";
import { chain, comp, delay, eq, note, off } from "../packs/writing";
import type { Content } from "../presets/preset";
import { CONTENT_SCHEMA } from "../presets/version";
import { MODELS, getModel } from "../processors/models";
import { setTo } from "../sound/testing";
import { FOUND_TAGS, foundTags } from "./found-tags";

const of = (...processors: readonly Processor[]): Content => ({
  kind: "chain",
  schema: CONTENT_SCHEMA,
  chain: chain(...processors),
});
const plugin = (model: string, values: Processor["values"]): Processor => ({
  type: "processor",
  key: model,
  model,
  enabled: true,
  values: setTo(getModel(model), values),
});

describe("found tags", () => {
  it("of an equaliser go by its response, not by its bands", () => {
    expect(foundTags(of(eq([["high shelf", 3000, 4, 0.7]])))).toEqual(["bright"]);
    expect(foundTags(of(eq([["high shelf", 3000, -5, 0.7]])))).toEqual(["dark"]);
    expect(foundTags(of(eq([["low shelf", 300, 3, 0.7]])))).toEqual(["warm"]);
    expect(foundTags(of(eq([["low cut", 350, 24]])))).toEqual(["thin"]);
    // What one lifts and the next takes away is not there.
    expect(foundTags(of(eq([["high shelf", 3000, 4, 0.7]]), eq([["high shelf", 3000, -4, 0.7]])))).toEqual([]);
    // All of it louder is no brighter.
    expect(foundTags(of(eq([], { output: 9 })))).toEqual([]);
  });
  it("of a compressor go by what its line does to a loud note: (threshold + 10)·(1 − 1/ratio)", () => {
    const hard = { knee: 0 };
    expect(foundTags(of(comp(-14, 2, hard)))).toEqual(["gentle"]); // 2 dB
    expect(foundTags(of(comp(-11, 2, hard)))).toEqual([]); // 0.5 dB
    expect(foundTags(of(comp(-22, 2, hard)))).toEqual([]); // 6 dB
    expect(foundTags(of(comp(-30, 4, hard)))).toEqual(["squeezed"]); // 15 dB
    expect(foundTags(of(comp(-18, 4, hard), comp(-18, 4, hard)))).toEqual(["squeezed"]); // 6 and 6 dB
  });
  it("of tails, times and mixes go by what is heard", () => {
    expect(foundTags(of(plugin("hall", { decay: 3 })))).toEqual(["long tail"]);
    expect(foundTags(of(plugin("hall", { decay: 3, wet: -60 })))).toEqual([]);
    expect(foundTags(of(plugin("room", { decay: 0.5, dry: -60 })))).toEqual(["short room", "wet only"]);
    expect(foundTags(of(delay([[note("1/8"), -6]])))).toEqual(["tempo-locked"]);
    expect(foundTags(of(delay([[120, -6]])))).toEqual([]);
    expect(foundTags(of(plugin("stereo-width", { width: 130 })))).toEqual(["wide"]);
    expect(foundTags(of(plugin("overdrive", { drive: 36 })))).toEqual(["driven"]);
    expect(foundTags(of(plugin("tape", { drive: -6 })))).toEqual([]);
  });
  it("say nothing of what is switched off, nor of a plugin that is not known", () => {
    expect(foundTags(of(off(comp(-40, 8)), { ...plugin("hall", {}), model: "elsewhere" }))).toEqual([]);
  });
  it("are words of the list, each once, for any plugin at any setting", () => {
    const settings = fc
      .constantFrom(...MODELS)
      .chain((model) =>
        fc
          .record(
            Object.fromEntries(model.params.map((p) => [p.id, fc.double({ min: p.min, max: p.max, noNaN: true })])),
          )
          .map((values) => plugin(model.id, values)),
      );
    fc.assert(
      fc.property(fc.array(settings, { maxLength: 4 }), (processors) => {
        const tags = foundTags(of(...processors));
        expect(new Set(tags).size).toBe(tags.length);
        for (const tag of tags) expect(Object.keys(FOUND_TAGS)).toContain(tag);
      }),
    );
  });
});
