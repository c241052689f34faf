import type { Biquad } from "./biquad";
import { FLUSH, GRID, isSilent } from "./grid";

/** Whether the section whose coefficients b0 b1 b2 a1 a2 stand at a place does nothing: its zeros lie upon its poles. */
export const isNothing = (c: Float64Array, at: number): boolean =>
  c[at] === 1 && c[at + 1] === c[at + 3] && c[at + 2] === c[at + 4];

/** Makes a section do nothing, with the poles of another. */
export function doNothing(c: Float64Array, at: number, poles: Float64Array): void {
  c[at] = 1;
  c[at + 1] = c[at + 3] = poles[at + 3]!;
  c[at + 2] = c[at + 4] = poles[at + 4]!;
}

/**
 * Sections in series for two channels, transposed direct form II. Changed coefficients walk straight to the new ones,
 * sample by sample: the stable region of a second-order section is convex, so every filter on the way is stable.
 */
export class GlidingBiquads {
  /** b0 b1 b2 a1 a2 of each section. */
  private readonly now: Float64Array;
  private readonly target: Float64Array;
  private readonly increment: Float64Array;
  /** Two for each section of each channel. */
  private readonly state: Float64Array;
  private left = 0;

  constructor(private readonly count: number) {
    this.now = new Float64Array(count * 5);
    this.target = new Float64Array(count * 5);
    this.increment = new Float64Array(count * 5);
    this.state = new Float64Array(count * 4);
  }

  aim(sections: readonly Biquad[], steps: number, jump: boolean): void {
    const { now, target, increment } = this;
    if (sections.length !== this.count) throw new Error(`${sections.length} sections for ${this.count}`);
    sections.forEach(({ b0, b1, b2, a1, a2 }, at) => target.set([b0, b1, b2, a1, a2], at * 5));
    if (!jump) for (let c = 0; c < target.length; c += 5) this.meet(c);
    if (jump) {
      now.set(target);
      this.left = 0;
      return;
    }
    for (let c = 0; c < target.length; c++) increment[c] = (target[c]! - now[c]!) / (steps * GRID);
    this.left = steps;
  }

  /**
   * A section that does nothing takes the poles of what it comes from or goes to, with zeros upon them: so it walks to a
   * filter and back as a cross-fade with the sound itself. With its poles at zero all of the change would fall into the
   * last step.
   */
  private meet(c: number): void {
    const { now, target } = this;
    if (isNothing(target, c)) doNothing(target, c, now);
    else if (isNothing(now, c)) doNothing(now, c, target);
  }

  /** On each point of the grid. */
  tick(): void {
    const { now, target, increment, state } = this;
    for (let i = 0; i < state.length; i++) if (Math.abs(state[i]!) < FLUSH) state[i] = 0;
    if (this.left === 0) return;
    this.left -= 1;
    if (this.left === 0) now.set(target);
    else for (let c = 0; c < now.length; c++) now[c]! += increment[c]! * GRID;
  }

  /** `within`: samples since the last point of the grid; the stretch ends no later than the next. */
  process(channel: 0 | 1, samples: Float32Array | Float64Array, count: number, within: number): void {
    if (this.left > 0) this.glide(channel, samples, count, within);
    else this.run(channel, samples, count);
  }

  private glide(channel: 0 | 1, samples: Float32Array | Float64Array, count: number, within: number): void {
    const { now, increment, state } = this;
    for (let s = 0; s < this.count; s++) {
      const c = s * 5;
      const z = (s * 2 + channel) * 2;
      const d0 = increment[c]!;
      const d1 = increment[c + 1]!;
      const d2 = increment[c + 2]!;
      const e1 = increment[c + 3]!;
      const e2 = increment[c + 4]!;
      const b0 = now[c]!;
      const b1 = now[c + 1]!;
      const b2 = now[c + 2]!;
      const a1 = now[c + 3]!;
      const a2 = now[c + 4]!;
      let z1 = state[z]!;
      let z2 = state[z + 1]!;
      for (let i = 0; i < count; i++) {
        const n = within + i;
        const x = samples[i]!;
        const y = (b0 + d0 * n) * x + z1;
        z1 = (b1 + d1 * n) * x - (a1 + e1 * n) * y + z2;
        z2 = (b2 + d2 * n) * x - (a2 + e2 * n) * y;
        samples[i] = y;
      }
      state[z] = z1;
      state[z + 1] = z2;
    }
  }

  private run(channel: 0 | 1, samples: Float32Array | Float64Array, count: number): void {
    const { now, state } = this;
    for (let s = 0; s < this.count; s++) {
      const c = s * 5;
      const b0 = now[c]!;
      const b1 = now[c + 1]!;
      const b2 = now[c + 2]!;
      const a1 = now[c + 3]!;
      const a2 = now[c + 4]!;
      const z = (s * 2 + channel) * 2;
      let z1 = state[z]!;
      let z2 = state[z + 1]!;
      for (let i = 0; i < count; i++) {
        const x = samples[i]!;
        const y = b0 * x + z1;
        z1 = b1 * x - a1 * y + z2;
        z2 = b2 * x - a2 * y;
        samples[i] = y;
      }
      state[z] = z1;
      state[z + 1] = z2;
    }
  }

  /** Nothing rings, and nothing is on its way. */
  get isAtRest(): boolean {
    return this.left === 0 && isSilent(this.state);
  }

  clear(): void {
    this.state.fill(0);
  }
}
