import type { Biquad } from "../biquad";
import type { StereoSound } from "../stereo-sound";

/*
 * Loudness after ITU-R BS.1770-4: K-weighting, mean square in blocks of 400 ms that overlap by three quarters, gated at
 * −70 LUFS and then at 10 LU below the mean of what is left. Range after EBU Tech 3342.
 */

/** The two sections of the K weighting for any sample rate, by the analogue prototypes behind the table for 48 kHz. */
export function kWeighting(sampleRate: number): readonly [Biquad, Biquad] {
  const shelf = { freq: 1681.974450955533, gain: 3.999843853973347, q: 0.7071752369554196 };
  const k = Math.tan((Math.PI * shelf.freq) / sampleRate);
  const vh = 10 ** (shelf.gain / 20);
  const vb = vh ** 0.4996667741545416;
  const a0 = 1 + k / shelf.q + k * k;
  const high = { freq: 38.13547087602444, q: 0.5003270373238773 };
  const h = Math.tan((Math.PI * high.freq) / sampleRate);
  const c0 = 1 + h / high.q + h * h;
  return [
    {
      b0: (vh + (vb * k) / shelf.q + k * k) / a0,
      b1: (2 * (k * k - vh)) / a0,
      b2: (vh - (vb * k) / shelf.q + k * k) / a0,
      a1: (2 * (k * k - 1)) / a0,
      a2: (1 - k / shelf.q + k * k) / a0,
    },
    { b0: 1, b1: -2, b2: 1, a1: (2 * (h * h - 1)) / c0, a2: (1 - h / high.q + h * h) / c0 },
  ];
}

/** Energy in hops of 100 ms, from which every longer block is summed. */
function hopEnergies(samples: Float32Array, sampleRate: number): Float64Array {
  const [s, h] = kWeighting(sampleRate);
  const hop = Math.round(sampleRate / 10);
  const energies = new Float64Array(Math.floor(samples.length / hop));
  let [s1, s2, h1, h2] = [0, 0, 0, 0];
  for (let n = 0; n < energies.length; n++) {
    let sum = 0;
    for (let i = n * hop; i < (n + 1) * hop; i++) {
      const x = samples[i]!;
      const y = s.b0 * x + s1;
      s1 = s.b1 * x - s.a1 * y + s2;
      s2 = s.b2 * x - s.a2 * y;
      const z = h.b0 * y + h1;
      h1 = h.b1 * y - h.a1 * z + h2;
      h2 = h.b2 * y - h.a2 * z;
      sum += z * z;
    }
    energies[n] = sum / hop;
  }
  return energies;
}

const lufs = (energy: number): number => -0.691 + 10 * Math.log10(energy);

/** Mean square of both channels over windows of so many hops, one window a hop. */
function windows(sound: StereoSound, hops: number): readonly number[] {
  const left = hopEnergies(sound.left, sound.sampleRate);
  const right = hopEnergies(sound.right, sound.sampleRate);
  return Array.from({ length: Math.max(0, left.length - hops + 1) }, (_, start) => {
    let sum = 0;
    for (let n = start; n < start + hops; n++) sum += left[n]! + right[n]!;
    return sum / hops;
  });
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

const ABSOLUTE_GATE = -70;

/** Integrated loudness in LUFS; −∞ for silence and for less than 400 ms. */
export function integratedLoudness(sound: StereoSound): number {
  const loud = windows(sound, 4).filter((energy) => lufs(energy) > ABSOLUTE_GATE);
  if (loud.length === 0) return Number.NEGATIVE_INFINITY;
  const gate = lufs(mean(loud)) - 10;
  return lufs(mean(loud.filter((energy) => lufs(energy) > gate)));
}

const percentile = (sorted: readonly number[], share: number): number =>
  sorted[Math.round(share * (sorted.length - 1))] ?? Number.NaN;

/** Loudness range in LU: 10th to 95th percentile of the short-term loudness above the gates; 0 for less than 3 s. */
export function loudnessRange(sound: StereoSound): number {
  const loud = windows(sound, 30).filter((energy) => lufs(energy) > ABSOLUTE_GATE);
  if (loud.length === 0) return 0;
  const gate = lufs(mean(loud)) - 20;
  const sorted = loud.map(lufs).filter((level) => level > gate);
  sorted.sort((a, b) => a - b);
  return percentile(sorted, 0.95) - percentile(sorted, 0.1);
}
