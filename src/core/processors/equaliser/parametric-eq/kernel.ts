import { IDENTITY } from "../../../dsp/biquad";
import { doNothing, isNothing } from "../../../dsp/gliding-biquad";
import { FLUSH, GRID, isSilent } from "../../../dsp/grid";
import { GridKernel, slopeOf } from "../../grid-kernel";
import type { Kernel } from "../../kernel";
import { decibels, gainOf } from "../../../units/quantities";
import type { ValuesOf } from "../../model";
import { type Band, SECTIONS_PER_BAND, bandSections, bandsOf } from "./design";
import { BANDS } from "./bands";
import type { PARAMETRIC_EQ } from "./model";

const SECTIONS = BANDS.length * SECTIONS_PER_BAND;
/** b0 b1 b2 a1 a2 */
const COEFFICIENTS = 5;
/** Two for each channel. */
const STATES = 4;

/**
 * Transposed direct form II in double precision, left and right in one pass. A band that is turned walks through its
 * settings, in pitch and dB; one that is retyped or switched walks from its old coefficients to a section that does nothing,
 * with its zeros upon its poles, and from there to the new ones: so it is a cross-fade with the sound itself. The way is laid
 * out when the values come, a waypoint for each point of the grid, and between waypoints the coefficients move sample by
 * sample: the stable region of a second-order section is convex, so every filter on the way is stable.
 */
class ParametricEqKernel extends GridKernel {
  private readonly now = new Float64Array(SECTIONS * COEFFICIENTS);
  private readonly target = new Float64Array(SECTIONS * COEFFICIENTS);
  private readonly increment = new Float64Array(SECTIONS * COEFFICIENTS);
  private readonly way: Float64Array;
  private bands: readonly Band[] = [];
  private readonly state = new Float64Array(SECTIONS * STATES);
  /** The sections that are not, or do not stay, the identity. */
  private readonly active = new Int32Array(SECTIONS);
  private readonly dry = [new Float64Array(GRID), new Float64Array(GRID)] as const;
  private readonly wetGain = this.ramp();
  private readonly dryGain = this.ramp();
  private activeCount = 0;
  private stepsLeft = 0;
  private channels = 0;

  constructor(sampleRate: number) {
    super(sampleRate);
    this.way = new Float64Array(this.glide * SECTIONS * COEFFICIENTS);
    for (let s = 0; s < SECTIONS; s++) {
      this.now[s * COEFFICIENTS] = 1;
      this.target[s * COEFFICIENTS] = 1;
    }
  }

  set(values: ValuesOf<typeof PARAMETRIC_EQ>, jump: boolean): void {
    this.channels = values.channels;
    const mix = values.mix / 100;
    this.aim(this.wetGain, mix * gainOf(decibels(values.output)), jump);
    this.aim(this.dryGain, 1 - mix, jump);
    const bands = bandsOf(values);
    bands.forEach((band, at) => writeBand(this.target, at, band, this.sampleRate));
    if (jump) {
      this.now.set(this.target);
      this.stepsLeft = 0;
    } else {
      this.layWay(bands);
      this.stepsLeft = this.glide;
      this.setOut();
    }
    this.bands = bands;
    this.findActive();
  }

  isAtRest(): boolean {
    return this.isStill && this.stepsLeft === 0 && isSilent(this.state);
  }

  reset(): void {
    this.state.fill(0);
  }

  private layWay(bands: readonly Band[]): void {
    const size = SECTIONS * COEFFICIENTS;
    const standing = this.stepsLeft > 0;
    const isSame = bands.map((to, at) => this.bands[at] !== undefined && sameFilter(this.bands[at], to));
    const section = (c: number) => Math.floor(c / (SECTIONS_PER_BAND * COEFFICIENTS));
    for (let c = 0; c < size; c += COEFFICIENTS) if (isNothing(this.target, c)) doNothing(this.target, c, this.now);
    for (let step = 1; step <= this.glide; step++) {
      const waypoint = this.way.subarray((step - 1) * size, step * size);
      const share = step / this.glide;
      for (let c = 0; c < size; c += COEFFICIENTS) {
        // Straight from where the coefficients are, which in the middle of a glide is where no setting stands.
        if (isSame[section(c)]) this.straight(waypoint, c, share);
        else this.across(waypoint, c, share);
      }
      if (standing) continue;
      bands.forEach((to, at) => {
        const from = this.bands[at];
        if (from && isSame[at] && to.used && to.on) writeBand(waypoint, at, between(from, to, share), this.sampleRate);
      });
    }
  }

  private straight(waypoint: Float64Array, at: number, share: number): void {
    for (let c = at; c < at + COEFFICIENTS; c++) waypoint[c] = this.now[c]! + share * (this.target[c]! - this.now[c]!);
  }

