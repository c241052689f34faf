import { describe, expect, it } from "vitest";
import { type HeardChain, type HeardLane, type HeardProcessor, heardProcessor } from "../../chains/heard-chain";
import { latencyAt } from "../../processors/model";
import { getModel } from "../../processors/models";
import type { Values } from "../../units/param-spec";
import { noise, rms, setTo, sine } from "../testing";
import { createChainRuntime } from "./chain-runtime";
import { renderChain } from "../render";

const RATE = 48_000;

const SETTINGS: readonly [model: string, values: Values][] = [
  [
    "parametric-eq",
    { "band1.used": 1, "band3.used": 1, "band3.gain": 9, "band6.used": 1, "band6.gain": -5, output: 2, mix: 80 },
  ],
  ["vca-compressor", { threshold: -30, ratio: 6, makeupMode: 1, mix: 70 }],
  ["multitap-delay", { "tap1.time": 31, "tap2.on": 1, "tap2.time": 83, feedback: 60, wet: -3 }],
];
const FULL: readonly HeardProcessor[] = SETTINGS.map(([model, values]) =>
  heardProcessor(getModel(model), setTo(getModel(model), values)),
);

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

describe("a switch or a changed value", () => {
  it("makes no click on bypass", () => {
    const off = FULL.map((p) => ({ ...p, enabled: false }));
    const steady = Math.max(largestStep(changing(FULL, FULL)), largestStep(changing(off, off)));
    expect(largestStep(changing(FULL, off))).toBeLessThan(steady * 1.5);
    expect(largestStep(changing(off, FULL))).toBeLessThan(steady * 1.5);
  });
});

describe("a split", () => {
  const gain = (key: string, dB: number): HeardProcessor =>
    heardProcessor(getModel("gain"), setTo(getModel("gain"), { gain: dB }), { key });
  const lane = (key: string, nodes: HeardChain, more: Partial<HeardLane> = {}): HeardLane => ({
    key,
    enabled: true,
    gain: 1,
    pan: 0,
    panLaw: "balance",
    nodes,
    ...more,
  });
  const split = (lanes: readonly HeardLane[], crossovers: readonly number[] | null = null): HeardChain => [
    { key: "split", enabled: true, crossovers, lanes },
  ];
  const sound = noise(0.3, RATE);
  const loudness = (chain: HeardChain) => rms(renderChain(chain, sound).left.subarray(2000));
  const plain = rms(sound.left.subarray(2000));

  it("adds its lanes: two that do nothing are twice the sound", () => {
    expect(loudness(split([lane("a", []), lane("b", [])])) / plain).toBeCloseTo(2, 4);
  });

  it("takes level, pan and switch of a lane", () => {
    expect(loudness(split([lane("a", [gain("g", -6)])])) / plain).toBeCloseTo(10 ** (-6 / 20), 4);
    expect(loudness(split([lane("a", [], { gain: 0.25 })])) / plain).toBeCloseTo(0.25, 4);
    expect(loudness(split([lane("a", []), lane("b", [], { enabled: false })])) / plain).toBeCloseTo(1, 4);
    expect(loudness(split([lane("a", [], { pan: 100 })]))).toBeLessThan(1e-6);
  });

  it("takes the far side of a panned lane along, and loses that of a balanced one", () => {
    const { left, right } = sound;
    const panned = renderChain(split([lane("a", [], { pan: 100, panLaw: "pan" })]), sound);
    const balanced = renderChain(split([lane("a", [], { pan: 100, panLaw: "balance" })]), sound);
    for (let i = 2000; i < 2200; i++) {
      expect(panned.left[i]).toBeCloseTo(0, 6);
      expect(panned.right[i]).toBeCloseTo(left[i]! + right[i]!, 6);
      expect(balanced.right[i]).toBeCloseTo(Math.SQRT2 * right[i]!, 6);
    }
  });

  it("goes from a balance to a pan without a click", () => {
    const [balance, pan] = (["balance", "pan"] as const).map((panLaw) => split([lane("a", [], { pan: 70, panLaw })]));
    const steady = Math.max(largestStep(changing(balance!, balance!)), largestStep(changing(pan!, pan!)));
    expect(largestStep(changing(balance!, pan!))).toBeLessThan(steady * 1.5);
    expect(largestStep(changing(pan!, balance!))).toBeLessThan(steady * 1.5);
  });

  it("evens out latency: a lane through a limiter that does nothing and a bare one stay in step", () => {
    const limiter = heardProcessor(getModel("limiter"), setTo(getModel("limiter"), { ceiling: 0 }));
    const { left } = renderChain(split([lane("a", [limiter]), lane("b", [])]), sound);
    const late = latencyAt(getModel("limiter"), RATE);
    for (let i = 500; i < 1000; i++) expect(left[i]).toBeCloseTo(2 * sound.left[i - late]!, 5);
    expect(createChainRuntime(split([lane("a", [limiter]), lane("b", [])]), RATE).latency).toBe(late);
  });

  it("by bands: lanes that do nothing are flat within 0.05 dB, for up to six of them", () => {
    const crossovers = [100, 300, 1000, 3000, 9000];
    for (const count of [1, 2, 5]) {
      const lanes = Array.from({ length: count + 1 }, (_, at) => lane(`${at}`, []));
      for (const hz of [40, 100, 300, 700, 1000, 3000, 8000, 15_000]) {
        const tone = sine(hz, 0.5, 0.5, RATE);
        const out = renderChain(split(lanes, crossovers.slice(0, count)), tone).left;
        const change = 20 * Math.log10(rms(out.subarray(-12_000)) / rms(tone.left.subarray(-12_000)));
        expect(Math.abs(change), `${hz} Hz in ${count + 1} bands`).toBeLessThan(0.05);
      }
    }
  });

  it("by bands: a lane hears its band, 6 dB down at the crossover", () => {
    const lanes = [lane("low", []), lane("high", [], { enabled: false })];
    const level = (hz: number) => {
      const tone = sine(hz, 0.5, 0.5, RATE);
      const out = renderChain(split(lanes, [1000]), tone).left;
      return 20 * Math.log10(rms(out.subarray(-12_000)) / rms(tone.left.subarray(-12_000)));
    };
    expect(level(1000)).toBeCloseTo(-6.02, 1);
    expect(level(100)).toBeCloseTo(0, 1);
    expect(level(4000)).toBeLessThan(-45);
  });

  it("nests, gives the same samples in any blocks, and passes by when it is off", () => {
    const chain = split([lane("a", split([lane("x", FULL), lane("y", [gain("g", -3)])])), lane("b", [])], [800]);
    const whole = renderChain(chain, sound, 4096);
    for (const block of [1, 64, 1000]) expect(renderChain(chain, sound, block).left).toEqual(whole.left);
    const off = chain.map((node) => ({ ...node, enabled: false }));
    expect(renderChain(off, sound).left).toEqual(sound.left);
  });

  it("takes a change of level in its stride, and refuses one of lanes", () => {
    const runtime = createChainRuntime(split([lane("a", []), lane("b", [])]), RATE);
    expect(runtime.update(split([lane("a", []), lane("b", [], { gain: 0.5 })]))).toBe(true);
    expect(runtime.update(split([lane("b", []), lane("a", [])]))).toBe(false);
    expect(runtime.update(split([lane("a", []), lane("b", [])], [500]))).toBe(false);
  });
});
