import { decibels, gainOf } from "../../units/quantities";
import { choiceSpec } from "../specs";

/** What is taken back of a drive: half of it, or as much as leaves the sound as loud as it was. */
const HALF = 0;
const AUTOMATIC = 1;

/** Half of the drive is what was taken back before there was a choice. */
export const SATURATION_MAKEUP = choiceSpec("makeupMode", "Make-up", ["Half", "Automatic"], {
  start: AUTOMATIC,
  absent: HALF,
});

/** The gains before and after a curve, by the drive in dB. */
export function driveGains(drive: number, makeupMode: number, curve: (x: number) => number) {
  const before = gainOf(decibels(drive));
  return { before, after: makeupMode === HALF ? gainOf(decibels(-drive / 2)) : keptBy(curve, before) };
}

/** The level at which sounds are worked on, −18 dB below full scale, as a root of a mean square. */
const NOMINAL = gainOf(decibels(-18));

/** Places and weights of a Gaussian distribution, as far as 5 standard deviations. */
const GAUSSIAN = Array.from({ length: 81 }, (_, at) => {
  const x = (at - 40) / 8;
  return { x, weight: Math.exp(-(x * x) / 2) };
});
const WHOLE = GAUSSIAN.reduce((sum, { weight }) => sum + weight, 0);

/** The gain by which Gaussian noise at −18 dB leaves a curve with the level that it came with; a constant is no level. */
function keptBy(curve: (x: number) => number, before: number): number {
  let [mean, square] = [0, 0];
  for (const { x, weight } of GAUSSIAN) {
    const y = curve(before * NOMINAL * x);
    mean += weight * y;
    square += weight * y * y;
  }
  return NOMINAL / Math.sqrt(square / WHOLE - (mean / WHOLE) ** 2);
}
