import type { Decibels, Hertz } from "../units/quantities";

/** Second-order section, a0 normalised to 1: y = b0·x + b1·x₁ + b2·x₂ − a1·y₁ − a2·y₂. */
export interface Biquad {
  readonly b0: number;
  readonly b1: number;
  readonly b2: number;
  readonly a1: number;
  readonly a2: number;
}

export const IDENTITY: Biquad = { b0: 1, b1: 0, b2: 0, a1: 0, a2: 0 };

export interface Design {
  readonly freq: Hertz;
  readonly q: number;
  readonly sampleRate: number;
}

/** Close under the Nyquist frequency the bilinear transform has no room left. */
const HIGHEST_SHARE = 0.49;

function angles({ freq, q, sampleRate }: Design) {
  const w = (2 * Math.PI * Math.min(freq, sampleRate * HIGHEST_SHARE)) / sampleRate;
  return { cos: Math.cos(w), alpha: Math.sin(w) / (2 * q) };
}

const normalised = ([b0, b1, b2]: [number, number, number], [a0, a1, a2]: [number, number, number]): Biquad => ({
  b0: b0 / a0,
  b1: b1 / a0,
  b2: b2 / a0,
  a1: a1 / a0,
  a2: a2 / a0,
});

/*
 * The designs below are those of R. Bristow-Johnson, "Cookbook formulae for audio EQ biquad filter coefficients":
 * bilinear transforms of analogue prototypes, exact at the stated frequency.
 */

export function bell(design: Design, gain: Decibels): Biquad {
  const { cos, alpha } = angles(design);
  const a = 10 ** (gain / 40);
  return normalised([1 + alpha * a, -2 * cos, 1 - alpha * a], [1 + alpha / a, -2 * cos, 1 - alpha / a]);
}

export function lowShelf(design: Design, gain: Decibels): Biquad {
  const { cos, alpha } = angles(design);
  const a = 10 ** (gain / 40);
  const s = 2 * Math.sqrt(a) * alpha;
  return normalised(
    [a * (a + 1 - (a - 1) * cos + s), 2 * a * (a - 1 - (a + 1) * cos), a * (a + 1 - (a - 1) * cos - s)],
    [a + 1 + (a - 1) * cos + s, -2 * (a - 1 + (a + 1) * cos), a + 1 + (a - 1) * cos - s],
  );
}

export function highShelf(design: Design, gain: Decibels): Biquad {
  const { cos, alpha } = angles(design);
  const a = 10 ** (gain / 40);
  const s = 2 * Math.sqrt(a) * alpha;
  return normalised(
    [a * (a + 1 + (a - 1) * cos + s), -2 * a * (a - 1 + (a + 1) * cos), a * (a + 1 + (a - 1) * cos - s)],
    [a + 1 - (a - 1) * cos + s, 2 * (a - 1 - (a + 1) * cos), a + 1 - (a - 1) * cos - s],
  );
}

export function highPass(design: Design): Biquad {
  const { cos, alpha } = angles(design);
  return normalised([(1 + cos) / 2, -(1 + cos), (1 + cos) / 2], [1 + alpha, -2 * cos, 1 - alpha]);
}

export function lowPass(design: Design): Biquad {
  const { cos, alpha } = angles(design);
  return normalised([(1 - cos) / 2, 1 - cos, (1 - cos) / 2], [1 + alpha, -2 * cos, 1 - alpha]);
}

/** 0 dB at the centre. */
export function bandPass(design: Design): Biquad {
  const { cos, alpha } = angles(design);
  return normalised([alpha, 0, -alpha], [1 + alpha, -2 * cos, 1 - alpha]);
}

export function notch(design: Design): Biquad {
  const { cos, alpha } = angles(design);
  return normalised([1, -2 * cos, 1], [1 + alpha, -2 * cos, 1 - alpha]);
}

/** First-order high pass by the bilinear transform, as a section whose second half is empty. */
export function highPassOne({ freq, sampleRate }: Design): Biquad {
  const k = Math.tan((Math.PI * Math.min(freq, sampleRate * HIGHEST_SHARE)) / sampleRate);
  return { b0: 1 / (1 + k), b1: -1 / (1 + k), b2: 0, a1: (k - 1) / (k + 1), a2: 0 };
}

/** The Qs of the second-order sections of a Butterworth filter of this order, lowest first. */
export function butterworthQs(order: number): readonly number[] {
  const odd = order % 2;
  return Array.from({ length: (order - odd) / 2 }, (_, k) => {
    const angle = odd ? ((k + 1) * Math.PI) / order : ((2 * k + 1) * Math.PI) / (2 * order);
    return 1 / (2 * Math.cos(angle));
  });
}

/** A complex number: the response at one frequency. */
export interface Response {
  readonly re: number;
  readonly im: number;
}

/** H(e^jω) of sections in series. */
export function responseAt(sections: readonly Biquad[], freq: Hertz, sampleRate: number): Response {
  const w = (2 * Math.PI * freq) / sampleRate;
  const [c1, s1, c2, s2] = [Math.cos(w), Math.sin(w), Math.cos(2 * w), Math.sin(2 * w)];
  let re = 1;
  let im = 0;
  for (const { b0, b1, b2, a1, a2 } of sections) {
    const nr = b0 + b1 * c1 + b2 * c2;
    const ni = -(b1 * s1 + b2 * s2);
    const dr = 1 + a1 * c1 + a2 * c2;
    const di = -(a1 * s1 + a2 * s2);
    const size = dr * dr + di * di;
    const hr = (nr * dr + ni * di) / size;
    const hi = (ni * dr - nr * di) / size;
    [re, im] = [re * hr - im * hi, re * hi + im * hr];
  }
  return { re, im };
}
