/** A value on its way to a target, one step further. */
export const walk = (value: number, target: number, step: number): number =>
  Math.abs(target - value) <= step ? target : value + Math.sign(target - value) * step;
