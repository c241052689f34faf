import { decibelsOf } from "../../units/quantities";
import type { StereoSound } from "../stereo-sound";
import { integratedLoudness, loudnessRange } from "./loudness";
import { truePeak } from "./true-peak";

export interface Measurement {
  readonly integratedLufs: number;
  readonly truePeakDb: number;
  readonly loudnessRangeLu: number;
  readonly peakDb: number;
  readonly rmsDb: number;
  readonly crestDb: number;
  /** −1 to 1; 1 for the same sound on both sides and for silence. */
  readonly correlation: number;
  readonly seconds: number;
}

export function measure(sound: StereoSound): Measurement {
  const { left, right, sampleRate } = sound;
  let [peak, ll, rr, lr] = [0, 0, 0, 0];
  for (let i = 0; i < left.length; i++) {
    const l = left[i]!;
    const r = right[i]!;
    peak = Math.max(peak, Math.abs(l), Math.abs(r));
    ll += l * l;
    rr += r * r;
    lr += l * r;
  }
  const rmsDb = decibelsOf(Math.sqrt((ll + rr) / (2 * Math.max(1, left.length))));
  const peakDb = decibelsOf(peak);
  return {
    integratedLufs: integratedLoudness(sound),
    truePeakDb: truePeak(sound),
    loudnessRangeLu: loudnessRange(sound),
    peakDb,
    rmsDb,
    crestDb: peak === 0 ? 0 : peakDb - rmsDb,
    correlation: ll * rr > 0 ? lr / Math.sqrt(ll * rr) : 1,
    seconds: left.length / sampleRate,
  };
}
