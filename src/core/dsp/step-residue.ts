import { kaiser, kaiserBeta, sinc } from "./kaiser";

/** Samples to each side of a step that its band limit reaches. */
const REACH = 14;
const FINE = 128;
/** Where the band ends, in cycles a sample: what folds back about there lies above what is heard. */
const EDGE = 0.42;
const REJECTION = 70;

/** What a step of 1 that fits between the samples is more than one that does not, from the step on; before it, the negative. */
const TABLE = (() => {
  const table = new Float64Array(REACH * FINE + 2);
  let rest = 0;
  // From the far end in: behind the reach nothing is left.
  for (let at = REACH * FINE - 1; at >= 0; at--) {
    const x = (at + 0.5) / FINE;
    rest += (2 * EDGE * sinc(2 * EDGE * x) * kaiser(x / REACH, kaiserBeta(REJECTION))) / FINE;
    table[at] = -rest;
  }
  // The whole of it is half a step on each side.
  const scale = 0.5 / -table[0]!;
  return table.map((value) => value * scale);
})();

function residueAt(samples: number): number {
  const at = samples * FINE;
  const whole = at | 0;
  const low = TABLE[whole]!;
  return low + (at - whole) * (TABLE[whole + 1]! - low);
}

/**
 * What is to be taken off a saw that climbs from −1 to 1 so that its drops fit between the samples: of `phase`, 0 to 1 since
 * the last drop, at `step` turns a sample. All drops near by count, those to come as well, since a saw knows when it will
 * drop. After E. Brandt, "Hard sync without aliasing", ICMC (2001), by a symmetric step.
 */
export function dropResidue(phase: number, step: number): number {
  const period = 1 / step;
  let sum = 0;
  for (let since = phase * period; since < REACH; since += period) sum += residueAt(since);
  for (let until = (1 - phase) * period; until < REACH; until += period) sum -= residueAt(until);
  return 2 * sum;
}
