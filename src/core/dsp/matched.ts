import type { Decibels } from "../units/quantities";
import type { Biquad, Design } from "./biquad";
import * as bilinear from "./biquad";

/*
 * Filters that follow their analogue prototypes to the top of the ear's range, where the bilinear transform cramps them.
 * The poles begin as those of the prototype, by impulse invariance; zeros and poles are then fitted in turn to its power.
 * In the basis of M. Vicanek, "Matched second order digital filters" (2016), the power of a polynomial b0 + b1/z + b2/z²
 * is linear in three numbers: B0 φ0 + B1 φ1 + B2 φ2 with φ1 = sin²(ω/2), φ0 = 1 − φ1, φ2 = 4 φ0 φ1. So each fit is one
 * of least squares with three unknowns, and the polynomial with that power and all its roots within the unit circle is
 * found in closed form.
 */

/** Up to here it is followed, in Hz, as far as the rate reaches. */
const TOP = 20_000;
const HIGHEST_SHARE = 0.49;
/** Below this, in radians a sample, the bilinear transform follows as well. */
const LOW = 0.03;
/** Places along the spectrum, evenly; the bottom, the middle of the filter, the octaves and the edges beside it come to them. */
const EVEN = 12;
const PLACES = EVEN + 6;
const TURNS = 4;
/** What a fault counts at 0 Hz, in the middle of the filter, and at the top. */
const WEIGHTS = { bottom: 4, centre: 20, edge: 3, top: 2 };

/** What a filter is before it is brought over; frequencies are told as shares of the filter's own. */
interface Prototype {
  /** |H|² at a share. */
  readonly power: (x: number) => number;
  /** Its poles: where, as a share, and of what Q; Q = 0 for a single one. */
  readonly poles: { readonly at: number; readonly q: number };
  /** The same of its zeros, where they are no less like poles. Those that lie lower, or are sharper, are begun with. */
  readonly zeros?: { readonly at: number; readonly q: number };
  /** Zeros that stay where they are: none of them are fitted. */
  readonly fixed?: readonly [number, number, number];
  /** One of the zeros lies at 0 Hz. */
  readonly rises?: boolean;
}

/** Powers of a polynomial, and the polynomial; one of each is at work at a time, so nothing is allocated. */
type Three = [number, number, number];

const places = new Float64Array(PLACES);
const weights = new Float64Array(PLACES);
const wanted = new Float64Array(PLACES);
let count = 0;

function put(x: number, weight: number, power: number): void {
  places[count] = x;
  weights[count] = weight;
  wanted[count] = power;
  count += 1;
}

/** The places at which the power is to be met. `x` of a place is sin²(ω/2). */
function layOut({ power, poles, fixed, rises }: Prototype, w0: number, sampleRate: number): void {
  count = 0;
  const top = Math.min(Math.PI, (2 * Math.PI * TOP) / sampleRate);
  const add = (w: number, weight: number) => {
    const p = power(w / w0);
    // Where nothing passes there is nothing to follow.
    if (p > 1e-12) put(Math.sin(w / 2) ** 2, weight, p);
  };
  add(0, WEIGHTS.bottom);
  for (let n = 1; n <= EVEN; n++) add((top * n) / EVEN, n === EVEN ? WEIGHTS.top : 1);
  for (const octave of [0.5, 1, 2]) if (w0 * octave < top) add(w0 * octave, octave === 1 ? WEIGHTS.centre : 1);
  // With zeros that stay, less is left to follow the middle by: the edges of a narrow one are met as well.
  if ((!fixed && !rises) || poles.q <= 1) return;
  const edge = 1 + 1 / (2 * poles.q);
  for (const x of [edge, 1 / edge]) if (w0 * x < top) add(w0 * x, WEIGHTS.edge);
}

const powersOf = ([b0, b1, b2]: Three): Three => [(b0 + b1 + b2) ** 2, (b0 - b1 + b2) ** 2, -4 * b0 * b2];

const powerAt = ([p0, p1, p2]: Three, x: number): number => p0 * (1 - x) + p1 * x + p2 * 4 * x * (1 - x);

/** The polynomial of a power, its roots within the unit circle. */
function rootsWithin([p0, p1, p2]: Three): Three {
  const [bottom, top] = [Math.sqrt(Math.max(0, p0)), Math.sqrt(Math.max(0, p1))];
  const middle = (bottom + top) / 2;
  const b0 = (middle + Math.sqrt(Math.max(0, middle * middle + p2))) / 2;
  return [b0, (bottom - top) / 2, b0 === 0 ? 0 : -p2 / (4 * b0)];
}

