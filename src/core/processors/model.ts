import { beatsOf, isNoteLength } from "../units/note-length";
import { type BeatsPerMinute, millisecondsOf } from "../units/quantities";
import { type ParamId, type ParamSpec, type Value, type Values, clampTo } from "../units/param-spec";

export const FAMILIES = [
  "equaliser",
  "dynamics",
  "saturation",
  "modulation",
  "delay",
  "reverb",
  "utility",
  "instrument",
] as const;
export type Family = (typeof FAMILIES)[number];

export const FAMILY_NAMES: Record<Family, string> = {
  equaliser: "Equalisers",
  dynamics: "Dynamics",
  saturation: "Saturation",
  modulation: "Modulation",
  delay: "Delays",
  reverb: "Reverbs",
  utility: "Utilities",
  instrument: "Instruments",
};

/** What a plugin is, apart from how it is set. */
export interface Model {
  readonly id: string;
  readonly name: string;
  readonly maker: string;
  readonly family: Family;
  readonly params: readonly ParamSpec[];
  readonly channels: { readonly in: 1 | 2; readonly out: 1 | 2 };
  /** In samples. */
  readonly latency: number;
  /** Parameters that cannot glide: a change of one is a new kernel, cross-faded with the old. */
  readonly structural: readonly ParamId[];
  /** Its detector can hear another sound. */
  readonly isKeyed: boolean;
  /** Makes two unlike sides of one. */
  readonly widens: boolean;
  /** Turns down what is loud, over all that it hears. */
  readonly holdsLevels: boolean;
  /** The value that people reach for first. */
  readonly lead: ParamId;
  readonly hearable: boolean;
  /** Of an instrument with several: what each carries, the first of them output 1. */
  readonly outputs?: readonly string[];
}

/** What is so of most models; each says what is otherwise with it. */
export const USUAL = {
  channels: { in: 2, out: 2 },
  latency: 0,
  structural: [],
  isKeyed: false,
  widens: false,
  holdsLevels: false,
  hearable: true,
} as const;

/** Values as a kernel takes them: numbers only, note lengths turned into milliseconds. */
export type HeardValues = Readonly<Record<ParamId, number>>;

export const findSpec = (model: Model, id: ParamId): ParamSpec | null => model.params.find((p) => p.id === id) ?? null;

export function getSpec(model: Model, id: ParamId): ParamSpec {
  const spec = findSpec(model, id);
  if (!spec) throw new Error(`${model.id} has no parameter ${id}`);
  return spec;
}

export const defaultValues = (model: Model): Values =>
  Object.fromEntries(model.params.map((spec) => [spec.id, spec.default]));

/** Every parameter has a value: the given one, else the default. Keys stand in the model's order. */
export const completeValues = (model: Model, values: Values): Values =>
  Object.fromEntries(model.params.map((spec) => [spec.id, values[spec.id] ?? spec.default]));

/** A note length is a time, or, where the parameter is a rate, the time of one turn. */
export function heardValue(spec: ParamSpec, value: Value, tempo: BeatsPerMinute): number {
  if (!isNoteLength(value)) return value;
  const ms = millisecondsOf(beatsOf(value), tempo);
  return clampTo(spec, spec.unit === "Hz" ? 1000 / ms : ms);
}

export const heardValues = (model: Model, values: Values, tempo: BeatsPerMinute): HeardValues =>
  Object.fromEntries(model.params.map((s) => [s.id, heardValue(s, values[s.id] ?? s.default, tempo)]));

/**
 * What is wrong with a value, as a sentence; null where nothing is. Numbers must be finite and within the range, choices
 * one of the list, note lengths only where the parameter may follow the tempo.
 */
export function findFault(spec: ParamSpec, value: Value): string | null {
  if (isNoteLength(value)) return spec.mayFollowTempo ? null : `${spec.name} does not take a note length.`;
  if (!Number.isFinite(value)) return `${spec.name} is not a number.`;
  if (spec.choices && !spec.choices.some((c) => c.value === value))
    return `${spec.name} is one of ${spec.choices.map((c) => `${c.value} (${c.label})`).join(", ")}.`;
  if (value < spec.min || value > spec.max)
    return `${spec.name} goes from ${spec.min} to ${spec.max}${spec.unit === "" ? "" : ` ${spec.unit}`}; ${value} is outside.`;
  return null;
}
