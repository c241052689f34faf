import { flushed } from "./grid";

/**
 * Coefficients of a half-band filter as two branches of first-order all-passes, after R. Valenzuela and A. Constantinides,
 * "Digital signal processing schemes for efficient interpolation and decimation", IEE Proceedings G 130 (1983).
 * `transition` is the width of its slope as a share of the higher sample rate, 0 to 0.5.
 */
export function halfBandCoefficients(count: number, transition: number): readonly number[] {
  const tangent = Math.tan(((1 - transition * 2) * Math.PI) / 4);
  const k = tangent * tangent;
  const root = (1 - k * k) ** 0.25;
  const e = (0.5 * (1 - root)) / (1 + root);
  const e4 = e ** 4;
  const q = e * (1 + e4 * (2 + e4 * (15 + 150 * e4)));
  const order = count * 2 + 1;
  return Array.from({ length: count }, (_, at) => coefficientOf(at + 1, order, k, q));
}

/** Terms of the theta series; those behind are below the last bit. */
const TERMS = 12;

function coefficientOf(index: number, order: number, k: number, q: number): number {
  let above = 0;
  let below = 0.5;
  for (let i = 0; i < TERMS; i++) {
    const sign = i % 2 === 0 ? 1 : -1;
    above += sign * q ** (i * (i + 1)) * Math.sin(((2 * i + 1) * index * Math.PI) / order);
    if (i > 0) below += sign * q ** (i * i) * Math.cos((2 * i * index * Math.PI) / order);
  }
  const w = ((above * q ** 0.25) / below) ** 2;
  const x = Math.sqrt((1 - w * k) * (1 - w / k)) / (1 + w);
  return (1 - x) / (1 + x);
}

/** Doubles the rate of a channel, or halves it, by two branches of one all-pass each. */
export class AllPassHalfBand {
  private readonly states = new Float64Array(4);

  constructor(private readonly coefficients: readonly number[]) {}

  up(input: Float64Array, count: number, out: Float64Array): void {
    const { states } = this;
    const a = this.coefficients[0]!;
    const b = this.coefficients[1]!;
    let before = states[0]!;
    let p = states[2]!;
    let q = states[3]!;
    for (let i = 0; i < count; i++) {
      const x = input[i]!;
      p = a * (x - p) + before;
      q = b * (x - q) + before;
      before = x;
      out[2 * i] = p;
      out[2 * i + 1] = q;
    }
    states[0] = before;
    states[2] = flushed(p);
    states[3] = flushed(q);
  }

  down(from: Float64Array, count: number, out: Float64Array): void {
    const { states } = this;
    const a = this.coefficients[0]!;
    const b = this.coefficients[1]!;
    let x0 = states[0]!;
    let y0 = states[1]!;
    let p = states[2]!;
    let q = states[3]!;
    for (let i = 0; i < count; i++) {
      const x = from[2 * i + 1]!;
      const y = from[2 * i]!;
      p = a * (x - p) + x0;
      q = b * (y - q) + y0;
      x0 = x;
      y0 = y;
      out[i] = (p + q) / 2;
    }
    states[0] = x0;
    states[1] = y0;
    states[2] = flushed(p);
    states[3] = flushed(q);
  }

  clear(): void {
    this.states.fill(0);
  }
}