/**
 * The polynomial whose power comes closest to wanted × that of the other, or to that of the other ÷ wanted: by least
 * squares of the relative fault, the normal equations summed up and solved in scalars. `rises`: nothing at 0 Hz.
 */
function fitted(other: Three, inverse: boolean, rises: boolean): Three {
  const powers = powersOf(other);
  let s00 = 0;
  let s01 = 0;
  let s02 = 0;
  let s11 = 0;
  let s12 = 0;
  let s22 = 0;
  let r0 = 0;
  let r1 = 0;
  let r2 = 0;
  for (let p = 0; p < count; p++) {
    const x = places[p]!;
    const own = powerAt(powers, x);
    const goal = inverse ? own / wanted[p]! : own * wanted[p]!;
    if (!(goal > 0)) continue;
    const f0 = (1 - x) / goal;
    const f1 = x / goal;
    const f2 = 4 * x * f0;
    const w0 = weights[p]! * f0;
    const w1 = weights[p]! * f1;
    const w2 = weights[p]! * f2;
    s00 += w0 * f0;
    s01 += w0 * f1;
    s02 += w0 * f2;
    s11 += w1 * f1;
    s12 += w1 * f2;
    s22 += w2 * f2;
    r0 += w0;
    r1 += w1;
    r2 += w2;
  }
  if (rises) {
    const size = s11 * s22 - s12 * s12;
    return rootsWithin([0, (r1 * s22 - r2 * s12) / size, (r2 * s11 - r1 * s12) / size]);
  }
  // By elimination, the first unknown first; the sums are those of squares, so no row need be exchanged.
  const m1 = s01 / s00;
  const m2 = s02 / s00;
  const t11 = s11 - m1 * s01;
  const t12 = s12 - m1 * s02;
  const m3 = t12 / t11;
  const u1 = r1 - m1 * r0;
  const p2 = (r2 - m2 * r0 - m3 * u1) / (s22 - m2 * s02 - m3 * t12);
  const p1 = (u1 - t12 * p2) / t11;
  return rootsWithin([(r0 - s01 * p1 - s02 * p2) / s00, p1, p2]);
}

/** Poles of the second order at w radians a sample by impulse invariance; of the first where Q is 0. */
function polesAt(w: number, q: number): Three {
  if (q === 0) return [1, -Math.exp(-w), 0];
  const damping = 1 / (2 * q);
  const size = Math.exp(-damping * w);
  const turn = damping <= 1 ? Math.cos(Math.sqrt(1 - damping ** 2) * w) : Math.cosh(Math.sqrt(damping ** 2 - 1) * w);
  return [1, -2 * size * turn, size * size];
}

function matched(prototype: Prototype, freq: number, sampleRate: number): Biquad {
  const w0 = (2 * Math.PI * Math.min(freq, sampleRate * HIGHEST_SHARE)) / sampleRate;
  layOut(prototype, w0, sampleRate);
  const { poles, zeros, fixed, rises = false } = prototype;
  if (fixed) return section([...fixed], fitted([...fixed], true, false));
  const byZeros = zeros !== undefined && (zeros.at < poles.at || (zeros.at === poles.at && zeros.q > poles.q));
  const begin = byZeros ? zeros : poles;
  // What is begun with stands while the other is fitted to it; then each in turn.
  let kept = polesAt(begin.at * w0, begin.q);
  let other: Three = kept;
  for (let turn = 0; turn < TURNS; turn++) {
    other = fitted(kept, byZeros, rises && !byZeros);
    if (turn < TURNS - 1) kept = fitted(other, !byZeros, rises && byZeros);
  }
  return byZeros ? section(kept, other) : section(other, kept);
}

const section = ([b0, b1, b2]: Three, [a0, a1, a2]: Three): Biquad => ({
  b0: b0 / a0,
  b1: b1 / a0,
  b2: b2 / a0,
  a1: a1 / a0,
  a2: a2 / a0,
});

const isLow = ({ freq, sampleRate }: Design): boolean => (2 * Math.PI * freq) / sampleRate < LOW;

