import { heardProcessor } from "../../../chains/heard-chain";
import { describe, expect, it } from "vitest";
import { renderChain } from "../../../sound/render";
import { beatsPerMinute } from "../../../units/quantities";
import { heardValues } from "../../model";
import type { Values } from "../../../units/param-spec";
import { setTo, stereoOf } from "../../../sound/testing";
import { MULTITAP_DELAY } from "./model";

const RATE = 48_000;

function impulse(values: Values, seconds = 1) {
  const sound = stereoOf(seconds * RATE, RATE, (i) => (i === 0 ? 1 : 0));
  return renderChain([heardProcessor(MULTITAP_DELAY, setTo(MULTITAP_DELAY, values))], sound);
}

const OPEN: Values = { "tap1.time": 100, "tap1.level": 0, feedback: 0, damping: 20_000, dry: -60, wet: 0 };

describe("the multi-tap delay", () => {
  it("puts a tap at its time, panned with constant power, and passes no dry sound at −∞", () => {
    const { left, right } = impulse({ ...OPEN, "tap1.pan": 0 });
    expect(left[4800]).toBeCloseTo(Math.SQRT1_2, 5);
    expect(right[4800]).toBeCloseTo(Math.SQRT1_2, 5);
    expect(left[0]).toBe(0);
    const panned = impulse({ ...OPEN, "tap1.pan": -100 });
    expect([panned.left[4800], panned.right[4800]!]).toEqual([1, expect.closeTo(0, 6)]);
  });

  it("takes note lengths from the tempo: an eighth is 250 ms at 120, 254.2 ms at 118", () => {
    const values: Values = { ...OPEN, "tap1.time": { note: "1/8", feel: "straight" } };
    expect(impulse(values).left[12_000]).toBeCloseTo(Math.SQRT1_2, 5);
    expect(heardValues(MULTITAP_DELAY, values, beatsPerMinute(118))["tap1.time"]).toBeCloseTo(254.237, 2);
  });

  it("repeats at the longest tap by the feedback, and each repeat is darker by the damping", () => {
    const { left } = impulse({ ...OPEN, "tap2.on": 1, "tap2.time": 200, "tap2.level": -6, feedback: 50 });
    expect(left[4800 + 9600]).toBeCloseTo(0.5 * Math.SQRT1_2, 5);
    const damped = impulse({ ...OPEN, feedback: 50, damping: 1000 }).left;
    expect(damped[9600]!).toBeLessThan(0.5 * Math.SQRT1_2 * 0.2);
    const area = damped.subarray(9600, 14_000).reduce((a, b) => a + b, 0);
    expect(area).toBeCloseTo(0.5 * Math.SQRT1_2, 3);
  });

  it("has dry and wet levels that do not touch each other", () => {
    const { left } = impulse({ ...OPEN, dry: -6, wet: -12 });
    expect(20 * Math.log10(left[0]!)).toBeCloseTo(-6, 4);
    expect(20 * Math.log10(left[4800]!)).toBeCloseTo(-12 - 3.0103, 3);
  });
});
