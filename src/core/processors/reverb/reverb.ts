import { responseAt } from "../../dsp/biquad";
import { hertz } from "../../units/quantities";
import type { HeardValues, ParamId, ParamSpec } from "../../units/param-spec";
import { dryAndWet, effect, frequencySpec, gainSpec, percentSpec, secondsSpec, timeSpec } from "../specs";

/** What tells one kind of space from another. Times in ms at a size of 100 %. */
export interface Space {
  readonly lines: readonly number[];
  /** First reflections: when and how loud, left and right in turn. */
  readonly early: readonly (readonly [ms: number, gain: number])[];
  /** All-passes that smear what enters, in ms. */
  readonly smear: readonly number[];
  /** How far the lines wander, in samples at 48 kHz: it keeps a long tail from ringing. */
  readonly wander: number;
}

const DIFFUSE = [4.77, 3.59, 12.73, 9.31] as const;

export const SPACES = {
  room: {
    lines: [13.7, 15.9, 18.3, 20.9, 23.1, 26.3, 28.7, 31.9],
    early: [
      [4.3, 0.62],
      [6.1, 0.57],
      [9.7, 0.5],
      [11.9, 0.46],
      [16.3, 0.38],
      [19.1, 0.34],
      [24.7, 0.26],
      [28.9, 0.22],
    ],
    smear: DIFFUSE.slice(0, 2),
    wander: 0,
  },
  plate: {
    lines: [19.3, 23.9, 27.1, 31.7, 35.3, 39.1, 43.7, 47.9],
    early: [],
    smear: DIFFUSE,
    wander: 6,
  },
  hall: {
    lines: [41.3, 47.9, 53.1, 59.7, 66.1, 72.7, 79.3, 85.9],
    early: [
      [17.3, 0.4],
      [23.9, 0.36],
      [31.1, 0.32],
      [38.9, 0.28],
      [47.3, 0.22],
      [58.7, 0.18],
    ],
    smear: DIFFUSE,
    wander: 12,
  },
} as const satisfies Record<string, Space>;
export type SpaceName = keyof typeof SPACES;

type Absorbing = HeardValues<"decay" | "high" | "damping">;

/**
 * The filter of one line: it takes from a sound that passes it once as much as the decay asks of its length, at low
 * frequencies for `decay` seconds, at high ones for `high` % of that. After J.-M. Jot and A. Chaigne, "Digital delay
 * networks for designing artificial reverberators", AES 90 (1991); here a shelf of the first order.
 */
export function absorption(values: Absorbing, samples: number, sampleRate: number) {
  const { decay, high, damping } = values;
  const low = 10 ** ((-3 * samples) / (sampleRate * decay));
  const top = low ** (100 / high);
  const k = Math.tan((Math.PI * Math.min(damping, sampleRate * 0.45)) / sampleRate);
  return { b0: (top + low * k) / (1 + k), b1: (low * k - top) / (1 + k), b2: 0, a1: (k - 1) / (k + 1), a2: 0 };
}

/** Seconds until a frequency in Hz has fallen by 60 dB: of the line in the middle, the others differ by little. */
function decayCurve(
  { lines }: Space,
  values: Absorbing & HeardValues<"size">,
  sampleRate: number,
): (freq: number) => number {
  const ms = lines[Math.floor(lines.length / 2)]! * (values.size / 100);
  const samples = (ms / 1000) * sampleRate;
  const filter = absorption(values, samples, sampleRate);
  return (freq) => {
    const { re, im } = responseAt([filter], hertz(freq), sampleRate);
    return (-3 * samples) / (sampleRate * Math.log10(Math.hypot(re, im)));
  };
}

type Shared = "decay" | "high" | "damping" | "predelay" | "size" | "lowCut" | "width" | "dry" | "wet";

interface Starts<Own extends ParamId> {
  readonly decay: number;
  readonly high: number;
  readonly damping: number;
  readonly predelay: number;
  readonly size: number;
  readonly own: readonly ParamSpec<Own>[];
}

/** What is added where a space has first reflections. */
const EARLY = gainSpec("early", "Early level", [-24, 6, -6], { group: "Space" });

function reverb<Own extends ParamId>(
  space: SpaceName,
  name: string,
  { decay, high, damping, predelay, size, own }: Starts<Own>,
) {
  return effect<"reverb", Shared | Own>("reverb", space, name, {
    structural: ["size"],
    widens: true,
    params: [
      secondsSpec("decay", "Decay", [0.1, 20, decay], { meaning: "decay.s", group: "Decay" }),
      percentSpec("high", "High decay", [5, 100, high], { group: "Decay" }),
      frequencySpec("damping", "Damping", [500, 16_000, damping], { meaning: "damping.hz", group: "Decay" }),
      {
        ...timeSpec("predelay", "Pre-delay", [0, 250, predelay], { meaning: "predelay.ms", group: "Space" }),
        taper: "power",
      },
      percentSpec("size", "Size", [25, 150, size], { group: "Space" }),
      ...own,
      frequencySpec("lowCut", "Low cut", [20, 1000, 80], { meaning: "lowcut.hz", group: "Level" }),
      percentSpec("width", "Width", [0, 100, 100], { group: "Level" }),
      ...dryAndWet(0, -12).map((spec) => ({ ...spec, group: "Level" })),
    ],
    lead: "decay",
    design: { decay: (values, sampleRate) => decayCurve(SPACES[space], values, sampleRate) },
  });
}

export const ROOM = reverb("room", "Room reverb", {
  decay: 0.6,
  high: 55,
  damping: 4500,
  predelay: 4,
  size: 100,
  own: [EARLY],
});
export const PLATE = reverb<never>("plate", "Plate reverb", {
  decay: 1.6,
  high: 60,
  damping: 6000,
  predelay: 10,
  size: 100,
  own: [],
});
export const HALL = reverb("hall", "Hall reverb", {
  decay: 2.6,
  high: 40,
  damping: 4000,
  predelay: 24,
  size: 100,
  own: [EARLY],
});