  /** By way of doing nothing: first with the old poles, then with the new. */
  private across(waypoint: Float64Array, at: number, share: number): void {
    const { now, target } = this;
    const comes = isNothing(now, at);
    const goes = isNothing(target, at);
    const leaves = goes ? 1 - share : comes ? 0 : Math.max(0, 1 - 2 * share);
    const arrives = goes ? 0 : comes ? share : Math.max(0, 2 * share - 1);
    const [size, poles] = arrives > 0 || comes ? [arrives, target] : [leaves, now];
    doNothing(waypoint, at, poles);
    for (let c = at; c < at + COEFFICIENTS; c++) waypoint[c]! += size * (poles[c]! - waypoint[c]!);
  }

  /** Aims the coefficients at the next waypoint, one stretch of the grid away. */
  private setOut(): void {
    const size = SECTIONS * COEFFICIENTS;
    const begin = (this.glide - this.stepsLeft) * size;
    for (let c = 0; c < size; c++) this.increment[c] = (this.way[begin + c]! - this.now[c]!) / GRID;
  }

  /** Sections that do something, are about to, or still ring out. */
  private findActive(): void {
    this.activeCount = 0;
    for (let s = 0; s < SECTIONS; s++) {
      const c = s * COEFFICIENTS;
      if (!isNothing(this.now, c) || !isNothing(this.target, c) || this.rings(s)) this.active[this.activeCount++] = s;
    }
  }

  private rings(section: number): boolean {
    const s = section * STATES;
    const { state } = this;
    return state[s] !== 0 || state[s + 1] !== 0 || state[s + 2] !== 0 || state[s + 3] !== 0;
  }

  protected override tick(): void {
    for (let n = 0; n < this.activeCount; n++) {
      const s = this.active[n]! * STATES;
      for (let i = s; i < s + STATES; i++) if (Math.abs(this.state[i]!) < FLUSH) this.state[i] = 0;
    }
    if (this.stepsLeft > 0) {
      this.stepsLeft -= 1;
      if (this.stepsLeft === 0) this.now.set(this.target);
      else this.setOut();
    }
    if (this.stepsLeft === 0) this.findActive();
  }

  /** Never crosses a point of the grid. */
  protected segment(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const plain = this.wetGain.left === 0 && this.wetGain.value === 1 && this.dryGain.value === 0;
    if (plain && this.channels === 0) {
      this.filter(left, right, from, to);
      return;
    }
    const [dryLeft, dryRight] = this.dry;
    for (let i = from; i < to; i++) {
      dryLeft[i - from] = left[i]!;
      dryRight[i - from] = right[i]!;
    }
    if (this.channels !== 0) this.toMidSide(left, right, from, to);
    this.filter(left, right, from, to);
    if (this.channels !== 0) this.fromMidSide(left, right, from, to);
    this.blend(left, right, from, to);
  }

  /** Mid stands in `left` and side in `right`; the one that is not filtered waits in the dry copy. */
  private toMidSide(left: Float32Array, right: Float32Array, from: number, to: number): void {
    for (let i = from; i < to; i++) {
      const mid = (left[i]! + right[i]!) / 2;
      const side = (left[i]! - right[i]!) / 2;
      left[i] = mid;
      right[i] = side;
    }
  }

  private fromMidSide(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const [dryLeft, dryRight] = this.dry;
    for (let i = from; i < to; i++) {
      const mid = this.channels === 1 ? left[i]! : (dryLeft[i - from]! + dryRight[i - from]!) / 2;
      const side = this.channels === 2 ? right[i]! : (dryLeft[i - from]! - dryRight[i - from]!) / 2;
      left[i] = mid + side;
      right[i] = mid - side;
    }
  }

  private blend(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const [dryLeft, dryRight] = this.dry;
    const begin = this.within;
    const wetSlope = slopeOf(this.wetGain);
    const drySlope = slopeOf(this.dryGain);
    for (let i = from; i < to; i++) {
      const n = begin + i - from;
      const wet = this.wetGain.value + wetSlope * n;
      const dry = this.dryGain.value + drySlope * n;
      left[i] = wet * left[i]! + dry * dryLeft[i - from]!;
      right[i] = wet * right[i]! + dry * dryRight[i - from]!;
    }
  }

  private filter(left: Float32Array, right: Float32Array, from: number, to: number): void {
    if (this.stepsLeft > 0) {
      for (let n = 0; n < this.activeCount; n++) this.glideSection(this.active[n]!, left, right, { from, to });
      return;
    }
    let n = 0;
    for (; n + 1 < this.activeCount; n += 2) this.twoSections(n, left, right, { from, to });
    if (n < this.activeCount) this.oneSection(this.active[n]!, left, right, { from, to });
  }

  private oneSection(section: number, left: Float32Array, right: Float32Array, { from, to }: Span): void {
    const { now, state } = this;
    const c = section * COEFFICIENTS;
    const s = section * STATES;
    const b0 = now[c]!;
    const b1 = now[c + 1]!;
    const b2 = now[c + 2]!;
    const a1 = now[c + 3]!;
    const a2 = now[c + 4]!;
    let l1 = state[s]!;
    let l2 = state[s + 1]!;
    let r1 = state[s + 2]!;
    let r2 = state[s + 3]!;
    for (let i = from; i < to; i++) {
      const x = left[i]!;
      const y = b0 * x + l1;
      l1 = b1 * x - a1 * y + l2;
      l2 = b2 * x - a2 * y;
      left[i] = y;
      const u = right[i]!;
      const v = b0 * u + r1;
      r1 = b1 * u - a1 * v + r2;
      r2 = b2 * u - a2 * v;
      right[i] = v;
    }
    state[s] = l1;
    state[s + 1] = l2;
    state[s + 2] = r1;
    state[s + 3] = r2;
  }

