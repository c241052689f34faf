import { MULTITAP_DELAY } from "../../processors/delay/multitap-delay/model";
import { heardProcessor } from "../../chains/heard-chain";
import { describe, expect, it } from "vitest";
import { noise, setTo, sine, stereoOf } from "../../sound/testing";
import { renderLoop } from "../../sound/render";
import type { StereoSound } from "../stereo-sound";
import { matchingGains } from "../../audition/match";
import { integratedLoudness, loudnessRange } from "./loudness";
import { measure } from "./measure";
import { truePeak } from "./true-peak";

const RATE = 48_000;

/** Stretches of a 1 kHz tone, the same on both sides: the synthetic signals of EBU Tech 3341 and 3342. */
function tones(stretches: readonly (readonly [dBFS: number, seconds: number])[], sampleRate = RATE): StereoSound {
  const parts = stretches.map(([level, seconds]) => sine(1000, 10 ** (level / 20), seconds, sampleRate).left);
  const left = new Float32Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const part of parts) {
    left.set(part, at);
    at += part.length;
  }
  return { left, right: left, sampleRate };
}

describe("integrated loudness after BS.1770", () => {
  for (const rate of [44_100, 48_000, 96_000])
    it(`reads a stereo tone of −23 dBFS as −23 LUFS at ${rate} Hz`, () => {
      expect(Math.abs(integratedLoudness(tones([[-23, 20]], rate)) + 23)).toBeLessThan(0.05);
    });

  it("reads a tone on one side 3 LU lower: full scale is −3.01 LUFS", () => {
    const { left } = sine(997, 1, 5, RATE);
    expect(integratedLoudness({ left, right: new Float32Array(left.length), sampleRate: RATE })).toBeCloseTo(-3.01, 1);
  });

  it("gates what is far below the rest", () => {
    const gated: (readonly [number, number])[][] = [
      [
        [-36, 10],
        [-23, 60],
        [-36, 10],
      ],
      [
        [-72, 10],
        [-36, 10],
        [-23, 60],
        [-36, 10],
        [-72, 10],
      ],
      [
        [-26, 20],
        [-20, 20.1],
        [-26, 20],
      ],
    ];
    for (const stretches of gated) expect(Math.abs(integratedLoudness(tones(stretches)) + 23)).toBeLessThan(0.1);
  });

  it("is −∞ for silence", () => {
    expect(integratedLoudness(stereoOf(RATE, RATE, () => 0))).toBe(Number.NEGATIVE_INFINITY);
  });

  it("has a range of 10 LU between 20 s at −20 and 20 s at −30", () => {
    expect(
      Math.abs(
        loudnessRange(
          tones([
            [-20, 20],
            [-30, 20],
          ]),
        ) - 10,
      ),
    ).toBeLessThan(1);
  });
});

describe("true peak after BS.1770", () => {
  it("finds the crest between the samples of a tone at a quarter of the rate", () => {
    const between = stereoOf(RATE, RATE, (i) => 0.5 * Math.sin((Math.PI / 2) * i + Math.PI / 4));
    expect(Math.max(...between.left)).toBeLessThan(0.36);
    const dB = truePeak(between);
    expect(dB).toBeGreaterThan(-6.02 - 0.4);
    expect(dB).toBeLessThan(-6.02 + 0.2);
  });
});

describe("a measurement", () => {
  it("tells level, crest and correlation", () => {
    const tone = measure(sine(1000, 0.5, 1, RATE));
    expect(tone.peakDb).toBeCloseTo(-6.02, 2);
    expect(tone.crestDb).toBeCloseTo(3.01, 2);
    expect(tone.correlation).toBeCloseTo(1, 6);
    expect(Math.abs(measure(noise(2, RATE)).correlation)).toBeLessThan(0.02);
    const { left } = sine(440, 1, 1, RATE);
    expect(measure({ left, right: left.map((x) => -x), sampleRate: RATE }).correlation).toBeCloseTo(-1, 6);
  });
});

describe("a loop", () => {
  it("is heard with its tail come round", () => {
    const click = stereoOf(4800, RATE, (i) => (i === 4700 ? 1 : 0));
    const values = setTo(MULTITAP_DELAY, {
      "tap1.on": 1,
      "tap1.time": 10,
      "tap1.level": 0,
      damping: 20_000,
      feedback: 0,
      dry: 0,
      wet: 0,
    });
    const { left } = renderLoop([heardProcessor(MULTITAP_DELAY, values)], click);
    expect(left[380]).toBeCloseTo(Math.SQRT1_2, 5);
  });
});

describe("matched loudness", () => {
  it("only lowers, and brings all to the quietest", () => {
    const gains = matchingGains({ dry: -18, a: -12, b: Number.NEGATIVE_INFINITY });
    expect(gains.dry).toBe(1);
    expect(20 * Math.log10(gains.a)).toBeCloseTo(-6, 9);
    expect(gains.b).toBe(1);
  });
});
