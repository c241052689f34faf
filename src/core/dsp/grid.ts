/**
 * Gains are updated, glides stepped and denormals flushed on an absolute grid of this many samples, counted from where a
 * kernel began: so the size of the blocks it is fed changes no sample.
 */
export const GRID = 32;

/** Below this a state is silence. It is far above the denormals, which would slow a silent tail many times. */
export const FLUSH = 1e-25;

/** One comparison of the size: which side of zero a sample lies on is a guess that a processor loses every other time. */
export const flushed = (x: number): number => (Math.abs(x) < FLUSH ? 0 : x);

/** Whether all of them are zero. */
export function isSilent(samples: Float64Array | Float32Array): boolean {
  for (let i = 0; i < samples.length; i++) if (samples[i] !== 0) return false;
  return true;
}

/** Grid steps in a time, at least one. */
export const gridSteps = (seconds: number, sampleRate: number): number =>
  Math.max(1, Math.round((seconds * sampleRate) / GRID));

/** How long a changed value takes to arrive, in seconds: short to the hand, long enough not to click. */
export const GLIDE = 0.02;

/** A value that walks to its target in a straight line, one step a grid point. */
export interface Ramp {
  value: number;
  target: number;
  increment: number;
  left: number;
}

export const createRamp = (value: number): Ramp => ({ value, target: value, increment: 0, left: 0 });

export function aimRamp(ramp: Ramp, target: number, steps: number): void {
  if (target === ramp.target) return;
  ramp.target = target;
  ramp.left = steps;
  ramp.increment = (target - ramp.value) / steps;
}

export function jumpRamp(ramp: Ramp, target: number): void {
  ramp.value = target;
  ramp.target = target;
  ramp.left = 0;
}

export function stepRamp(ramp: Ramp): void {
  if (ramp.left === 0) return;
  ramp.left -= 1;
  ramp.value = ramp.left === 0 ? ramp.target : ramp.value + ramp.increment;
}
