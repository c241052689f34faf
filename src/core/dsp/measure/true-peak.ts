import { decibelsOf } from "../../units/quantities";
import type { StereoSound } from "../render";

/** The interpolating filter of ITU-R BS.1770-4, Annex 2: four phases of twelve taps. The last two mirror the first. */
const PHASE_0 = [
  0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625, 0.97216796875,
  -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125,
];
const PHASE_1 = [
  -0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625, 0.77978515625,
  -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375,
];
const PHASES = [PHASE_0, PHASE_1, PHASE_1.toReversed(), PHASE_0.toReversed()];
const TAPS = PHASE_0.length;

function peakOf(samples: Float32Array): number {
  const padded = new Float64Array(samples.length + 2 * (TAPS - 1));
  padded.set(samples, TAPS - 1);
  let peak = 0;
  for (const phase of PHASES) {
    for (let i = TAPS - 1; i < padded.length; i++) {
      let sum = 0;
      for (let t = 0; t < TAPS; t++) sum += phase[t]! * padded[i - t]!;
      peak = Math.max(peak, Math.abs(sum));
    }
  }
  return peak;
}

/** The true peak of the louder channel in dBTP; −∞ for silence. */
export const truePeak = ({ left, right }: StereoSound): number => decibelsOf(Math.max(peakOf(left), peakOf(right)));
