import { kaiser, kaiserBeta, sinc } from "./kaiser";

/** Zero crossings of the sinc to each side of its middle. */
const CROSSINGS = 16;
/** Places of the table between two crossings; between those a straight line is within −100 dB. */
const FINE = 512;
/** Images of what is read stay below this, in dB. */
const REJECTION = 84;
/** Where it ends, as a share of the Nyquist frequency: what lies above is in its slope. */
const EDGE = 0.91;
/** A pitch is turned up by no more than so many times with its band limited; beyond that it would cost too much. */
const MOST = 8;

const TABLE = Float64Array.from({ length: CROSSINGS * FINE + 2 }, (_, at) => {
  const x = at / FINE;
  return EDGE * sinc(EDGE * x) * kaiser(x / CROSSINGS, kaiserBeta(REJECTION));
});

/**
 * A sound between its samples, at a pace: by a sinc under Kaiser's window, which is stretched where the sound is read faster
 * than it was made, so that what would lie above the Nyquist frequency is left out. After J. O. Smith, "Digital audio
 * resampling" (1984). What lies outside the samples is silence.
 */
export function readBetween(samples: Float32Array, place: number, pace: number): number {
  const slower = pace > 1 ? 1 / Math.min(MOST, pace) : 1;
  const reach = CROSSINGS / slower;
  const first = Math.max(0, Math.ceil(place - reach));
  const last = Math.min(samples.length - 1, Math.floor(place + reach));
  const scale = slower * FINE;
  let sum = 0;
  for (let n = first; n <= last; n++) {
    const at = (n < place ? place - n : n - place) * scale;
    const whole = at | 0;
    const low = TABLE[whole]!;
    sum += samples[n]! * (low + (at - whole) * (TABLE[whole + 1]! - low));
  }
  return sum * slower;
}
