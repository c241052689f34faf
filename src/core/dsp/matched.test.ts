import { describe, expect, it } from "vitest";
import { decibels, hertz } from "../units/quantities";
import { type Biquad, responseAt } from "./biquad";
import * as matched from "./matched";

/** |H(jx)| in dB of a numerator and a denominator, the powers of s from the lowest up: by complex arithmetic of its own. */
function analogue(numerator: readonly number[], denominator: readonly number[], x: number): number {
  const at = (c: readonly number[]) => Math.hypot((c[0] ?? 0) - (c[2] ?? 0) * x * x, (c[1] ?? 0) * x);
  return 20 * Math.log10(at(numerator) / at(denominator));
}

const RATES = [44_100, 48_000, 96_000];
const CENTRES = [60, 250, 700, 2000, 5000, 8000, 10_000, 12_000, 14_000, 16_000, 18_000, 20_000];
/** What lies so far down is not followed, in dB. */
const DEEP = -30;
const FREQUENCIES = Array.from({ length: 90 }, (_, n) => 20 * 1000 ** (n / 89));

function faultOf(section: Biquad, sampleRate: number, theory: (freq: number) => number) {
  let worst = { fault: 0, freq: 0 };
  for (const freq of FREQUENCIES) {
    const goal = theory(freq);
    if (goal < DEEP) continue;
    const { re, im } = responseAt([section], hertz(freq), sampleRate);
    const fault = Math.abs(20 * Math.log10(Math.hypot(re, im)) - goal);
    if (!(fault <= worst.fault)) worst = { fault, freq };
  }
  return worst;
}

interface Kind {
  readonly make: (freq: number, q: number, gain: number, sampleRate: number) => Biquad;
  readonly theory: (x: number, q: number, gain: number) => number;
  readonly gains?: readonly number[];
  readonly qs: readonly number[];
  /** Its zeros stay where they are, so that it follows less closely: in dB, for centres up to one in Hz. */
  readonly stiff?: { readonly within: number; readonly upTo: number };
}

const BOUND = 0.25;
/** Of what is stiff, further up. */
const FAR = 2;

const aOf = (gain: number) => 10 ** (gain / 40);
const of = (freq: number, q: number, sampleRate: number) => ({ freq: hertz(freq), q, sampleRate });
const GAINS = [-12, -6, -1, 3, 6, 12];
const QS = [0.3, 0.5, 0.71, 1, 2, 4, 8];
const SHELVES = [0.5, 0.71, 1];

const KINDS: Readonly<Record<string, Kind>> = {
  bell: {
    make: (freq, q, gain, rate) => matched.bell(of(freq, q, rate), decibels(gain)),
    theory: (x, q, gain) => analogue([1, aOf(gain) / q, 1], [1, 1 / aOf(gain) / q, 1], x),
    gains: GAINS,
    qs: QS,
  },
  "low shelf": {
    make: (freq, q, gain, rate) => matched.lowShelf(of(freq, q, rate), decibels(gain)),
    theory: (x, q, gain) => {
      const a = aOf(gain);
      return 20 * Math.log10(a) + analogue([a, Math.sqrt(a) / q, 1], [1, Math.sqrt(a) / q, a], x);
    },
    gains: GAINS,
    qs: SHELVES,
  },
  "high shelf": {
    make: (freq, q, gain, rate) => matched.highShelf(of(freq, q, rate), decibels(gain)),
    theory: (x, q, gain) => {
      const a = aOf(gain);
      return 20 * Math.log10(a) + analogue([1, Math.sqrt(a) / q, a], [a, Math.sqrt(a) / q, 1], x);
    },
    gains: GAINS,
    qs: SHELVES,
  },
  "low pass": {
    make: (freq, q, _, rate) => matched.lowPass(of(freq, q, rate)),
    theory: (x, q) => analogue([1], [1, 1 / q, 1], x),
    qs: QS,
  },
  "high pass": {
    make: (freq, q, _, rate) => matched.highPass(of(freq, q, rate)),
    theory: (x, q) => analogue([0, 0, 1], [1, 1 / q, 1], x),
    qs: [0.3, 0.5, 0.71, 1],
    stiff: { within: BOUND, upTo: 12_000 },
  },
  "high pass that rings": {
    make: (freq, q, _, rate) => matched.highPass(of(freq, q, rate)),
    theory: (x, q) => analogue([0, 0, 1], [1, 1 / q, 1], x),
    qs: [2, 4, 8],
    stiff: { within: 0.5, upTo: 8000 },
  },
  "band pass": {
    make: (freq, q, _, rate) => matched.bandPass(of(freq, q, rate)),
    theory: (x, q) => analogue([0, 1 / q], [1, 1 / q, 1], x),
    qs: QS,
    stiff: { within: 0.5, upTo: 8000 },
  },
  notch: {
    make: (freq, q, _, rate) => matched.notch(of(freq, q, rate)),
    theory: (x, q) => analogue([1, 0, 1], [1, 1 / q, 1], x),
    qs: QS,
    stiff: { within: 0.5, upTo: 8000 },
  },
  "low pass of the first order": {
    make: (freq, _, __, rate) => matched.lowPassOne(of(freq, 1, rate)),
    theory: (x) => analogue([1], [1, 1], x),
    qs: [1],
  },
  "high pass of the first order": {
    make: (freq, _, __, rate) => matched.highPassOne(of(freq, 1, rate)),
    theory: (x) => analogue([0, 1], [1, 1], x),
    qs: [1],
  },
  tilt: {
    make: (freq, _, gain, rate) => matched.tilt(of(freq, 1, rate), 10 ** (gain / 20)),
    theory: (x, _, gain) => analogue([1, 10 ** (gain / 20)], [10 ** (gain / 20), 1], x),
    gains: GAINS,
    qs: [1],
  },
};

describe.each(Object.entries(KINDS))("a %s", (_, { make, theory, gains = [0], qs, stiff }) => {
  it.each(RATES)("follows its prototype within 0.25 dB up to 20 kHz at %i Hz, and is stable", (sampleRate) => {
    for (const centre of CENTRES)
      for (const q of qs)
        for (const gain of gains) {
          const section = make(centre, q, gain, sampleRate);
          const name = `${centre} Hz, Q ${q}, ${gain} dB`;
          expect(Math.abs(section.a2) < 1 && Math.abs(section.a1) < 1 + section.a2, `${name} is stable`).toBe(true);
          const worst = faultOf(section, sampleRate, (freq) => theory(freq / centre, q, gain));
          expect(worst.fault, `${name} at ${worst.freq} Hz`).toBeLessThan(
            !stiff ? BOUND : centre > stiff.upTo ? FAR : stiff.within,
          );
        }
  });
});

describe("a gain of 24 dB", () => {
  it.each(RATES)("bends a bell or a shelf by no more than half a dB at %i Hz", (sampleRate) => {
    for (const kind of ["bell", "low shelf", "high shelf"])
      for (const centre of CENTRES)
        for (const gain of [-24, 24]) {
          const { make, theory, qs } = KINDS[kind]!;
          for (const q of qs) {
            const worst = faultOf(make(centre, q, gain, sampleRate), sampleRate, (f) => theory(f / centre, q, gain));
            expect(worst.fault, `${kind}, ${centre} Hz, Q ${q}, ${gain} dB at ${worst.freq} Hz`).toBeLessThan(0.5);
          }
        }
  });
});
