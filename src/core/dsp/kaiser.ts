/** The modified Bessel function of the first kind and order 0, by its power series. */
function bessel0(x: number): number {
  let sum = 1;
  let term = 1;
  for (let k = 1; term > 1e-15 * sum; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

/** J. Kaiser's window: 1 in the middle of −1 to 1, and nothing outside. The greater `beta`, the broader and the deeper. */
export const kaiser = (across: number, beta: number): number =>
  Math.abs(across) >= 1 ? 0 : bessel0(beta * Math.sqrt(1 - across * across)) / bessel0(beta);

/** By how much side lobes stay down, in dB, to the window that does so: Kaiser's rule for 50 dB and more. */
export const kaiserBeta = (rejection: number): number => 0.1102 * (rejection - 8.7);

/** sin(πx) ÷ (πx). */
export const sinc = (x: number): number => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));
