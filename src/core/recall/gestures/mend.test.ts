import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Chain, Processor } from "../../chains/chain";
import { type CheckContext, checkChain } from "../../chains/check";
import { hearChain } from "../../chains/hear";
import { defaultValues } from "../../processors/model";
import { getModel } from "../../processors/models";
import { peaksOf } from "../../sound/peaks";
import { noise } from "../../sound/testing";
import { beatsPerMinute } from "../../units/quantities";
import { createProject } from "../testing/one-strip";
import { applySteps } from "../apply";
import { counter } from "../testing/generators";
import { mend } from "./mend";

const TEMPO = beatsPerMinute(120);
const LOOP = noise(0.25, 48_000);

/** Plugins that rules are about, and some that only pass on or make louder. */
const MODELS = [
  "amplifier",
  "limiter",
  "gain",
  "stereo-width",
  "chorus",
  "tuner",
  "meter",
  "room",
  "vca-compressor",
  "tape",
];

const somePlugin = fc
  .record({
    model: fc.constantFrom(...MODELS),
    enabled: fc.boolean(),
    dB: fc.integer({ min: -12, max: 18 }),
  })
  .map(({ model, enabled, dB }): Omit<Processor, "key"> => {
    const values = { ...defaultValues(getModel(model)) };
    for (const id of ["gain", "output", "makeup"]) if (id in values) values[id] = dB;
    return { type: "processor", model, enabled, values };
  });

const someChain = fc
  .array(somePlugin, { maxLength: 6 })
  .map((plugins): Chain => ({ nodes: plugins.map((p, n) => ({ ...p, key: `p${n}` })), macros: [] }));

const someContext = fc.record({
  strip: fc.constantFrom("audio", "return"),
  channels: fc.constantFrom("mono", "stereo"),
}) as fc.Arbitrary<Pick<CheckContext, "strip" | "channels">>;

function remarksOn(chain: Chain, context: Pick<CheckContext, "strip" | "channels">) {
  const peaks = peaksOf(
    { chain: hearChain(chain, TEMPO) },
    { loop: LOOP, keys: new Map(), samples: new Map(), play: null },
  );
  return checkChain(chain, { ...context, sampleRate: 48_000, tempo: beatsPerMinute(120), peaks }).filter(
    (remark) => remark.mend !== null,
  );
}

describe("a mend of the check", () => {
  it("makes its remark go and brings no other", () => {
    let mended = 0;
    fc.assert(
      fc.property(someChain, someContext, fc.nat(), (chain, context, which) => {
        const before = remarksOn(chain, context);
        const chosen = before[which % Math.max(1, before.length)];
        if (!chosen?.mend) return;
        mended += 1;
        const project = createProject(chain);
        const steps = mend({ strip: project.strips[0]!, mint: counter("mend") }, chosen.mend);
        const applied = applySteps(project, steps);
        if (!applied.ok) throw new Error(applied.error.reason);
        const after = remarksOn(applied.value.strips[0]!.inserts, context).map((r) => r.id);
        expect(after).not.toContain(chosen.id);
        const known = new Set(before.map((r) => r.id));
        expect(after.filter((id) => !known.has(id))).toEqual([]);
      }),
      { numRuns: 150, seed: 12 },
    );
    expect(mended).toBeGreaterThan(50);
  });
});
