import { GRID, isSilent } from "./grid";

/** In seconds: the crests of a sine of 50 Hz, of either sign, are not further apart. */
export const PEAK_HOLD = 0.01;

/**
 * The level of a sound as its highest sample within the last 10 ms: of a steady tone from 50 Hz up it stands still at the crest,
 * so that a curve over it is heard as it is drawn. Kept as the peaks of whole stretches of the grid, which moves the end of the
 * hold by less than a millisecond.
 */
export class PeakHold {
  /** Whether a level is held at all; otherwise it stays as it is. */
  holds = true;
  private readonly peaks: Float64Array;
  private at = 0;
  /** The highest of the stretches that are over. */
  private before = 0;
  /** The highest since the last point of the grid. */
  private current = 0;

  constructor(sampleRate: number) {
    this.peaks = new Float64Array(Math.ceil((PEAK_HOLD * sampleRate) / GRID));
  }

  get isSilent(): boolean {
    return this.current === 0 && this.before === 0 && isSilent(this.peaks);
  }

  reset(): void {
    this.peaks.fill(0);
    this.before = this.current = 0;
  }

  /** Of a stretch of the grid: each level, 0 or more, becomes the highest there was, where it is held. */
  hold(levels: Float64Array, count: number): void {
    let highest = this.before > this.current ? this.before : this.current;
    let { current } = this;
    const { holds } = this;
    for (let i = 0; i < count; i++) {
      const level = levels[i]!;
      if (level > current) current = level;
      if (level > highest) highest = level;
      if (holds) levels[i] = highest;
    }
    this.current = current;
  }

  /** On each point of the grid. */
  tick(): void {
    const { peaks } = this;
    peaks[this.at] = this.current;
    this.at = this.at + 1 === peaks.length ? 0 : this.at + 1;
    let before = 0;
    for (let p = 0; p < peaks.length; p++) if (peaks[p]! > before) before = peaks[p]!;
    this.before = before;
    this.current = 0;
  }
}
