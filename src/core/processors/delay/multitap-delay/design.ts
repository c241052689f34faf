import { panGains } from "../../../dsp/pan";
import { decibels, gainOf } from "../../../units/quantities";
import type { HeardValues } from "../../../units/param-spec";
import { SILENCE } from "../../specs";
import { TAPS, type TapNumber, type TapParam, tapParam } from "./taps";

export interface Tap {
  readonly number: TapNumber;
  readonly on: boolean;
  /** In milliseconds. */
  readonly time: number;
  /** In dB; −∞ where the value is its minimum. */
  readonly level: number;
  readonly pan: number;
}

export function tapOf(values: HeardValues<TapParam>, number: TapNumber): Tap {
  const level = values[tapParam(number, "level")];
  return {
    number,
    on: values[tapParam(number, "on")] === 1,
    time: values[tapParam(number, "time")],
    level: level <= SILENCE ? Number.NEGATIVE_INFINITY : level,
    pan: values[tapParam(number, "pan")],
  };
}

export const tapsOf = (values: HeardValues<TapParam>): readonly Tap[] => TAPS.map((n) => tapOf(values, n));

/** 0 for silence. */
export const levelGain = (level: number): number => (level <= SILENCE ? 0 : gainOf(decibels(level)));

/** The gains of a tap on the left and on the right; none where it is off. */
export function tapGains(tap: Tap) {
  const gain = tap.on ? levelGain(tap.level) : 0;
  const { left, right } = panGains(tap.pan);
  return { left: gain * left, right: gain * right };
}

/** What is fed back is read at the longest tap in use, so that repeats keep the pattern; with none, nothing repeats. */
export const loopTime = (taps: readonly Tap[]): number => Math.max(0, ...taps.filter((t) => t.on).map((t) => t.time));

/** Coefficient of the one-pole low pass in the loop; open at the top of the range. */
export const dampingCoefficient = (damping: number, sampleRate: number): number =>
  damping >= 20_000 ? 1 : 1 - Math.exp((-2 * Math.PI * damping) / sampleRate);
