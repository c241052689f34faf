import { heardProcessor } from "../../../chains/heard-chain";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { renderChain } from "../../../sound/render";
import type { Values } from "../../../units/param-spec";
import { setTo, stereoOf } from "../../../sound/testing";
import { levelCurve } from "../eq-design";
import { PARAMETRIC_EQ_DESIGN } from "./design";
import { PARAMETRIC_EQ } from "./model";
import { BAND_TYPES, BANDS, bandParam } from "./bands";

const heard = (values: Values) => [heardProcessor(PARAMETRIC_EQ, setTo(PARAMETRIC_EQ, values))];

/** The response at a frequency of a rendered impulse, by a direct Fourier sum: nothing shared with the design. */
function measured(values: Values, freq: number, sampleRate: number): number {
  const impulse = stereoOf(sampleRate, sampleRate, (i) => (i === 0 ? 1 : 0));
  const { left } = renderChain(heard(values), impulse);
  let [re, im] = [0, 0];
  left.forEach((x, i) => {
    re += x * Math.cos((2 * Math.PI * freq * i) / sampleRate);
    im -= x * Math.sin((2 * Math.PI * freq * i) / sampleRate);
  });
  return 10 * Math.log10(re * re + im * im);
}

const oneBand = (type: (typeof BAND_TYPES)[number], rest: Record<string, number>): Values => ({
  [bandParam(3, "used")]: 1,
  [bandParam(3, "type")]: BAND_TYPES.indexOf(type),
  ...Object.fromEntries(Object.entries(rest).map(([what, value]) => [`band3.${what}`, value])),
});

describe("the equaliser's response", () => {
  for (const sampleRate of [44_100, 48_000, 96_000])
    it(`is that of its drawn curve within 0.1 dB at ${sampleRate} Hz`, () => {
      const values: Values = {
        ...oneBand("bell", { freq: 900, gain: -7, q: 0.8 }),
        "band1.used": 1,
        "band1.freq": 70,
        "band1.slope": 24,
        "band6.used": 1,
        "band6.gain": 4,
        output: 1.5,
      };
      const curve = levelCurve(PARAMETRIC_EQ_DESIGN, setTo(PARAMETRIC_EQ, values), sampleRate);
      for (const freq of [40, 70, 200, 900, 3000, 9000, 15_000])
        expect(Math.abs(measured(values, freq, sampleRate) - curve(freq))).toBeLessThan(0.1);
    });

  it("has the stated gain in the middle of a bell and half of it, in dB, at a shelf's corner", () => {
    expect(measured(oneBand("bell", { freq: 1000, gain: 6, q: 2 }), 1000, 48_000)).toBeCloseTo(6, 2);
    expect(measured(oneBand("low shelf", { freq: 200, gain: -8 }), 200, 48_000)).toBeCloseTo(-4, 2);
    expect(measured(oneBand("high shelf", { freq: 5000, gain: 8 }), 5000, 48_000)).toBeCloseTo(4, 2);
  });

  for (const slope of [6, 12, 18, 24, 36, 48])
    it(`cuts by 3 dB at the corner and falls ${slope} dB per octave`, () => {
      const values = oneBand("low cut", { freq: 400, slope });
      expect(measured(values, 400, 48_000)).toBeCloseTo(-3.01, 1);
      // Butterworth: |H|² = 1 / (1 + (corner / f)^2n), which the bilinear transform bends little this low.
      const theory = (hz: number) => -10 * Math.log10(1 + (400 / hz) ** (slope / 3));
      for (const hz of [100, 200, 800]) expect(Math.abs(measured(values, hz, 48_000) - theory(hz))).toBeLessThan(0.1);
    });

  it("mixes dry and wet by their complex sum: half of a notch is −6 dB", () => {
    const values = { ...oneBand("notch", { freq: 1000, q: 1 }), mix: 50 };
    expect(measured(values, 1000, 48_000)).toBeCloseTo(-6.02, 1);
  });

  it("leaves the side alone when it works on the mid", () => {
    const values = setTo(PARAMETRIC_EQ, { ...oneBand("bell", { freq: 500, gain: 12 }), channels: 1 });
    const side = stereoOf(4800, 48_000, (i) => Math.sin(i / 9));
    const { left } = renderChain([heardProcessor(PARAMETRIC_EQ, values)], {
      ...side,
      right: side.left.map((x) => -x),
    });
    expect(Math.max(...left.map((x, i) => Math.abs(x - side.left[i]!)))).toBeLessThan(1e-6);
  });
});

describe("a band", () => {
  it("is silent in the curve while unused or off, whatever its values", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...BANDS),
        fc.nat(6),
        fc.double({ min: -24, max: 24, noNaN: true }),
        (n, type, gain) => {
          const values = { [bandParam(n, "type")]: type, [bandParam(n, "gain")]: gain };
          const off = { ...values, [bandParam(n, "used")]: 1, [bandParam(n, "on")]: 0 };
          for (const v of [values, off])
            expect(levelCurve(PARAMETRIC_EQ_DESIGN, setTo(PARAMETRIC_EQ, v), 48_000)(777)).toBeCloseTo(0, 9);
        },
      ),
      { numRuns: 30 },
    );
  });
});
