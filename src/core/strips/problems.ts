import equal from "fast-deep-equal";
import { findChainProblem, findProcessorProblem } from "../chains/problems";
import type { StripKind } from "../documents/strip-kinds";
import type { Problem } from "../documents/problem";
import { findModel } from "../processors/models";
import { PART, PARTS, type PartName, type PartValues } from "./parts";
import type { Layer, Source } from "./parts/source";
import type { SavedStrip, Strip } from "./strip";

function findLayerProblem(layer: Layer, path: string): Problem | null {
  if (layer.keys.low > layer.keys.high)
    return { path: `${path}.keys`, message: "The lowest key is above the highest." };
  if (layer.velocities.low > layer.velocities.high)
    return { path: `${path}.velocities`, message: "The softest touch is above the hardest." };
  return (
    findProcessorProblem(layer.instrument, `${path}.instrument`) ??
    (findModel(layer.instrument.model)?.family === "instrument"
      ? null
      : { path: `${path}.instrument.model`, message: `${layer.instrument.model} is no instrument.` }) ??
    findChainProblem(layer.effects, `${path}.effects`)
  );
}

function findSourceProblem(source: Source, kind: StripKind, path: string): Problem | null {
  if (source.type !== "layers") return null;
  if (kind !== "instrument") return { path: `${path}.type`, message: "Only a strip of kind instrument plays layers." };
  const keys = new Set<string>();
  for (const [at, layer] of source.layers.entries()) {
    const here = `${path}.layers[${at}]`;
    if (keys.has(layer.key)) return { path: `${here}.key`, message: `The key “${layer.key}” is used twice.` };
    keys.add(layer.key);
    const problem = findLayerProblem(layer, here);
    if (problem) return problem;
  }
  return null;
}

type Check<V> = (value: V, kind: StripKind, path: string) => Problem | null;

/** What the schemas cannot see, of the parts of which there is something. */
const CHECKS: { readonly [N in PartName]?: Check<PartValues[N]> } = {
  source: findSourceProblem,
  inserts: (chain, _, path) => findChainProblem(chain, path),
  sends: (sends, _, path) => {
    const at = sends.findIndex(({ key }, n) => sends.findIndex((other) => other.key === key) < n);
    return at < 0 ? null : { path: `${path}[${at}].key`, message: `The key “${sends[at]?.key}” is used twice.` };
  },
};

/** The first part of a folder that has to do with sound, where there is something of it. */
const findSounding = (strip: Strip | SavedStrip): PartName | undefined =>
  PARTS.find((name) => {
    const { isOfSound, empty } = PART[name];
    const value = strip[name];
    return isOfSound && value !== undefined && !equal(value, empty(strip.kind));
  });

/** The first problem of a strip, null for none. `path`: where it stands. */
export function findStripProblem(strip: Strip | SavedStrip, path: string): Problem | null {
  const sounding = strip.kind === "folder" ? findSounding(strip) : undefined;
  if (sounding) return { path: `${path}.${sounding}`, message: `A folder carries no sound.` };
  for (const [name, check] of Object.entries(CHECKS) as [PartName, Check<unknown>][]) {
    const value = strip[name];
    const problem = value === undefined ? null : check(value, strip.kind, `${path}.${name}`);
    if (problem) return problem;
  }
  return null;
}
