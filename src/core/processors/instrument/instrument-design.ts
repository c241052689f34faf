import type { HeardValues, ParamId } from "../../units/param-spec";

/** How an instrument is drawn: the course of one note, and what it is made of. */
export interface InstrumentDesign<Id extends ParamId = ParamId> {
  /** Level, 0 to 1, at a time in seconds of a note that is held for `held` seconds. */
  envelope(values: HeardValues<Id>, held: number): (seconds: number) => number;
  /** The partials of a note as it begins, by the multiple of its pitch; levels in dB, 0 or below. */
  partials(values: HeardValues<Id>): readonly { readonly ratio: number; readonly level: number }[];
}

/** What becomes of a level in `seconds` when it falls by e in each `time` of them. */
export const fall = (seconds: number, time: number): number => Math.exp(-Math.max(0, seconds) / time);

/** Times are those in which a stretch has covered 63 % of its way; in seconds. */
export interface Envelope {
  readonly attack: number;
  readonly decay: number;
  readonly sustain: number;
  readonly release: number;
}

/** Attack to 1, decay to the sustain, release to nothing: exponential all the way, as a capacitor does it. */
export function adsr({ attack, decay, sustain, release }: Envelope, held: number): (seconds: number) => number {
  // The attack aims above 1 and turns where it meets it, as the kernels' does.
  const top = attack * Math.log(ATTACK_AIM / (ATTACK_AIM - 1));
  const during = (t: number): number =>
    t < top ? ATTACK_AIM * (1 - fall(t, attack)) : sustain + (1 - sustain) * fall(t - top, decay);
  const end = during(held);
  return (t) => (t < 0 ? 0 : t <= held ? during(t) : end * fall(t - held, release));
}

export const ATTACK_AIM = 1.3;

export const envelopeOf = (values: HeardValues<"attack" | "decay" | "sustain" | "release">): Envelope => ({
  attack: values.attack / 1000,
  decay: values.decay / 1000,
  sustain: values.sustain / 100,
  release: values.release / 1000,
});

/** Of a sound that plays at full level as long as it is held. */
export const heldEnvelopeOf = (values: HeardValues<"attack" | "release">): Envelope =>
  envelopeOf({ ...values, decay: 10_000, sustain: 100 });
