/** How many channels are mixed. */
export const CHANNELS = 8;

/** What `hadamard` makes too loud: times this it keeps the energy of what is mixed. */
export const HADAMARD_LEVEL = 1 / Math.sqrt(CHANNELS);

/**
 * Mixes eight channels by the matrix of J. Hadamard, whose entries are all 1 or −1, each sample by itself: each channel comes into
 * each with the same weight. `places`: where the channels begin in `from`; they go to `to`, from `at` on and `pitch` apart. In
 * place, where those are the same.
 */
// eslint-disable-next-line max-params -- called for each segment: an object for it would be allocated in the audio path
export function hadamard(
  from: Float64Array,
  places: Int32Array,
  to: Float64Array,
  at: number,
  pitch: number,
  count: number,
) {
  const p0 = places[0]!;
  const p1 = places[1]!;
  const p2 = places[2]!;
  const p3 = places[3]!;
  const p4 = places[4]!;
  const p5 = places[5]!;
  const p6 = places[6]!;
  const p7 = places[7]!;
  for (let i = 0; i < count; i++) {
    const x0 = from[p0 + i]!;
    const x1 = from[p1 + i]!;
    const x2 = from[p2 + i]!;
    const x3 = from[p3 + i]!;
    const x4 = from[p4 + i]!;
    const x5 = from[p5 + i]!;
    const x6 = from[p6 + i]!;
    const x7 = from[p7 + i]!;
    const a0 = x0 + x1;
    const a1 = x0 - x1;
    const a2 = x2 + x3;
    const a3 = x2 - x3;
    const a4 = x4 + x5;
    const a5 = x4 - x5;
    const a6 = x6 + x7;
    const a7 = x6 - x7;
    const b0 = a0 + a2;
    const b1 = a1 + a3;
    const b2 = a0 - a2;
    const b3 = a1 - a3;
    const b4 = a4 + a6;
    const b5 = a5 + a7;
    const b6 = a4 - a6;
    const b7 = a5 - a7;
    const o = at + i;
    to[o] = b0 + b4;
    to[o + pitch] = b1 + b5;
    to[o + 2 * pitch] = b2 + b6;
    to[o + 3 * pitch] = b3 + b7;
    to[o + 4 * pitch] = b0 - b4;
    to[o + 5 * pitch] = b1 - b5;
    to[o + 6 * pitch] = b2 - b6;
    to[o + 7 * pitch] = b3 - b7;
  }
}
