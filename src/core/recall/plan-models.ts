import { type Chain, type Processor, processorName } from "../chains/chain";
import { withoutLostTargets } from "../chains/macros";
import { mapProcessors, processorsOf, withoutNode } from "../chains/tree";
import { type Model, completeValues, findFault, findSpec } from "../processors/model";
import { EFFECTS, findModel, getModel } from "../processors/models";
import type { Value, Values } from "../units/param-spec";
import { type Layer, layersOf } from "../strips/parts/source";
import type { SavedStrip } from "../strips/strip";
import type { PartName } from "../strips/parts";
import { type Draft, ask } from "./plan-aims";
import { type Placement, askedFor, isOn } from "./plan-places";
import type { PlanInput } from "./plan-shape";

/* Plugins whose model nobody knows here, as from a newer library. A project holds none of them: what is to become of each is asked. */

/** The values of an unknown model that a model has too, by name and within its range. */
const sharedWith = (model: Model, values: Values): readonly (readonly [string, Value])[] =>
  Object.entries(values).filter(([id, value]) => {
    const spec = findSpec(model, id);
    return spec !== null && findFault(spec, value) === null;
  });

/** So many values must be common to two models for the one to stand in for the other. */
const FEWEST_SHARED = 2;
const MOST_OFFERED = 5;

/** Models that could stand in for an unknown one, those with most of its values first. */
export const standInsFor = (values: Values): readonly Model[] =>
  EFFECTS.map((model) => ({ model, shared: sharedWith(model, values).length }))
    .filter(({ shared }) => shared >= FEWEST_SHARED)
    .toSorted((a, b) => b.shared - a.shared || a.model.params.length - b.model.params.length)
    .slice(0, MOST_OFFERED)
    .map(({ model }) => model);

const asModel = (processor: Processor, model: Model): Processor => ({
  ...processor,
  model: model.id,
  values: completeValues(model, Object.fromEntries(sharedWith(model, processor.values))),
});

interface Asking {
  readonly draft: Draft;
  readonly input: PlanInput;
  readonly strip: string;
}

/** The model that takes the place of an unknown one, by the answer in force; null for none. */
function standIn({ draft, input, strip }: Asking, processor: Processor): Model | null {
  const offered = standInsFor(processor.values);
  const answer = ask(draft, input, {
    id: `model:${processor.model}`,
    strip,
    text: `The plugin “${processorName(processor)}” is not known here.`,
    choices: [
      { id: "leave", text: "Leave it out" },
      ...offered.map((model) => ({
        id: model.id,
        text: `Take ${model.name} with ${sharedWith(model, processor.values).length} of its values`,
      })),
    ],
    answer: "leave",
  });
  return answer === "leave" ? null : getModel(answer);
}

/** A chain of known plugins, by the answers in force. */
function knownChain(asking: Asking, chain: Chain): Chain {
  const unknown = processorsOf(chain).filter(({ model }) => !findModel(model));
  if (unknown.length === 0) return chain;
  const then = unknown.reduce((all, processor) => {
    const model = standIn(asking, processor);
    return model
      ? mapProcessors(all, (p) => (p.key === processor.key ? asModel(p, model) : p))
      : withoutNode(all, processor.key);
  }, chain);
  return { ...then, macros: [...withoutLostTargets(then).macros] };
}

/** Layers that play something known; of others only that they are left out can be said. */
function knownLayers(asking: Asking, saved: SavedStrip): readonly Layer[] {
  return layersOf({ source: saved.source! }).flatMap((layer) => {
    if (findModel(layer.instrument.model)) return [{ ...layer, effects: knownChain(asking, layer.effects) }];
    const text = `The instrument “${processorName(layer.instrument)}” is not known here; it is left out.`;
    asking.draft.notes.push({ strip: asking.strip, text });
    return [];
  });
}

const isUnknown = ({ model }: Processor): boolean => !findModel(model);

const holdsUnknown = ({ source, inserts }: SavedStrip): Record<Extract<PartName, "source" | "inserts">, boolean> => ({
  inserts: inserts !== undefined && processorsOf(inserts).some(isUnknown),
  source:
    source?.type === "layers" &&
    source.layers.some(({ instrument, effects }) => isUnknown(instrument) || processorsOf(effects).some(isUnknown)),
});

/** What is brought to a strip, with known plugins only. Of parts that are not asked for, or switched off, nothing is asked. */
export function withKnownModels(draft: Draft, input: PlanInput, placement: Placement): Placement {
  const { saved, request, key, id } = placement;
  if (!saved) return placement;
  const holds = holdsUnknown(saved);
  if (!holds.source && !holds.inserts) return placement;
  const asking = { draft, input, strip: id };
  const isTaken = (part: PartName) => askedFor(saved, request).includes(part) && isOn(input.except, key, part);
  return {
    ...placement,
    saved: {
      ...saved,
      ...(holds.inserts && isTaken("inserts") ? { inserts: knownChain(asking, saved.inserts!) } : {}),
      ...(holds.source && saved.source?.type === "layers"
        ? { source: { ...saved.source, layers: isTaken("source") ? [...knownLayers(asking, saved)] : [] } }
        : {}),
    },
  };
}
