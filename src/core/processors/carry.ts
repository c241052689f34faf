import { formatPlain } from "../units/format";
import { isNoteLength } from "../units/note-length";
import type { BeatsPerMinute } from "../units/quantities";
import type { EqBand } from "./equaliser/eq-design";
import { type EqFit, fitEq, tidied } from "./equaliser/fit-eq";
import { type Model, defaultValues, designOf, findFault, getSpec, heardValue, heardValues } from "./model";
import {
  type HeardValues,
  type ParamId,
  type ParamSpec,
  type Value,
  type Values,
  clampTo,
  valueIn,
} from "../units/param-spec";

/** What became of one value on the way to another model. */
export interface Carried {
  readonly name: string;
  readonly outcome: "carried" | "fitted" | "clamped" | "dropped";
  /** As they are written; `from` is empty where the value is new, `to` where there is none. */
  readonly from: string;
  readonly to: string;
}

export interface Carrying {
  readonly values: Values;
  readonly report: readonly Carried[];
  /** Between equalisers: how near the response came. */
  readonly fit: EqFit | null;
}

/**
 * The values of one model as another would be set for the same sound. Between equalisers the response is fitted; else
 * each value goes by its meaning, in the unit of the other, held within the other's range.
 */
export const carryValues = (from: Model, values: Values, to: Model, tempo: BeatsPerMinute): Carrying =>
  from.family === "equaliser" && to.family === "equaliser"
    ? carryCurve(from, values, to, tempo)
    : carryMeanings(from, values, to, tempo);

/** A band as it is written: "240 Hz, −3.0 dB, Q 1.2". */
function bandWords(model: Model, values: HeardValues, { params }: EqBand): string {
  const write = (id: ParamId | undefined) =>
    id === undefined ? [] : [formatPlain(getSpec(model, id), values[id] ?? 0)];
  return [...write(params.freq), ...write(params.gain), ...write(params.q).map((q) => `Q ${q}`)].join(", ");
}

/** The bands that do something. */
const activeBands = (model: Model, values: HeardValues): readonly EqBand[] =>
  designOf(model, "equaliser")
    .bands(values, REPORTED_AT)
    .filter((band) => band.on && band.sections.length > 0 && (band.params.gain === undefined || band.gain !== 0));

/** Where bands stand does not depend on it. */
const REPORTED_AT = 48_000;

const isCut = (band: EqBand): boolean => band.params.gain === undefined;

/** How far two bands are from each other, in octaves; a cut is no partner of a bell. */
const apart = (a: EqBand, b: EqBand): number =>
  isCut(a) === isCut(b) ? Math.abs(Math.log2(a.freq / b.freq)) : Number.POSITIVE_INFINITY;

/** Each band of the one beside the nearest of the other; what finds none stands alone. */
function bandReport(from: Model, before: HeardValues, to: Model, after: HeardValues): Carried[] {
  const free = new Set(activeBands(to, after));
  const report = activeBands(from, before).map((band): Carried => {
    const partner = [...free].toSorted((a, b) => apart(band, a) - apart(band, b))[0];
    const found = partner && apart(band, partner) < 2 ? partner : null;
    if (found) free.delete(found);
    return {
      name: found && found.name !== band.name ? `${band.name} → ${found.name}` : band.name,
      outcome: found ? (isCut(band) && found.freq === band.freq ? "carried" : "fitted") : "dropped",
      from: bandWords(from, before, band),
      to: found ? bandWords(to, after, found) : "",
    };
  });
  return [
    ...report,
    ...[...free].map(
      (band): Carried => ({ name: band.name, outcome: "fitted", from: "", to: bandWords(to, after, band) }),
    ),
  ];
}

function carryCurve(from: Model, values: Values, to: Model, tempo: BeatsPerMinute): Carrying {
  const before = heardValues(from, values, tempo);
  const fit = fitEq(from, before, to);
  const fitted = tidied(to, fit.values);
  return { values: fitted, report: bandReport(from, before, to, fitted), fit };
}

/** What a meaning is measured in, where two units mean the same: a rate and the time of one turn. */
function inUnitOf(spec: ParamSpec, value: Value, from: ParamSpec, tempo: BeatsPerMinute): Value {
  if (isNoteLength(value)) return spec.mayFollowTempo ? value : heardValue(from, value, tempo);
  if (from.unit === spec.unit) return value;
  if (from.unit === "s" && spec.unit === "ms") return value * 1000;
  return from.unit === "ms" && spec.unit === "s" ? value / 1000 : value;
}

/** The nearest of the choices, or the value within the range. */
function settled(spec: ParamSpec, value: Value): Value {
  if (isNoteLength(value)) return value;
  if (spec.choices)
    return spec.choices.reduce((a, b) => (Math.abs(b.value - value) < Math.abs(a.value - value) ? b : a)).value;
  return clampTo(spec, value);
}

function carryMeanings(from: Model, values: Values, to: Model, tempo: BeatsPerMinute): Carrying {
  const wanted = new Map(from.params.flatMap((spec) => (spec.meaning ? [[spec.meaning, spec] as const] : [])));
  const taken = new Set<ParamId>();
  const report: Carried[] = [];
  const carried: Record<ParamId, Value> = { ...defaultValues(to) };
  for (const spec of to.params) {
    const source = sourceOf(spec, wanted, from);
    if (!source) continue;
    taken.add(source.id);
    const before = valueIn(values, source);
    const asked = inUnitOf(spec, before, source, tempo);
    const after = settled(spec, asked);
    carried[spec.id] = after;
    report.push({
      name: spec.name,
      outcome: findFault(spec, asked) === null ? "carried" : "clamped",
      from: formatPlain(source, before),
      to: formatPlain(spec, after),
    });
  }
  for (const source of from.params) {
    const value = valueIn(values, source);
    if (!taken.has(source.id) && value !== source.default)
      report.push({ name: source.name, outcome: "dropped", from: formatPlain(source, value), to: "" });
  }
  return { values: carried, report, fit: null };
}

/** By meaning; a choice of the same name and the same words, such as how make-up is set, means the same too. */
function sourceOf(spec: ParamSpec, wanted: ReadonlyMap<string, ParamSpec>, from: Model): ParamSpec | null {
  if (spec.meaning !== undefined) return wanted.get(spec.meaning) ?? null;
  const same = from.params.find((p) => p.id === spec.id && p.meaning === undefined && p.choices && spec.choices);
  const words = (p: ParamSpec) => p.choices?.map((c) => c.label).join();
  return same && words(same) === words(spec) ? getSpec(from, same.id) : null;
}