/** H(s) = (s² + s·A/Q + 1) / (s² + s/(A·Q) + 1), A² the gain. */
export function bell(design: Design, gain: Decibels): Biquad {
  if (isLow(design)) return bilinear.bell(design, gain);
  const a = 10 ** (gain / 40);
  const { q } = design;
  const power = (x: number): number => {
    const off = (1 - x * x) ** 2;
    return (off + ((a * x) / q) ** 2) / (off + (x / (a * q)) ** 2);
  };
  return matched({ power, poles: { at: 1, q: q * a }, zeros: { at: 1, q: q / a } }, design.freq, design.sampleRate);
}

/** H(s) = A·(s² + s·√A/Q + A) / (A·s² + s·√A/Q + 1). */
export function lowShelf(design: Design, gain: Decibels): Biquad {
  if (isLow(design)) return bilinear.lowShelf(design, gain);
  const a = 10 ** (gain / 40);
  const { q } = design;
  const power = (x: number): number => {
    const slope = a * (x / q) ** 2;
    return (a * a * ((a - x * x) ** 2 + slope)) / ((1 - a * x * x) ** 2 + slope);
  };
  const root = Math.sqrt(a);
  return matched({ power, poles: { at: 1 / root, q }, zeros: { at: root, q } }, design.freq, design.sampleRate);
}

/** H(s) = A·(A·s² + s·√A/Q + 1) / (s² + s·√A/Q + A). */
export function highShelf(design: Design, gain: Decibels): Biquad {
  if (isLow(design)) return bilinear.highShelf(design, gain);
  const a = 10 ** (gain / 40);
  const { q } = design;
  const power = (x: number): number => {
    const slope = a * (x / q) ** 2;
    return (a * a * ((1 - a * x * x) ** 2 + slope)) / ((a - x * x) ** 2 + slope);
  };
  const root = Math.sqrt(a);
  return matched({ power, poles: { at: root, q }, zeros: { at: 1 / root, q } }, design.freq, design.sampleRate);
}

/** What the denominator s² + s/Q + 1 takes. */
const belowAt = (x: number, q: number): number => (1 - x * x) ** 2 + (x / q) ** 2;

export function lowPass(design: Design): Biquad {
  if (isLow(design)) return bilinear.lowPass(design);
  const { freq, q, sampleRate } = design;
  return matched({ power: (x) => 1 / belowAt(x, q), poles: { at: 1, q } }, freq, sampleRate);
}

/** Its two zeros at 0 Hz stay there. */
export function highPass(design: Design): Biquad {
  if (isLow(design)) return bilinear.highPass(design);
  const { freq, q, sampleRate } = design;
  return matched({ power: (x) => x ** 4 / belowAt(x, q), poles: { at: 1, q }, fixed: [1, -2, 1] }, freq, sampleRate);
}

/** 0 dB at the centre. */
export function bandPass(design: Design): Biquad {
  const { freq, q, sampleRate } = design;
  // A broad one falls so slowly that its top is still heard.
  if (isLow(design) && q >= 1) return bilinear.bandPass(design);
  return matched({ power: (x) => (x / q) ** 2 / belowAt(x, q), poles: { at: 1, q }, rises: true }, freq, sampleRate);
}

/** Its zeros stay upon the unit circle. */
export function notch(design: Design): Biquad {
  if (isLow(design)) return bilinear.notch(design);
  const { freq, q, sampleRate } = design;
  const w0 = (2 * Math.PI * Math.min(freq, sampleRate * HIGHEST_SHARE)) / sampleRate;
  const power = (x: number): number => (1 - x * x) ** 2 / belowAt(x, q);
  return matched({ power, poles: { at: 1, q }, fixed: [1, -2 * Math.cos(w0), 1] }, freq, sampleRate);
}

export function lowPassOne(design: Design): Biquad {
  return matched({ power: (x) => 1 / (1 + x * x), poles: { at: 1, q: 0 } }, design.freq, design.sampleRate);
}

export function highPassOne(design: Design): Biquad {
  const power = (x: number): number => (x * x) / (1 + x * x);
  return matched({ power, poles: { at: 1, q: 0 }, fixed: [1, -1, 0] }, design.freq, design.sampleRate);
}

/** H(s) = (g·s + 1) / (s + g): 1/g at the bottom, g at the top, 1 at its frequency; of the first order. */
export function tilt({ freq, sampleRate }: Omit<Design, "q">, g: number): Biquad {
  const power = (x: number): number => ((g * x) ** 2 + 1) / (x * x + g * g);
  return matched({ power, poles: { at: g, q: 0 }, zeros: { at: 1 / g, q: 0 } }, freq, sampleRate);
}
