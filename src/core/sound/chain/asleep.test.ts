import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { heardProcessor } from "../../chains/heard-chain";
import { GridKernel } from "../../processors/grid-kernel";
import type { Kernel } from "../../processors/kernel";
import { findKernel } from "../../processors/kernels";
import type { Model } from "../../processors/model";
import { EFFECTS, getModel } from "../../processors/models";
import type { Values } from "../../units/param-spec";
import { noise, setTo } from "../testing";
import { createChainRuntime } from "./chain-runtime";

/*
 * A plugin at rest sleeps while nothing goes in: only time passes for it. Law: whoever listens cannot tell.
 */

const RATE = 48_000;
/** Odd, so that no point of the grid is a block's end. */
const BLOCK = 441;
const SOUND = noise(0.3, RATE, 3);

/** In seconds: longer than anything takes to fade from full scale to nothing, at the settings below. */
const SILENCE: Readonly<Record<string, number>> = {
  hall: 16,
  plate: 16,
  room: 9,
  echo: 18,
  "multitap-delay": 14,
  expander: 10,
};
const SHORT = 4;
/** So that tails end within the time of a test. */
const SETTINGS: Readonly<Record<string, Values>> = {
  hall: { decay: 0.8 },
  plate: { decay: 0.8 },
  room: { decay: 0.4 },
  echo: { feedback: 10, wow: 40 },
  "multitap-delay": { feedback: 10 },
  flanger: { rate: 0.7 },
};

const SLEEPERS = EFFECTS.filter(({ id }) => "isAtRest" in (findKernel(id)?.(RATE) ?? {})).map(({ id }) => id);
const AWAKE = [
  "de-esser",
  "fet-compressor",
  "limiter",
  "meter",
  "multiband-compressor",
  "opto-compressor",
  "vca-compressor",
];
/** What goes on hearing. */
const WAKEFUL = ["tuner"];

function sounded(id: string): { readonly left: Float32Array; readonly right: Float32Array } {
  const silence = Math.round((SILENCE[id] ?? SHORT) * RATE);
  const channel = (sound: Float32Array) => {
    const all = new Float32Array(2 * sound.length + silence);
    all.set(sound);
    all.set(sound, sound.length + silence);
    return all;
  };
  return { left: channel(SOUND.left), right: channel(SOUND.right) };
}

/** The class that a model's kernel is of. */
const findKernelClass = (id: string) =>
  findKernel(id)!(RATE).constructor as { prototype: Pick<Required<Kernel>, "isAtRest"> };

const valuesOf = (model: Model) => setTo(model, SETTINGS[model.id] ?? {});

describe("a plugin at rest", () => {
  const watch = () => vi.spyOn(GridKernel.prototype, "idle");
  let idle: ReturnType<typeof watch>;
  /** For how many samples kernels have slept. */
  const slept = () => idle.mock.calls.reduce((sum, [count]) => sum + count, 0);
  beforeEach(() => {
    idle = watch();
  });
  afterEach(() => idle.mockRestore());

  it("is any that is not a compressor or a limiter", () => {
    const awake = EFFECTS.filter(({ id, hearable }) => hearable && !SLEEPERS.includes(id));
    expect(awake.map(({ id }) => id).toSorted()).toEqual(AWAKE);
  });

  it.each(SLEEPERS)("%s sleeps, and wakes as though it had not", (id) => {
    const model = getModel(id);
    const { left, right } = sounded(id);
    const [awakeLeft, awakeRight] = [left.slice(), right.slice()];
    const runtime = createChainRuntime([heardProcessor(model, valuesOf(model))], RATE);
    for (let at = 0; at < left.length; at += BLOCK) {
      const end = Math.min(left.length, at + BLOCK);
      runtime.process(left.subarray(at, end), right.subarray(at, end), end - at);
    }
    const kernel = findKernel(id)!(RATE);
    kernel.set(valuesOf(model), true);
    kernel.process(awakeLeft, awakeRight, 0, awakeLeft.length);
    if (WAKEFUL.includes(id)) expect(slept()).toBe(0);
    else expect(slept()).toBeGreaterThan(RATE / 2);
    const other = left.findIndex((sample, at) => sample !== awakeLeft[at] || right[at] !== awakeRight[at]);
    expect(other).toBe(-1);
  });

  it("wakes when it is turned, and glides there as though it had not slept", () => {
    const model = getModel("gain");
    const chain = (gain: number) => [heardProcessor(model, setTo(model, { gain }))];
    const runtime = createChainRuntime(chain(0), RATE);
    const second = () => [new Float32Array(RATE), new Float32Array(RATE)] as const;
    runtime.process(...second(), RATE);
    expect(runtime.update(chain(-6))).toBe(true);
    const tone = new Float32Array(RATE).fill(0.5);
    runtime.process(tone, tone.slice(), RATE);
    expect(tone[0]).toBeCloseTo(0.5, 3);
    expect(tone[RATE - 1]).toBeCloseTo(0.5 * 10 ** (-6 / 20), 6);
  });

  it("is not asked whether it is, while something goes in", () => {
    const asked = vi.spyOn(findKernelClass("echo").prototype, "isAtRest");
    const runtime = createChainRuntime([heardProcessor(getModel("echo"), setTo(getModel("echo"), {}))], RATE);
    const { left, right } = noise(3, RATE);
    for (let at = 0; at + BLOCK < left.length; at += BLOCK)
      runtime.process(left.subarray(at, at + BLOCK), right.subarray(at, at + BLOCK), BLOCK);
    expect(asked).not.toHaveBeenCalled();
    runtime.process(new Float32Array(RATE), new Float32Array(RATE), RATE);
    expect(asked).toHaveBeenCalledOnce();
  });

  it("does not take what is no number for silence", () => {
    const model = getModel("gain");
    const runtime = createChainRuntime([heardProcessor(model, setTo(model, {}))], RATE);
    runtime.process(new Float32Array(RATE), new Float32Array(RATE), RATE);
    const broken = new Float32Array(BLOCK).fill(Number.NaN);
    runtime.process(broken, new Float32Array(BLOCK), BLOCK);
    expect(broken.every((sample) => sample === 0)).toBe(true);
  });
});
