import { describe, expect, it } from "vitest";
import { designOf } from "../model";
import { getModel } from "../models";
import type { Values } from "../../units/param-spec";
import { setTo, stereoOf, through } from "../../sound/testing";

const RATE = 48_000;
const ECHO = getModel("echo");
const CLEAN: Values = { wow: 0, lowCut: 20, damping: 20_000, dry: -60, wet: 0 };

/** Where sound comes back, in ms, each with its size: runs of samples louder than a trace. */
function returns(samples: Float32Array): { ms: number; size: number }[] {
  const found: { ms: number; size: number }[] = [];
  for (let i = 0; i < samples.length; i++) {
    const size = Math.abs(samples[i]!);
    if (size < 0.02) continue;
    const last = found.at(-1);
    if (last && (1000 * i) / RATE - last.ms < 1) last.size = Math.max(last.size, size);
    else found.push({ ms: (1000 * i) / RATE, size });
  }
  return found;
}

const click = stereoOf(RATE * 3, RATE, (i) => (i === 0 ? 1 : 0));

describe("the echo", () => {
  it("comes back when and as loud as it is drawn, on each side", () => {
    const values: Values = { ...CLEAN, left: 250, right: 400, feedback: 50 };
    const { left, right } = through(ECHO, values, click);
    const picture = designOf(ECHO, "delay").returns(setTo(ECHO, values));
    for (const [samples, pan] of [
      [left, -100],
      [right, 100],
    ] as const) {
      const drawn = [...picture.taps, ...picture.repeats].filter((r) => r.pan === pan && r.ms < 3000 && r.gain > 0.05);
      const heard = returns(samples);
      for (const [at, { ms, gain }] of drawn.entries()) {
        expect(heard[at]!.ms).toBeCloseTo(ms, 0);
        // Damping at the top and the low cut at the bottom of their ranges still take a few hundredths each time.
        expect(Math.abs(heard[at]!.size / gain - 1)).toBeLessThan(0.05 * (at + 1));
      }
    }
  });
  it("takes turns between the sides when it is crossed over, and hears both inputs", () => {
    const values: Values = { ...CLEAN, left: 200, right: 300, feedback: 60, cross: 1 };
    const { left, right } = through(ECHO, values, click);
    expect(
      returns(left)
        .slice(0, 2)
        .map((r) => Math.round(r.ms)),
    ).toEqual([200, 700]);
    expect(
      returns(right)
        .slice(0, 2)
        .map((r) => Math.round(r.ms)),
    ).toEqual([500, 1000]);
    const onlyRight = { ...click, left: new Float32Array(click.left.length) };
    expect(returns(through(ECHO, values, onlyRight).left)[0]!.size).toBeCloseTo(0.5, 1);
  });
  it("follows the tempo: a quarter at 120 bpm is 500 ms", () => {
    const quarter = { note: "1/4", feel: "straight" } as const;
    const { left } = through(ECHO, { ...CLEAN, left: quarter, feedback: 0 }, click);
    expect(returns(left)[0]!.ms).toBeCloseTo(500, 0);
  });
});