  /** The `n`th active section and the next, in one pass over the samples. */
  private twoSections(n: number, left: Float32Array, right: Float32Array, { from, to }: Span): void {
    const { now, state } = this;
    const c = this.active[n]! * COEFFICIENTS;
    const d = this.active[n + 1]! * COEFFICIENTS;
    const s = this.active[n]! * STATES;
    const t = this.active[n + 1]! * STATES;
    const b0 = now[c]!;
    const b1 = now[c + 1]!;
    const b2 = now[c + 2]!;
    const a1 = now[c + 3]!;
    const a2 = now[c + 4]!;
    const d0 = now[d]!;
    const d1 = now[d + 1]!;
    const d2 = now[d + 2]!;
    const e1 = now[d + 3]!;
    const e2 = now[d + 4]!;
    let l1 = state[s]!;
    let l2 = state[s + 1]!;
    let r1 = state[s + 2]!;
    let r2 = state[s + 3]!;
    let m1 = state[t]!;
    let m2 = state[t + 1]!;
    let q1 = state[t + 2]!;
    let q2 = state[t + 3]!;
    for (let i = from; i < to; i++) {
      const x = left[i]!;
      const y = b0 * x + l1;
      l1 = b1 * x - a1 * y + l2;
      l2 = b2 * x - a2 * y;
      const z = d0 * y + m1;
      m1 = d1 * y - e1 * z + m2;
      m2 = d2 * y - e2 * z;
      left[i] = z;
      const u = right[i]!;
      const v = b0 * u + r1;
      r1 = b1 * u - a1 * v + r2;
      r2 = b2 * u - a2 * v;
      const w = d0 * v + q1;
      q1 = d1 * v - e1 * w + q2;
      q2 = d2 * v - e2 * w;
      right[i] = w;
    }
    state[s] = l1;
    state[s + 1] = l2;
    state[s + 2] = r1;
    state[s + 3] = r2;
    state[t] = m1;
    state[t + 1] = m2;
    state[t + 2] = q1;
    state[t + 3] = q2;
  }

  private glideSection(section: number, left: Float32Array, right: Float32Array, { from, to }: Span): void {
    const { now, increment, state } = this;
    const c = section * COEFFICIENTS;
    const s = section * STATES;
    let b0 = now[c]!;
    let b1 = now[c + 1]!;
    let b2 = now[c + 2]!;
    let a1 = now[c + 3]!;
    let a2 = now[c + 4]!;
    let l1 = state[s]!;
    let l2 = state[s + 1]!;
    let r1 = state[s + 2]!;
    let r2 = state[s + 3]!;
    for (let i = from; i < to; i++) {
      b0 += increment[c]!;
      b1 += increment[c + 1]!;
      b2 += increment[c + 2]!;
      a1 += increment[c + 3]!;
      a2 += increment[c + 4]!;
      const x = left[i]!;
      const y = b0 * x + l1;
      l1 = b1 * x - a1 * y + l2;
      l2 = b2 * x - a2 * y;
      left[i] = y;
      const u = right[i]!;
      const v = b0 * u + r1;
      r1 = b1 * u - a1 * v + r2;
      r2 = b2 * u - a2 * v;
      right[i] = v;
    }
    now[c] = b0;
    now[c + 1] = b1;
    now[c + 2] = b2;
    now[c + 3] = a1;
    now[c + 4] = a2;
    state[s] = l1;
    state[s + 1] = l2;
    state[s + 2] = r1;
    state[s + 3] = r2;
  }
}

const sameFilter = (a: Band, b: Band): boolean =>
  a.used === b.used && a.on === b.on && a.type === b.type && a.slope === b.slope;

/** Frequencies and Qs by their ratio, gains by their difference. */
const between = (a: Band, b: Band, share: number): Band => ({
  ...b,
  freq: a.freq * (b.freq / a.freq) ** share,
  q: a.q * (b.q / a.q) ** share,
  gain: a.gain + share * (b.gain - a.gain),
});

function writeBand(into: Float64Array, at: number, band: Band, sampleRate: number): void {
  const sections = bandSections(band, sampleRate);
  for (let s = 0; s < SECTIONS_PER_BAND; s++) {
    const { b0, b1, b2, a1, a2 } = sections[s] ?? IDENTITY;
    into.set([b0, b1, b2, a1, a2], (at * SECTIONS_PER_BAND + s) * COEFFICIENTS);
  }
}

interface Span {
  readonly from: number;
  readonly to: number;
}

export const createParametricEq = (sampleRate: number): Kernel<ValuesOf<typeof PARAMETRIC_EQ>> =>
  new ParametricEqKernel(sampleRate);
