import type { HeardValues } from "../../units/param-spec";
import { type InstrumentDesign, adsr, envelopeOf, fall, heldEnvelopeOf } from "./instrument-design";

/** An electric piano's partials: a sine whose phase another one bends, and the bell of its tine. */
export function pianoIndex(values: HeardValues<"tone" | "bell">): { readonly body: number; readonly bell: number } {
  return { body: 0.2 + (values.tone / 100) * 2.4, bell: (values.bell / 100) * 0.35 };
}
/** The tine's multiple of the pitch. */
export const BELL_RATIO = 13;

/** Multiples of the pitch and shares of the first, of a bar that is struck; the tuned ones as builders tune them. */
export const BAR_MODES: readonly (readonly (readonly [ratio: number, share: number, ring: number])[])[] = [
  [
    [1, 1, 1],
    [4, 0.45, 0.4],
    [10.2, 0.25, 0.15],
  ],
  [
    [1, 1, 1],
    [3.93, 0.35, 0.2],
    [9.2, 0.2, 0.08],
  ],
  // A free bar of even section: (2n + 1)² of Euler and Bernoulli's beam.
  [
    [1, 1, 1],
    [2.756, 0.6, 0.6],
    [5.404, 0.4, 0.35],
    [8.933, 0.25, 0.2],
  ],
];

/** A soft mallet leaves out what turns faster than its touch lasts. */
export const malletShare = (hardness: number, ratio: number): number =>
  Math.exp(-((1 - hardness / 100) ** 2) * 1.1 * (ratio - 1));

const decibels = (share: number): number => 20 * Math.log10(Math.max(1e-5, share));

/** Bessel functions of the first kind, by their integral: the partials of a sine that bends another's phase. */
function bessel(order: number, x: number): number {
  const steps = 48;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    const t = (Math.PI * (i + 0.5)) / steps;
    sum += Math.cos(order * t - x * Math.sin(t));
  }
  return sum / steps;
}

const lowPassed = (ratio: number, cutoff: number, pitch: number, steepness: number): number =>
  1 / Math.sqrt(1 + ((ratio * pitch) / cutoff) ** steepness);

/** Struck, it rings by itself, its time being a third of its ring; let go, it is damped. */
const struck = ({ ring, release }: HeardValues<"ring" | "release">, held: number) => {
  return (t: number): number =>
    t < 0 ? 0 : fall(Math.min(t, held), ring / 3) * (t > held ? fall(t - held, release / 1000) : 1);
};

export const PIANO_DESIGN: InstrumentDesign<"tone" | "bell" | "ring" | "release"> = {
  envelope: struck,
  partials(values) {
    const { body, bell } = pianoIndex(values);
    return [
      ...[0, 1, 2, 3, 4].map((order) => ({ ratio: order + 1, level: decibels(Math.abs(bessel(order, body / 2))) })),
      { ratio: BELL_RATIO, level: decibels(bell) },
    ];
  },
};

type Synth = "attack" | "decay" | "sustain" | "release" | "cutoff";

export const BASS_DESIGN: InstrumentDesign<Synth | "wave" | "sweep"> = {
  envelope: (values, held) => adsr(envelopeOf(values), held),
  partials: ({ cutoff, wave, sweep }) =>
    Array.from({ length: 16 }, (_, n) => n + 1)
      .filter((n) => wave === 0 || n % 2 === 1)
      .map((ratio) => ({
        ratio,
        level: decibels(lowPassed(ratio, cutoff * 2 ** (sweep / 24), 110, 8) / ratio),
      })),
};

export const PAD_DESIGN: InstrumentDesign<Synth> = {
  envelope: (values, held) => adsr(envelopeOf(values), held),
  partials: ({ cutoff }) =>
    Array.from({ length: 16 }, (_, n) => ({
      ratio: n + 1,
      level: decibels(lowPassed(n + 1, cutoff, 220, 4) / (n + 1)),
    })),
};

export const MALLETS_DESIGN: InstrumentDesign<"ring" | "release" | "bar" | "hardness"> = {
  envelope: struck,
  partials: ({ bar, hardness }) =>
    (BAR_MODES[bar] ?? BAR_MODES[0]!).map(([ratio, share]) => ({
      ratio,
      level: decibels(share * malletShare(hardness, ratio)),
    })),
};

export const DRUMS_DESIGN: InstrumentDesign<"kickDecay" | "snareWires" | "kickClick"> = {
  envelope:
    ({ kickDecay }) =>
    (t) =>
      t < 0 ? 0 : fall(t, kickDecay / 3000),
  partials: ({ snareWires, kickClick }) => [
    { ratio: 1, level: 0 },
    { ratio: 3.6, level: -8 },
    { ratio: 5.7, level: -14 },
    { ratio: 24, level: decibels(kickClick / 300) },
    { ratio: 60, level: decibels(snareWires / 200) },
  ],
};

export const SAMPLER_DESIGN: InstrumentDesign<"attack" | "release"> = {
  envelope: (values, held) => adsr(heldEnvelopeOf(values), held),
  partials: () => [],
};
