import { formatPlain } from "../units/format";
import { isNoteLength } from "../units/note-length";
import type { BeatsPerMinute } from "../units/quantities";
import { type EqFit, fitEq, tidied } from "./equaliser/fit-eq";
import { type Model, defaultValues, findFault, getSpec, heardValue, heardValues } from "./model";
import { type ParamId, type ParamSpec, type Value, type Values, clampTo } from "../units/param-spec";

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

function carryCurve(from: Model, values: Values, to: Model, tempo: BeatsPerMinute): Carrying {
  const fit = fitEq(from, heardValues(from, values, tempo), to);
  const fitted = tidied(to, fit.values);
  const start = defaultValues(to);
  const report = to.params.flatMap((spec): Carried[] => {
    const value = fitted[spec.id] ?? 0;
    return value === start[spec.id] || isSilentBand(spec.id, fitted)
      ? []
      : [{ name: spec.name, outcome: "fitted", from: "", to: formatPlain(spec, value) }];
  });
  return { values: fitted, report, fit };
}

/** Of a band that is not used. */
const isSilentBand = (id: ParamId, values: Readonly<Record<ParamId, number>>): boolean => {
  const band = /^(band\d)\./.exec(id)?.[1];
  return band !== undefined && values[`${band}.used`] !== 1;
};

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
    const before = values[source.id] ?? source.default;
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
    const value = values[source.id] ?? source.default;
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
