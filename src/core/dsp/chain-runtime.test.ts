import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { HeardChain } from "../chains/heard-chain";
import { defaultValues, getSpec } from "../processors/model";
import { MODELS, getModel } from "../processors/models";
import { type ParamSpec, type Values, valueAt } from "../processors/param-spec";
import { noise, rms, setTo, sine, stereoOf } from "../processors/testing";
import { createChainRuntime } from "./chain-runtime";
import { renderChain } from "./render";

const RATE = 48_000;

const SETTINGS: readonly [model: string, values: Values][] = [
  [
    "parametric-eq",
    { "band1.used": 1, "band3.used": 1, "band3.gain": 9, "band6.used": 1, "band6.gain": -5, output: 2, mix: 80 },
  ],
  ["vca-compressor", { threshold: -30, ratio: 6, makeupMode: 1, mix: 70 }],
  ["multitap-delay", { "tap1.time": 31, "tap2.on": 1, "tap2.time": 83, feedback: 60, wet: -3 }],
];
const FULL: HeardChain = SETTINGS.map(([model, values]) => ({
  key: model,
  model,
  enabled: true,
  values: setTo(getModel(model), values),
}));

describe("a chain", () => {
  it("gives the same samples in blocks of 1, 64, 128 and 1000", () => {
    const sound = noise(0.5, RATE);
    const whole = renderChain(FULL, sound, 4096);
    for (const block of [1, 64, 128, 1000]) {
      const cut = renderChain(FULL, sound, block);
      expect(cut.left).toEqual(whole.left);
      expect(cut.right).toEqual(whole.right);
    }
  });

  it("gives the same samples in any blocks while values glide and switches fade", () => {
    const sound = noise(0.4, RATE);
    const louder = FULL.map((p) => ({
      ...p,
      enabled: p.model !== "multitap-delay",
      values: setTo(getModel(p.model), {}),
    }));
    const render = (block: number) => {
      const runtime = createChainRuntime(FULL, RATE);
      const [left, right] = [sound.left.slice(), sound.right.slice()];
      for (let at = 0; at < left.length; ) {
        // The change is asked for at sample 9001, between two points of the grid.
        const end = Math.min(left.length, at + block, at < 9001 ? 9001 : left.length);
        if (at === 9001) runtime.update(louder);
        runtime.process(left.subarray(at, end), right.subarray(at, end), end - at);
        at = end;
      }
      return left;
    };
    const whole = render(4096);
    for (const block of [1, 64, 128, 1000]) expect(render(block)).toEqual(whole);
  });

  it("that is switched off is its input, bit for bit", () => {
    const sound = noise(0.3, RATE);
    const off = renderChain(
      FULL.map((p) => ({ ...p, enabled: false })),
      sound,
    );
    expect(off.left).toEqual(sound.left);
    expect(off.right).toEqual(sound.right);
  });

  it("refuses an update by which processors move, and takes one of values", () => {
    const runtime = createChainRuntime(FULL, RATE);
    expect(runtime.update(FULL.toReversed())).toBe(false);
    expect(runtime.update(FULL.map((p) => ({ ...p, enabled: false })))).toBe(true);
  });

  it("passes on neither NaN nor infinity, and sounds again afterwards", () => {
    const bad = noise(0.2, RATE);
    bad.left.set([Number.NaN, Number.POSITIVE_INFINITY, 3e38, -3e38, 1e-42], 1000);
    const { left, right } = renderChain(FULL, bad);
    for (const samples of [left, right]) {
      expect(samples.every(Number.isFinite)).toBe(true);
      expect(rms(samples.subarray(-2000))).toBeGreaterThan(0);
    }
  });
});

describe("silence after sound", () => {
  for (const processor of FULL)
    it(`comes out of ${processor.model} as silence, not as denormals`, () => {
      const sound = stereoOf(RATE * 12, RATE, (i) => (i < 4800 ? Math.sin(i) : 0));
      const { left } = renderChain([processor], sound);
      expect(left.subarray(-RATE).every((x) => x === 0)).toBe(true);
    });
});

describe("a switch or a changed value", () => {
  /**
   * A click is a jump between neighbouring samples. The tone's own largest difference is what its frequency and level
   * allow; a change may add the slope of its glide, and no more.
   */
  const largestStep = (samples: Float32Array): number => {
    let largest = 0;
    for (let i = 1; i < samples.length; i++) largest = Math.max(largest, Math.abs(samples[i]! - samples[i - 1]!));
    return largest;
  };

  function changing(before: HeardChain, after: HeardChain) {
    const runtime = createChainRuntime(before, RATE);
    const { left, right } = sine(110, 0.5, 1, RATE);
    runtime.process(left, right, 24_000);
    runtime.update(after);
    runtime.process(left.subarray(24_000), right.subarray(24_000), 24_000);
    return left;
  }

  it("makes no click on bypass", () => {
    const off = FULL.map((p) => ({ ...p, enabled: false }));
    const steady = Math.max(largestStep(changing(FULL, FULL)), largestStep(changing(off, off)));
    expect(largestStep(changing(FULL, off))).toBeLessThan(steady * 1.5);
    expect(largestStep(changing(off, FULL))).toBeLessThan(steady * 1.5);
  });

  const sweep = (spec: ParamSpec) =>
    spec.choices ? [spec.choices[0]!.value, spec.choices.at(-1)!.value] : [valueAt(spec, 0.1), valueAt(spec, 0.9)];

  for (const [id, settings] of SETTINGS)
    it(`makes no click when any value of ${id} jumps across its range`, () => {
      const model = getModel(id);
      const base = { ...defaultValues(model), ...settings };
      const steadyOf = (values: Values) => [{ key: id, model: id, enabled: true, values: setTo(model, values) }];
      for (const spec of model.params) {
        const [low, high] = sweep(spec).map((value) => steadyOf({ ...base, [spec.id]: value }));
        const steady = Math.max(largestStep(changing(low!, low!)), largestStep(changing(high!, high!)));
        expect(largestStep(changing(low!, high!)), spec.id).toBeLessThan(Math.max(steady * 1.6, 0.02));
      }
    });
});

describe("every model", () => {
  for (const model of MODELS)
    it(`${model.name} stays finite at the corners of its parameter space`, () => {
      fc.assert(
        fc.property(
          fc.array(fc.boolean(), { minLength: model.params.length, maxLength: model.params.length }),
          (ends) => {
            const values = Object.fromEntries(
              model.params.map((spec, at) => [spec.id, ends[at] ? getSpec(model, spec.id).max : spec.min]),
            );
            const { left } = renderChain([{ key: "x", model: model.id, enabled: true, values }], noise(0.25, RATE));
            expect(left.every(Number.isFinite)).toBe(true);
            expect(Math.max(...left)).toBeLessThan(1e6);
          },
        ),
        { numRuns: 25, seed: 4747 },
      );
    });
});
