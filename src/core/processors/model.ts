import type { DelayDesign } from "./delay/delay-design";
import type { DynamicsDesign } from "./dynamics/dynamics-design";
import type { EqDesign } from "./equaliser/eq-design";
import type { InstrumentDesign } from "./instrument/instrument-design";
import type { ModulationDesign } from "./modulation/modulation-design";
import type { ReverbDesign } from "./reverb/reverb-design";
import type { ShaperDesign } from "./saturation/shaper";
import type { UtilityDesign } from "./utility/utility-design";
import { oversamplingDelay } from "../dsp/oversampling";
import { beatsOf, isNoteLength } from "../units/note-length";
import { type BeatsPerMinute, millisecondsOf } from "../units/quantities";
import {
  type HeardValues,
  type ParamId,
  type ParamSpec,
  type Value,
  type Values,
  clampTo,
  valueIn,
} from "../units/param-spec";

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

/** What a plugin is, apart from how it is set. `Id` names its parameters, so that what reads their values is checked. */
export interface Model<Id extends ParamId = ParamId> {
  readonly id: string;
  readonly name: string;
  readonly maker: string;
  readonly family: Family;
  readonly params: readonly ParamSpec<Id>[];
  readonly channels: { readonly in: 1 | 2; readonly out: 1 | 2 };
  /** In samples; what it looks ahead, and what resampling takes, come to it. */
  readonly latency: number;
  /** In milliseconds. */
  readonly lookAhead: number;
  /** The parameter that says by how many milliseconds it looks ahead, where that is to be chosen: a change of it is a path of its own. */
  readonly aheadBy: Id | null;
  /** It applies a curve at a higher rate: that comes to it too. */
  readonly oversamples: boolean;
  /** Parameters that cannot glide: a change of one is a new kernel, cross-faded with the old. */
  readonly structural: readonly Id[];
  /** Its detector can hear another sound. */
  readonly isKeyed: boolean;
  /** Makes two unlike sides of one. */
  readonly widens: boolean;
  /** Turns down what is loud, over all that it hears. */
  readonly holdsLevels: boolean;
  /** Nothing leaves it above its ceiling. */
  readonly limits: boolean;
  /** It ends in a loudspeaker. */
  readonly hasCabinet: boolean;
  /** It works on what the sides have not in common: a mono sound passes it as it is. */
  readonly needsTwoSides: boolean;
  /** It plays recorded sound that is loaded into it. */
  readonly playsSample: boolean;
  /**
   * What a kernel of it reads: by how much it turns down, in dB, 0 or below; the pitch in Hz, 0 for none; the momentary
   * loudness in LUFS.
   */
  readonly reads: "reduction" | "pitch" | "loudness" | null;
  /** The value that people reach for first. */
  readonly lead: Id;
  readonly hearable: boolean;
  /** The functions by which it is drawn, fitted and told, and which its kernel uses for the sound. */
  readonly design: Designs<Id>[Family];
  /** Of an instrument with several: what each carries, the first of them output 1. */
  readonly outputs?: readonly string[];
}

/** What the models of a family have in common with each other. */
export interface Designs<Id extends ParamId = ParamId> {
  readonly equaliser: EqDesign<Id>;
  readonly dynamics: DynamicsDesign<Id>;
  readonly saturation: ShaperDesign<Id>;
  readonly modulation: ModulationDesign<Id>;
  readonly delay: DelayDesign<Id>;
  readonly reverb: ReverbDesign<Id>;
  readonly utility: UtilityDesign<Id>;
  readonly instrument: InstrumentDesign<Id>;
}

/** What a model looks ahead, in samples at a rate. */
export const samplesAhead = ({ lookAhead }: Pick<Model, "lookAhead">, sampleRate: number): number =>
  Math.round((lookAhead * sampleRate) / 1000);

/** What delays the sound in a model that is set in some way: its look-ahead is what it always has and what is chosen. */
export type Delays = Pick<Model, "latency" | "lookAhead" | "oversamples">;

/** What delays the sound in a model, by its values. */
export const delaysOf = (
  { latency, lookAhead, oversamples, aheadBy }: Model,
  values: Readonly<Record<string, number | undefined>>,
): Delays => ({ latency, lookAhead: lookAhead + (aheadBy === null ? 0 : (values[aheadBy] ?? 0)), oversamples });

/** By how much the sound leaves a model later, in samples at a rate. */
export const latencyAt = (model: Delays, sampleRate: number): number =>
  model.latency + samplesAhead(model, sampleRate) + (model.oversamples ? oversamplingDelay(sampleRate) : 0);

/** All of it but its functions. */
export const describeModel = ({ design: _, ...description }: Model): Omit<Model, "design"> => description;

/** The design of a model that is of the family; throws for one of another. */
export function designOf<F extends Family>(model: Model, family: F): Designs[F] {
  if (model.family !== family) throw new Error(`${model.id} is not of the family ${family}`);
  // effect() lets no other design stand beside a family.
  return model.design as Designs[F];
}

/** What is so of most models; each says what is otherwise with it. */
export const USUAL = {
  channels: { in: 2, out: 2 },
  latency: 0,
  lookAhead: 0,
  aheadBy: null,
  oversamples: false,
  structural: [],
  isKeyed: false,
  widens: false,
  holdsLevels: false,
  limits: false,
  hasCabinet: false,
  needsTwoSides: false,
  playsSample: false,
  reads: null,
  hearable: true,
} as const;

/** The heard values of one model, by its own parameters. */
export type ValuesOf<M extends Model> = HeardValues<M["params"][number]["id"]>;

export const findSpec = (model: Model, id: ParamId): ParamSpec | null => model.params.find((p) => p.id === id) ?? null;

export function getSpec(model: Model, id: ParamId): ParamSpec {
  const spec = findSpec(model, id);
  if (!spec) throw new Error(`${model.id} has no parameter ${id}`);
  return spec;
}

export const defaultValues = (model: Model): Values =>
  Object.fromEntries(model.params.map((spec) => [spec.id, spec.default]));

/** Every parameter has a value: the given one, else what it is where none is given. Keys stand in the model's order. */
export const completeValues = (model: Model, values: Values): Values =>
  Object.fromEntries(model.params.map((spec) => [spec.id, valueIn(values, spec)]));

/** One of the values of a model that is known by its family only; throws where it has no such parameter. */
export function heardAt(values: HeardValues, id: ParamId): number {
  const value = values[id];
  if (value === undefined) throw new Error(`There is no value of ${id}`);
  return value;
}

/** A note length is a time, or, where the parameter is a rate, the time of one turn. */
export function heardValue(spec: ParamSpec, value: Value, tempo: BeatsPerMinute): number {
  if (!isNoteLength(value)) return value;
  const ms = millisecondsOf(beatsOf(value), tempo);
  return clampTo(spec, spec.unit === "Hz" ? 1000 / ms : ms);
}

/** Every parameter has its number: of the value that is given, else of what it is where none is given. */
export const heardValues = <Id extends ParamId>(
  model: Model<Id>,
  values: Values,
  tempo: BeatsPerMinute,
): HeardValues<Id> =>
  Object.fromEntries(model.params.map((s) => [s.id, heardValue(s, valueIn(values, s), tempo)])) as HeardValues<Id>;

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
