import { type Biquad, responseAt } from "../../dsp/biquad";
import { primeFrom } from "../../dsp/feedback-network";
import { hertz } from "../../units/quantities";
import type { HeardValues, ParamId, ParamSpec } from "../../units/param-spec";
import { dryAndWet, effect, frequencySpec, gainSpec, percentSpec, secondsSpec, timeSpec } from "../specs";

/** What tells one kind of space from another. Times in ms at a size of 100 %. */
export interface Space {
  /** The lines of the network: the longer they are together, the more tones there are in the tail, and the less each rings. */
  readonly lines: readonly number[];
  /** Delays of the stages that spread what enters, before the network. */
  readonly stages: readonly (readonly number[])[];
}

export const SPACES = {
  room: {
    lines: [13.5, 17.7, 23.5, 30.3, 38.9, 50.3, 60.3, 72.9],
    stages: [
      [0.3, 1.8, 1.35, 2.25, 0.55, 0.81, 2.23, 2.64],
      [4.23, 5.65, 4.93, 1.06, 3.56, 2.93, 1.61, 0.37],
      [8.33, 1.91, 8.57, 1.14, 2.43, 6.28, 9.69, 4.29],
      [12.4, 0.15, 10.32, 4.15, 8.95, 2.43, 6.08, 14.21],
    ],
  },
  plate: {
    lines: [11.7, 16.4, 22.1, 29.3, 38.4, 51.6, 63.9, 83.9],
    stages: [
      [0.25, 1.92, 1.71, 1.23, 0.51, 0.41, 1.35, 0.9],
      [2.35, 1.92, 1.23, 0.57, 2.91, 0.17, 1.09, 0.78],
      [0.39, 3.24, 0.05, 0.89, 4.9, 1.46, 5.44, 4.39],
      [8.5, 1.97, 0.5, 5.54, 0.53, 0.05, 0.66, 7.17],
    ],
  },
  hall: {
    lines: [13.9, 18.6, 31.6, 44, 54, 61.8, 64.4, 87.2],
    stages: [
      [0.3, 1.8, 1.35, 2.25, 0.55, 0.81, 2.23, 2.64],
      [4.24, 5.65, 1.22, 1.06, 3.56, 1, 1.61, 0.37],
      [8.33, 1.91, 8.57, 1.14, 2.41, 6.28, 9.46, 2.43],
      [12.4, 0.15, 11.4, 0.64, 10.32, 2.43, 6.08, 8.94],
    ],
  },
} as const satisfies Record<string, Space>;
export type SpaceName = keyof typeof SPACES;

type Absorbing = HeardValues<"decay" | "high" | "damping">;

/** By how many dB a frequency in Hz falls in a second: as `decay` asks at low ones, as its `high` % at high ones, half-way at `damping`. */
function fall({ decay, high, damping }: Absorbing, freq: number): number {
  const share = freq ** 2 / (freq ** 2 + damping ** 2);
  return (60 / decay) * (1 - share + (100 * share) / high);
}

/** Where a line is held to its fall: at zero, where the highs begin, at the top. In Hz. */
const heldAt = ({ damping }: Absorbing, sampleRate: number): readonly [number, number, number] => [
  0,
  Math.min(damping, 8000),
  Math.min(16_000, 0.45 * sampleRate),
];

/**
 * The filter of one line: it takes from a sound that passes it once what it is to lose in so long a time. After J.-M. Jot and
 * A. Chaigne, "Digital delay networks for designing artificial reverberators", AES 90 (1991); here of the first order, whose
 * power (p + q cos ω) ÷ (1 + r cos ω) is solved for three frequencies, so that lines of unlike lengths fade alike.
 */
export function absorption(values: Absorbing, samples: number, sampleRate: number): Biquad {
  const seconds = samples / sampleRate;
  const rows = heldAt(values, sampleRate).map((freq) => {
    const cos = Math.cos((2 * Math.PI * freq) / sampleRate);
    return { cos, power: 10 ** ((-fall(values, freq) * seconds) / 10) };
  }) as [Held, Held, Held];
  const { p, q, r } = powerThrough(rows);
  // What falls by hundreds of dB on its way has no such filter: there a shelf that meets both ends.
  if (!(p > 0 && Math.abs(q) <= p && Math.abs(r) < STEEPEST)) return shelf(values, seconds, sampleRate);
  const [zero, pole] = [minimumPhase(q / p), minimumPhase(r)];
  const b0 = Math.sqrt((p * (1 + pole ** 2)) / (1 + zero ** 2));
  return { b0, b1: b0 * zero, b2: 0, a1: pole, a2: 0 };
}

/** A pole nearer to the circle would ring longer than what it takes from. */
const STEEPEST = 0.999_999;

/** From what is lost at low frequencies to what is lost at the highest, half-way at the damping: a shelf of the first order. */
function shelf({ decay, high, damping }: Absorbing, seconds: number, sampleRate: number): Biquad {
  const low = 10 ** ((-3 * seconds) / decay);
  const top = low ** (100 / high);
  const k = Math.tan((Math.PI * Math.min(damping, sampleRate * 0.45)) / sampleRate);
  return { b0: (top + low * k) / (1 + k), b1: (low * k - top) / (1 + k), b2: 0, a1: (k - 1) / (k + 1), a2: 0 };
}

interface Held {
  readonly cos: number;
  readonly power: number;
}

/** p, q and r of (p + q cos) ÷ (1 + r cos) through three points. */
function powerThrough([at0, at1, at2]: readonly [Held, Held, Held]): {
  readonly p: number;
  readonly q: number;
  readonly r: number;
} {
  // Two of the differences no longer hold p; of what is left q is put in.
  const [dc1, dc2] = [at1.cos - at0.cos, at2.cos - at0.cos];
  const [dg1, dg2] = [at1.power - at0.power, at2.power - at0.power];
  const [dw1, dw2] = [at1.cos * at1.power - at0.cos * at0.power, at2.cos * at2.power - at0.cos * at0.power];
  const determinant = dc2 * dw1 - dc1 * dw2;
  const r = Math.abs(determinant) < 1e-15 ? 0 : (dc1 * dg2 - dc2 * dg1) / determinant;
  const q = (dg1 + r * dw1) / dc1;
  return { p: at0.power * (1 + r * at0.cos) - q * at0.cos, q, r };
}

/** z of the factor 1 + z e^−iω, within the circle, whose power is that of 1 + x cos ω. */
function minimumPhase(x: number): number {
  const within = Math.max(-1, Math.min(1, x));
  return Math.abs(within) < 1e-12 ? 0 : (1 - Math.sqrt(1 - within ** 2)) / within;
}

/** The lengths of the lines of a network, in samples. */
export const linesOf = ({ lines }: Space, size: number, sampleRate: number): readonly number[] =>
  lines.map((ms) => primeFrom((ms / 1000) * (size / 100) * sampleRate));

/** Seconds until a frequency in Hz has fallen by 60 dB: all lines together, by the filters that are heard. */
function decayCurve(
  space: Space,
  values: Absorbing & HeardValues<"size">,
  sampleRate: number,
): (freq: number) => number {
  const lines = linesOf(space, values.size, sampleRate).map((length) => ({
    length,
    filter: absorption(values, length, sampleRate),
  }));
  const samples = lines.reduce((sum, { length }) => sum + length, 0);
  return (freq) => {
    const lost = lines.reduce((sum, { filter }) => {
      const { re, im } = responseAt([filter], hertz(freq), sampleRate);
      return sum + Math.log10(Math.hypot(re, im));
    }, 0);
    return (-3 * samples) / (sampleRate * lost);
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
