import { describe, expect, it } from "vitest";
import { designOf } from "../processors/model";
import { levelCurve } from "../processors/equaliser/eq-design";
import { MODELS, getModel } from "../processors/models";
import { setTo } from "../sound/testing";
import { FREQUENCY_LINES, frequencyX, gainY, xFrequency, yGain } from "./axes";
import { delayMarks, delaySpan, tapEnds } from "./delay";
import { dynamicsMarks, transferLines } from "./dynamics";
import { EQ_RANGE, eqPath } from "./equaliser";
import { PLOT_RATE } from "./mark";
import { modulationMarks, motionSpan } from "./modulation";
import { drawShape } from "./plot";
import { decayOf, decayY, yDecay } from "./reverb";
import { harmonicLevels, shaperOf } from "./saturation";

const BOX = { width: 800, height: 260 };

const points = (path: string): [number, number][] =>
  [...path.matchAll(/[ML]([\d.]+) ([\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]);

describe("axes", () => {
  it("turn a place into a value and back", () => {
    for (const hz of FREQUENCY_LINES) expect(xFrequency(frequencyX(hz, BOX), BOX)).toBeCloseTo(hz, 6);
    expect([frequencyX(20, BOX), frequencyX(20_000, BOX)]).toEqual([0, expect.closeTo(800, 9)]);
    for (const dB of [-15, 0, 7.5]) expect(yGain(gainY(dB, EQ_RANGE, BOX), EQ_RANGE, BOX)).toBeCloseTo(dB, 9);
    expect(xFrequency(-50, BOX)).toBe(20);
  });
});

describe("the drawn curve", () => {
  it("is the response that is heard, at every point of it", () => {
    const set = {
      "parametric-eq": { "band3.used": 1, "band3.gain": -7, "band3.freq": 900, "band6.used": 1, "band6.gain": 4 },
      "console-eq": { "low.gain": 5, lowCut: 60, "highMid.gain": -6, output: 2 },
      "graphic-eq": { gain125: 6, gain4000: -4 },
      "tilt-eq": { tilt: 5, highCut: 9000 },
    };
    for (const [id, turned] of Object.entries(set)) {
      const model = getModel(id);
      const values = setTo(model, turned);
      const curve = levelCurve(designOf(getModel(id), "equaliser"), values, PLOT_RATE);
      for (const [x, y] of points(eqPath(model, values, BOX)))
        if (Math.abs(yGain(y, EQ_RANGE, BOX)) < EQ_RANGE - 0.2)
          expect(yGain(y, EQ_RANGE, BOX)).toBeCloseTo(curve(xFrequency(x, BOX)), 1);
    }
  });
  it("stays within the box whatever is set", () => {
    const values = setTo(getModel("parametric-eq"), {
      "band3.used": 1,
      "band3.gain": 24,
      "band4.used": 1,
      "band4.gain": 24,
      "band4.freq": 400,
    });
    for (const [, y] of points(eqPath(getModel("parametric-eq"), values, BOX))) expect(y).toBeGreaterThanOrEqual(1);
  });
  it("bends at the threshold of a compressor", () => {
    const values = setTo(getModel("vca-compressor"), { threshold: -20, ratio: 4, knee: 0 });
    const model = getModel("vca-compressor");
    const [line] = transferLines(model, values);
    expect([line?.at(-30), line?.at(0)]).toEqual([-30, -15]);
    expect(points(dynamicsMarks(model, values, BOX).find((m) => m.kind === "line")!.path).at(-1)).toEqual([800, 65]);
  });
  it("puts taps by side and strength, repeats fainter, on a span with room", () => {
    const values = setTo(getModel("multitap-delay"), {
      "tap1.time": 300,
      "tap2.on": 1,
      "tap2.time": 400,
      feedback: 50,
    });
    const model = getModel("multitap-delay");
    expect(delaySpan(model, values)).toBe(500);
    expect(delaySpan(model, setTo(getModel("multitap-delay"), { "tap1.time": 4000 }))).toBeGreaterThan(4000);
    expect(tapEnds(-100, 1, BOX)).toEqual([3, 130]);
    expect(tapEnds(100, 1, BOX)).toEqual([130, 257]);
    expect(tapEnds(0, 0.5, BOX)).toEqual([66.5, 193.5]);
    expect(delayMarks(model, values, BOX).map((m) => m.kind)).toEqual(["axis", "faint", "line"]);
  });
  it("lets the sides of a crossed echo take turns", () => {
    const values = setTo(getModel("echo"), { left: 200, right: 300, cross: 1, feedback: 50 });
    const { taps, repeats } = designOf(getModel("echo"), "delay").returns(values);
    expect(taps).toEqual([
      { ms: 200, gain: 1, pan: -100 },
      { ms: 500, gain: 0.5, pan: 100 },
    ]);
    expect(repeats[0]).toEqual({ ms: 700, gain: 0.25, pan: -100 });
  });
  it("shows two to eight turns of a modulation", () => {
    const model = getModel("tremolo");
    for (const rate of [0.1, 0.7, 3, 20]) {
      const span = motionSpan(model, setTo(model, { rate }));
      expect(span * rate).toBeGreaterThanOrEqual(2);
      expect(span * rate).toBeLessThanOrEqual(8.1);
    }
    const flat = modulationMarks(model, setTo(model, { depth: 0 }), BOX).find((m) => m.kind === "line")!;
    for (const [, y] of points(flat.path)) expect(y).toBe(130);
  });
  it("reads a decay where it stands", () => {
    for (const seconds of [0.1, 1, 7, 20]) expect(yDecay(decayY(seconds, BOX), BOX)).toBeCloseTo(seconds, 9);
    const decay = decayOf(getModel("hall"), setTo(getModel("hall"), { decay: 3, high: 50, damping: 4000 }));
    expect(decay(20)).toBeCloseTo(3, 1);
    expect(decay(20_000)).toBeCloseTo(1.5, 1);
  });
  it("shows the even harmonics of a tube and none of an overdrive", () => {
    const level = (id: string) => harmonicLevels(shaperOf(getModel(id), setTo(getModel(id), {})))[0]!;
    expect(level("tube")).toBeGreaterThan(-40);
    expect(level("overdrive")).toBeLessThan(-100);
  });
  it("is there for every model, as a path that can be drawn", () => {
    for (const model of MODELS)
      for (const { path } of drawShape(model, setTo(model, {}), { width: 54, height: 26 }))
        expect(path).toMatch(/^(M[-\d. ML Z]*)?$/);
  });
});
