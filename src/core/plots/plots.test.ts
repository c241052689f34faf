import { describe, expect, it } from "vitest";
import { MODELS, getModel } from "../processors/models";
import { levelCurve } from "../processors/equaliser/parametric-eq/design";
import { setTo } from "../processors/testing";
import { FREQUENCY_LINES, frequencyX, gainY, xFrequency, yGain } from "./axes";
import {
  EQ_RANGE,
  PLOT_RATE,
  delayMarks,
  delaySpan,
  drawShape,
  dynamicsMarks,
  eqPath,
  tapEnds,
  transferAt,
} from "./plot";

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
    const values = setTo(getModel("parametric-eq"), {
      "band3.used": 1,
      "band3.gain": -7,
      "band3.freq": 900,
      "band6.used": 1,
      "band6.gain": 4,
    });
    const curve = levelCurve(values, PLOT_RATE);
    for (const [x, y] of points(eqPath(values, BOX)))
      expect(yGain(y, EQ_RANGE, BOX)).toBeCloseTo(curve(xFrequency(x, BOX)), 1);
  });
  it("stays within the box whatever is set", () => {
    const values = setTo(getModel("parametric-eq"), {
      "band3.used": 1,
      "band3.gain": 24,
      "band4.used": 1,
      "band4.gain": 24,
      "band4.freq": 400,
    });
    for (const [, y] of points(eqPath(values, BOX))) expect(y).toBeGreaterThanOrEqual(1);
  });
  it("bends at the threshold of a compressor", () => {
    const values = setTo(getModel("vca-compressor"), { threshold: -20, ratio: 4, knee: 0 });
    expect([transferAt(values, -30), transferAt(values, 0)]).toEqual([-30, -15]);
    expect(points(dynamicsMarks(values, BOX).find((m) => m.kind === "line")!.path).at(-1)).toEqual([800, 65]);
  });
  it("puts taps by side and strength, repeats fainter, on a span with room", () => {
    const values = setTo(getModel("multitap-delay"), {
      "tap1.time": 300,
      "tap2.on": 1,
      "tap2.time": 400,
      feedback: 50,
    });
    expect(delaySpan(values)).toBe(500);
    expect(delaySpan(setTo(getModel("multitap-delay"), { "tap1.time": 4000 }))).toBeGreaterThan(4000);
    expect(tapEnds(-100, 1, BOX)).toEqual([3, 130]);
    expect(tapEnds(100, 1, BOX)).toEqual([130, 257]);
    expect(tapEnds(0, 0.5, BOX)).toEqual([66.5, 193.5]);
    expect(delayMarks(values, BOX).map((m) => m.kind)).toEqual(["axis", "faint", "line"]);
  });
  it("is there for every model, as a path that can be drawn", () => {
    for (const model of MODELS)
      for (const { path } of drawShape(model, setTo(model, {}), { width: 54, height: 26 }))
        expect(path).toMatch(/^(M[-\d. ML Z]*)?$/);
  });
});
