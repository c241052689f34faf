import { describe, expect, it } from "vitest";
import { type HeardProcessor, heardProcessor } from "../chains/heard-chain";
import { createChainRuntime } from "../sound/chain/chain-runtime";
import { renderChain } from "../sound/render";
import { findKernel } from "./kernels";
import { type Model, defaultValues, latencyAt } from "./model";
import { EFFECTS } from "./models";
import { type ParamSpec, type Values, valueAt } from "../units/param-spec";
import { noise, rms, setTo, sine, stereoOf } from "../sound/testing";

/** What holds for every model, whatever it does to the sound. */

const RATE = 48_000;

/** Settings at which something happens, where the model's own start does nothing. */
const BUSY: Readonly<Record<string, Values>> = {
  "parametric-eq": { "band1.used": 1, "band3.used": 1, "band3.gain": 9, "band6.used": 1, "band6.gain": -5, mix: 80 },
  "console-eq": { lowCut: 60, "low.gain": 5, "lowMid.gain": -7, "highMid.gain": 4, "high.gain": 6, highCut: 12_000 },
  "graphic-eq": { gain63: 6, gain500: -8, gain4000: 5 },
  "tilt-eq": { tilt: 5, lowCut: 60 },
  "vca-compressor": { threshold: -30, ratio: 6, makeupMode: 1, mix: 70 },
  gain: { gain: -6, polarity: 1 },
  "stereo-width": { width: 150, monoBelow: 200, balance: -30 },
};

const settingsOf = (model: Model): Values => ({ ...defaultValues(model), ...BUSY[model.id] });
const heard = (model: Model, values: Values): HeardProcessor => heardProcessor(model, setTo(model, values));
const busy = (model: Model): HeardProcessor => heard(model, settingsOf(model));

/** The longest that any model may ring, so that the silence after it can be waited for. */
const SHORT: Values = { decay: 0.4, feedback: 30, release: 100, left: 100, right: 150 };
const shortened = (model: Model): Values =>
  Object.fromEntries(
    Object.entries(settingsOf(model)).map(([id, value]) => [
      id,
      id in SHORT && model.family !== "dynamics" ? SHORT[id]! : value,
    ]),
  );

const isFinite = (samples: Float32Array): boolean => samples.every(Number.isFinite);

