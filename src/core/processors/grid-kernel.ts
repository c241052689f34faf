import { GLIDE, GRID, type Ramp, aimRamp, createRamp, gridSteps, jumpRamp, stepRamp } from "../dsp/grid";
import type { Kernel } from "./kernel";

/**
 * A kernel that walks the grid: `segment` never crosses one of its points, `tick` runs on each, and the ramps made by
 * `ramp` are stepped there. So what a kernel does on the grid is the same for every size of block.
 */
export abstract class GridKernel implements Omit<Kernel, "set"> {
  /** Points of the grid that a changed value takes to arrive. */
  protected readonly glide: number;
  /** Samples since the last point of the grid. */
  protected within = 0;
  private readonly ramps: Ramp[] = [];

  constructor(protected readonly sampleRate: number) {
    this.glide = gridSteps(GLIDE, sampleRate);
  }

  abstract reset(): void;
  protected abstract segment(left: Float32Array, right: Float32Array, from: number, to: number): void;

  reading(): number {
    return 0;
  }

  process(left: Float32Array, right: Float32Array, from: number, to: number): void {
    let at = from;
    while (at < to) {
      const end = Math.min(to, at + GRID - this.within);
      this.segment(left, right, at, end);
      this.within += end - at;
      at = end;
      if (this.within < GRID) continue;
      this.meetGrid();
    }
  }

  /** Law: at rest it leaves the kernel as `process` of as much silence would. */
  idle(count: number): void {
    this.within += count;
    while (this.within >= GRID) {
      const beyond = this.within - GRID;
      this.meetGrid();
      this.within = beyond;
    }
  }

  /** Whether no value is on its way. */
  protected get isStill(): boolean {
    for (let r = 0; r < this.ramps.length; r++) if (this.ramps[r]!.left > 0) return false;
    return true;
  }

  /** A point of the grid is passed. */
  private meetGrid(): void {
    this.within = 0;
    for (let r = 0; r < this.ramps.length; r++) stepRamp(this.ramps[r]!);
    this.tick();
  }

  /** What happens on a point of the grid: glides of coefficients, denormals flushed. */
  protected tick(): void {}

  /** A value that glides; it is nothing until the first values come. */
  protected ramp(): Ramp {
    const ramp = createRamp(0);
    this.ramps.push(ramp);
    return ramp;
  }

  protected aim(ramp: Ramp, target: number, jump: boolean): void {
    if (jump) jumpRamp(ramp, target);
    else aimRamp(ramp, target, this.glide);
  }
}

/** What a ramp gains in one sample until the next point of the grid. */
export const slopeOf = (ramp: Ramp): number => (ramp.left > 0 ? ramp.increment / GRID : 0);
