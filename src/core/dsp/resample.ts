import type { StereoSound } from "./stereo-sound";

/** Taps to each side of a sample of the result. */
const REACH = 24;

/** A Blackman window, −1 to 1. */
const window = (x: number): number => 0.42 + 0.5 * Math.cos(Math.PI * x) + 0.08 * Math.cos(2 * Math.PI * x);

const sinc = (x: number): number => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));

/**
 * The same sound at another rate, by a windowed sinc that ends at the lower of both Nyquist frequencies (J. O. Smith,
 * "Digital audio resampling", CCRMA). The same object where the rate is the same.
 */
export function resample(sound: StereoSound, sampleRate: number): StereoSound {
  if (sound.sampleRate === sampleRate) return sound;
  const step = sound.sampleRate / sampleRate;
  const cut = Math.min(1, 1 / step);
  const reach = REACH / cut;
  const length = Math.max(1, Math.round(sound.left.length / step));
  const [left, right] = [new Float32Array(length), new Float32Array(length)];
  for (let i = 0; i < length; i++) {
    const at = i * step;
    const from = Math.max(0, Math.ceil(at - reach));
    const to = Math.min(sound.left.length - 1, Math.floor(at + reach));
    let l = 0;
    let r = 0;
    for (let n = from; n <= to; n++) {
      const weight = cut * sinc((n - at) * cut) * window((n - at) / reach);
      l += weight * sound.left[n]!;
      r += weight * sound.right[n]!;
    }
    left[i] = l;
    right[i] = r;
  }
  return { left, right, sampleRate };
}
