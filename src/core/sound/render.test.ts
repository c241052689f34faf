import { describe, expect, it } from "vitest";
import { type HeardChain, heardProcessor } from "../chains/heard-chain";
import { getModel } from "../processors/models";
import { renderInTime, renderSound } from "./render";
import { setTo, stereoOf } from "./testing";

const RATE = 48_000;
const CLICK = 700;

/** A click, and where its loudest sample is. */
const click = stereoOf(RATE / 2, RATE, (i) => (i === CLICK ? 0.25 : 0));
const loudest = (samples: Float32Array): number => samples.reduce((at, x, i) => (x > samples[at]! ? i : at), 0);

/** All that delays: what looks ahead, and what applies a curve at a higher rate. */
const late: HeardChain = ["limiter", "tube"].map((id) =>
  heardProcessor(getModel(id), setTo(getModel(id), id === "tube" ? { drive: 0, bias: 0 } : { ceiling: 0 })),
);

describe("what is kept as a file", () => {
  it("begins where the sound begins, as long as it, whatever its chain delays by", () => {
    const { left, right } = renderInTime(late, click);
    expect([left.length, right.length]).toEqual([RATE / 2, RATE / 2]);
    expect(loudest(left)).toBe(CLICK);
    expect(loudest(right)).toBe(CLICK);
  });

  it("of a loop too, also where one chain is taken away from another", () => {
    const rendering = { loop: click, samples: new Map(), keys: new Map(), play: null };
    expect(loudest(renderSound({ chain: late }, rendering).left)).toBe(CLICK);
    const quieter = late.map((node, at) => (at === 0 ? { ...node, enabled: false } : node));
    const only = renderSound({ chain: quieter, minus: late }, rendering).left;
    expect(Math.max(...only.map(Math.abs))).toBeLessThan(1e-3);
  });
});
