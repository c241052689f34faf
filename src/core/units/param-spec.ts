import type { NoteLength } from "./note-length";

export type ParamId = string;
export type Value = number | NoteLength;
export type Values = Readonly<Record<ParamId, Value>>;

/** Values as a kernel takes them: numbers only, every one there, note lengths turned into milliseconds. */
export type HeardValues<Id extends ParamId = ParamId> = Readonly<Record<Id, number>>;

export type Unit = "dB" | "Hz" | "ms" | "s" | "%" | ":1" | "Q" | "dB/oct" | "pan" | "";

export interface Choice {
  readonly value: number;
  readonly label: string;
}

/**
 * A parameter, described once: controls, validation, differences, plots and documents read this. Values stand in the
 * parameter's own unit; a choice is the number of one of `choices`; a level whose minimum is silence says so.
 */
export interface ParamSpec<Id extends ParamId = ParamId> {
  readonly id: Id;
  readonly name: string;
  readonly unit: Unit;
  readonly min: number;
  readonly max: number;
  /** What a plugin opens with. */
  readonly default: Value;
  /** What it is where a document does not say, since there was no such parameter when it was written; else the default. */
  readonly absent?: Value;
  readonly taper: "linear" | "log" | "power";
  /** What one press of an arrow key moves; a fortieth of the ruler where it is missing. */
  readonly step?: number;
  readonly choices?: readonly Choice[];
  readonly mayFollowTempo?: true;
  /** The minimum is silence, shown as −∞. */
  readonly silentAtMin?: true;
  /** The canonical meaning, by which a value travels to another model. */
  readonly meaning?: string;
  /** The heading that it stands under in an editor, such as "Band 2". */
  readonly group?: string;
}

/** The value of a parameter in a document. */
export const valueIn = (values: Values, spec: ParamSpec): Value => values[spec.id] ?? spec.absent ?? spec.default;

/** A curve of 2 gives the lower part of the range the longer stretch of the ruler. */
const POWER = 2;

/** Where a number stands on its ruler, 0 to 1. */
export function positionOf(spec: ParamSpec, value: number): number {
  const { min, max, taper } = spec;
  const held = Math.min(max, Math.max(min, value));
  if (taper === "log") return Math.log(held / min) / Math.log(max / min);
  const share = (held - min) / (max - min);
  return taper === "power" ? share ** (1 / POWER) : share;
}

/** The number at a place of the ruler, 0 to 1. */
export function valueAt(spec: ParamSpec, position: number): number {
  const { min, max, taper } = spec;
  const held = Math.min(1, Math.max(0, position));
  if (taper === "log") return min * (max / min) ** held;
  return min + (max - min) * (taper === "power" ? held ** POWER : held);
}

export const clampTo = (spec: ParamSpec, value: number): number => Math.min(spec.max, Math.max(spec.min, value));

/** On and off as a choice of two. */
export const SWITCH: readonly Choice[] = [
  { value: 0, label: "Off" },
  { value: 1, label: "On" },
];
