/** Pieces of the table for each 1 of the curve's input: so fine that what is heard of the curve is it within −130 dB. */
const FINE = 64;
/** Two inputs nearer than this are one: a quotient of their differences would be noise. */
const NEAR = 1e-5;

/** Simpson's rule over a piece, in this many parts. */
const PARTS = 8;

function areaOf(curve: (x: number) => number, from: number, to: number): number {
  const step = (to - from) / PARTS;
  let sum = curve(from) + curve(to);
  for (let p = 1; p < PARTS; p++) sum += (p % 2 === 0 ? 2 : 4) * curve(from + p * step);
  return (sum * step) / 3;
}

/**
 * An odd curve without its aliases: between two samples it gives the mean of the curve over the way from the one to the
 * other, which is a difference of its antiderivative. After J. Parker, V. Zavalishin and E. Le Bivic, "Reducing the aliasing
 * of nonlinear waveshaping using continuous-time convolution", DAFx (2016). It delays by half a sample.
 */
export class Antiderivative {
  /** Of each piece the four coefficients of a cubic. */
  private readonly pieces: Float64Array;
  private readonly end: number;
  private readonly top: number;

  /** From `limit` on the curve is flat. */
  constructor(
    private readonly curve: (x: number) => number,
    private readonly limit: number,
  ) {
    const count = Math.ceil(limit * FINE);
    this.top = curve(limit);
    this.pieces = new Float64Array(4 * count);
    let area = 0;
    for (let p = 0; p < count; p++) {
      const from = p / FINE;
      const to = (p + 1) / FINE;
      const gain = areaOf(curve, from, to);
      const rise = curve(from) / FINE;
      const fall = curve(to) / FINE;
      this.pieces.set([area, rise, 3 * gain - 2 * rise - fall, rise + fall - 2 * gain], 4 * p);
      area += gain;
    }
    this.end = area - (count / FINE - limit) * this.top;
  }

  /** The area under the curve from 0. */
  at(x: number): number {
    const size = Math.abs(x);
    if (size >= this.limit) return this.end + this.top * (size - this.limit);
    const { pieces } = this;
    const place = size * FINE;
    const piece = Math.floor(place);
    const share = place - piece;
    const c = 4 * piece;
    return pieces[c]! + share * (pieces[c + 1]! + share * (pieces[c + 2]! + share * pieces[c + 3]!));
  }

  /**
   * Puts samples through the curve, in place: (after · (curve(before · x + offset) − rest)), each of the four walking by its
   * step, counted from where the walk began, so that no cut of the samples changes a bit. All of it stands in one loop: calls, and loops of their own, would take longer than what they do.
   */
  pass(samples: Float64Array, count: number, trace: Trace, drive: Drive): void {
    const { pieces, limit, end, top } = this;
    const { before, offset, after, rest, beforeStep, offsetStep, afterStep, restStep, passed } = drive;
    let { input, area } = trace;
    for (let i = 0; i < count; i++) {
      const n = passed + i;
      const x = (before + beforeStep * n) * samples[i]! + (offset + offsetStep * n);
      const size = Math.abs(x);
      let now = end + top * (size - limit);
      if (size < limit) {
        const place = size * FINE;
        const piece = place | 0;
        const share = place - piece;
        const c = 4 * piece;
        now = pieces[c]! + share * (pieces[c + 1]! + share * (pieces[c + 2]! + share * pieces[c + 3]!));
      }
      const way = x - input;
      const mean = Math.abs(way) > NEAR ? (now - area) / way : this.curve((x + input) / 2);
      samples[i] = (after + afterStep * n) * (mean - (rest + restStep * n));
      input = x;
      area = now;
    }
    trace.input = input;
    trace.area = area;
  }
}

/** How a sound goes into a curve and comes out of it, and by how much that walks with each sample from where the walk began. */
export interface Drive {
  /** How many samples have passed since then. */
  passed: number;
  before: number;
  beforeStep: number;
  offset: number;
  offsetStep: number;
  after: number;
  afterStep: number;
  /** What the curve gives in silence. */
  rest: number;
  restStep: number;
}

/** Whether nothing of it walks. */
export const standsStill = ({ beforeStep, offsetStep, afterStep, restStep }: Drive): boolean =>
  beforeStep === 0 && offsetStep === 0 && afterStep === 0 && restStep === 0;

export const noDrive = (): Drive => ({
  passed: 0,
  before: 1,
  beforeStep: 0,
  offset: 0,
  offsetStep: 0,
  after: 1,
  afterStep: 0,
  rest: 0,
  restStep: 0,
});

/** What one curve on one channel remembers: its last input, and the area up to it. */
export interface Trace {
  input: number;
  area: number;
}

export const noTrace = (): Trace => ({ input: 0, area: 0 });