describe.each(EFFECTS.map((model) => [model.name, model] as const))("%s", (_, model) => {
  it("has a kernel, and its lead and what cannot glide among its values", () => {
    expect(findKernel(model.id)).not.toBeNull();
    expect(model.params.map((p) => p.id)).toContain(model.lead);
    expect(new Set(model.params.map((p) => p.id)).size).toBe(model.params.length);
    for (const id of model.structural) expect(model.params.map((p) => p.id)).toContain(id);
  });

  it("reads what it says that it reads, in its unit, and nothing else", () => {
    const kernel = findKernel(model.id)!(RATE);
    // Loud, quiet, loud: whatever turns down, turns this down.
    const tone = stereoOf(
      RATE,
      RATE,
      (i) => (i % 24_000 < 12_000 ? 1 : 0.003) * Math.sin((2 * Math.PI * 6600 * i) / RATE),
    );
    kernel.set(setTo(model, settingsOf(model)), true);
    const readings = Array.from({ length: 100 }, (_, n) => {
      kernel.process(tone.left, tone.right, n * 480, (n + 1) * 480);
      return kernel.reading();
    });
    switch (model.reads) {
      case null:
        return expect(readings.every((reading) => reading === 0)).toBe(true);
      case "reduction":
        expect(Math.min(...readings)).toBeLessThan(-0.9);
        return expect(Math.max(...readings)).toBeLessThanOrEqual(0);
      case "pitch":
        return expect(readings.some((hz) => hz > 20)).toBe(true);
      case "loudness":
        // A sine at full scale: −3 dB, and some 3.3 dB of K-weighting more up there, on both sides.
        expect(Math.max(...readings)).toBeGreaterThan(0);
        return expect(Math.max(...readings)).toBeLessThan(6);
    }
  });

  it("gives the same samples in blocks of 1, 64, 128 and 1000, also while values glide", () => {
    const sound = noise(0.25, RATE);
    const render = (block: number) => {
      const runtime = createChainRuntime([busy(model)], RATE);
      const [left, right] = [sound.left.slice(), sound.right.slice()];
      for (let at = 0; at < left.length; ) {
        const end = Math.min(left.length, at + block, at < 5001 ? 5001 : left.length);
        if (at === 5001) runtime.update([heard(model, {})]);
        runtime.process(left.subarray(at, end), right.subarray(at, end), end - at);
        at = end;
      }
      return [left, right];
    };
    const whole = render(4096);
    for (const block of [1, 64, 128, 1000]) expect(render(block)).toEqual(whole);
  });

  it("switched off is its input, bit for bit, after its latency", () => {
    const sound = noise(0.1, RATE);
    const { left } = renderChain([{ ...busy(model), enabled: false }], sound);
    const late = latencyAt(model, RATE);
    expect(left.subarray(late)).toEqual(sound.left.subarray(0, left.length - late));
  });

  it("turns NaN, infinities, denormals and full-scale DC into finite sound, and goes back to silence", () => {
    const sound = stereoOf(RATE * 4, RATE, (i) => (i < 4800 ? 1 : 0));
    sound.left.set([Number.NaN, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY, 3e38, -3e38, 1e-42], 1000);
    const { left, right } = renderChain([heard(model, shortened(model))], sound);
    expect(isFinite(left) && isFinite(right)).toBe(true);
    const end = left.subarray(-RATE / 2);
    expect(Math.max(...end.map(Math.abs))).toBeLessThan(1e-4);
  });

  it("comes to rest: silence after sound is zero in the end, not a denormal", () => {
    const sound = stereoOf(RATE * 14, RATE, (i) => (i < 4800 ? Math.sin(i) : 0));
    const { left } = renderChain([heard(model, shortened(model))], sound);
    expect(left.subarray(-RATE).every((x) => x === 0 || Math.abs(x) > 1e-30)).toBe(true);
    expect(rms(left.subarray(-RATE))).toBeLessThan(1e-9);
  });

  it("makes no click when any of its values jumps across its range", () => {
    const base = settingsOf(model);
    const ends = (spec: ParamSpec) =>
      spec.choices ? [spec.choices[0]!.value, spec.choices.at(-1)!.value] : [valueAt(spec, 0.1), valueAt(spec, 0.9)];
    for (const spec of model.params) {
      const [low, high] = ends(spec).map((value) => heard(model, { ...base, [spec.id]: value }));
      const steady = Math.max(edge(low!, low!), edge(high!, high!));
      expect(edge(low!, high!), spec.name).toBeLessThan(Math.max(steady * 2, NO_CLICK));
      expect(edge(high!, low!), `${spec.name}, back`).toBeLessThan(Math.max(steady * 2, NO_CLICK));
    }
  });
});

/**
 * A click is energy where a smooth low tone has none. A fourth difference takes the tone away and lifts the top of the
 * spectrum sixteen times: this bound is 50 dB below the tone.
 */
const NO_CLICK = 0.05;

/** The largest fourth difference of the output around a change, as a share of the output's peak there. */
function edge(before: HeardProcessor, after: HeardProcessor): number {
  const runtime = createChainRuntime([before], RATE);
  const { left, right } = sine(80, 0.4, 0.3, RATE);
  const middle = 9600;
  runtime.process(left, right, middle);
  runtime.update([after]);
  runtime.process(left.subarray(middle), right.subarray(middle), left.length - middle);
  let largest = 0;
  let peak = 0.4;
  for (let i = middle - 2000; i < left.length - 4; i++) {
    const fourth = left[i]! - 4 * left[i + 1]! + 6 * left[i + 2]! - 4 * left[i + 3]! + left[i + 4]!;
    largest = Math.max(largest, Math.abs(fourth));
    peak = Math.max(peak, Math.abs(left[i]!));
  }
  return largest / peak;
}
