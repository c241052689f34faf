import type { Chain, PresetRef, Processor } from "../chains/chain";
import { MAKEUP_MODES } from "../processors/dynamics/static-curve";
import { type Model, defaultValues, findSpec } from "../processors/model";
import { getModel } from "../processors/models";
import type { ParamId, Value, Values } from "../units/param-spec";
import { BAND_TYPES, type BandType } from "../processors/equaliser/parametric-eq/bands";
import { type Feel, type Note, isNoteLength } from "../units/note-length";

/** Short ways to write settings down. */

type EqBand = readonly [type: BandType, freq: number, ...rest: number[]];

/** As loud as without it, where a compressor is not told otherwise. */
function asLoud(model: Model, values: Values): Values {
  const has = (id: ParamId) => findSpec(model, id) !== null;
  return has("makeup") && has("makeupMode") && values.makeup === undefined
    ? { makeupMode: MAKEUP_MODES.automatic }
    : {};
}

/** A plugin with some values, the rest as its maker sets it today. */
export function opened(key: string, id: string, values: Values, more: Partial<Processor> = {}): Processor {
  const model = getModel(id);
  const all = { ...defaultValues(model), ...asLoud(model, values), ...values };
  return { type: "processor", key, model: id, enabled: true, values: all, ...more };
}

/** A plugin with some values; the rest as its maker set them. */
export const set = (model: string, values: Values = {}, more: Partial<Processor> = {}): Processor =>
  opened(model, model, values, more);

/** Bands as type and frequency, then the slope of a cut, else gain and Q. */
export function eq(bands: readonly EqBand[], more: Values = {}): Processor {
  const values: Record<string, Value> = { ...more };
  bands.forEach(([type, freq, first, second], at) => {
    const band = `band${at + 1}`;
    const isCut = type === "low cut" || type === "high cut";
    values[`${band}.used`] = 1;
    values[`${band}.type`] = BAND_TYPES.indexOf(type);
    values[`${band}.freq`] = freq;
    if (isCut) values[`${band}.slope`] = first ?? 12;
    else values[`${band}.gain`] = first ?? 0;
    if (second !== undefined) values[`${band}.q`] = second;
  });
  return opened("eq", "parametric-eq", values);
}

export const comp = (threshold: number, ratio: number, more: Values = {}): Processor =>
  opened("comp", "vca-compressor", { threshold, ratio, ...more });

export const note = (length: Note, feel: Feel = "straight") => ({ note: length, feel });

type Tap = readonly [time: Value, level: number, pan?: number];

export function delay(taps: readonly Tap[], more: Values = {}): Processor {
  const values: Record<string, Value> = { "tap1.on": 0, ...more };
  taps.forEach(([time, level, pan = 0], at) => {
    const tap = `tap${at + 1}`;
    values[`${tap}.on`] = 1;
    values[`${tap}.time`] = isNoteLength(time) ? { ...time } : time;
    values[`${tap}.level`] = level;
    values[`${tap}.pan`] = pan;
  });
  return opened("delay", "multitap-delay", values);
}

/** Processors in series, each under a key of its own. */
export function chain(...processors: readonly Processor[]): Chain {
  const nodes = processors.map((p, at) => ({ ...p, key: `${p.key}${at + 1}` }));
  return { nodes, macros: [] };
}

export const off = (p: Processor): Processor => ({ ...p, enabled: false });
export const called = (label: string, p: Processor): Processor => ({ ...p, label });

/** A chain as it was loaded from a preset, with some values turned since: place in the chain, parameter, value. */
export function loaded(
  saved: Chain,
  from: PresetRef,
  turned: readonly (readonly [at: number, param: string, value: Value])[] = [],
): Chain {
  const nodes = saved.nodes.map((node, place) => {
    const changes = turned.filter(([at]) => at === place);
    if (node.type !== "processor" || changes.length === 0) return node;
    return {
      ...node,
      values: { ...node.values, ...Object.fromEntries(changes.map(([, param, value]) => [param, value])) },
    };
  });
  return { ...saved, nodes, from };
}
