import type { z } from "zod";
import { completeValues, findFault, findSpec, heardValues } from "../processors/model";
import { findModel, getModel } from "../processors/models";
import type { Problem } from "../documents/problem";
import type { BeatsPerMinute } from "../units/quantities";
import type { HeardChain } from "./heard-chain";
import type { ChainSchema, FromSchema, NodeSchema, ProcessorSchema, StripRefSchema } from "./schema";

export type From = Readonly<z.infer<typeof FromSchema>>;
export type StripRef = Readonly<z.infer<typeof StripRefSchema>>;
export type Processor = Readonly<z.infer<typeof ProcessorSchema>>;
export type ChainNode = Readonly<z.infer<typeof NodeSchema>>;
export type Chain = Readonly<z.infer<typeof ChainSchema>>;

export const EMPTY_CHAIN: Chain = { nodes: [], macros: [] };

/** The processors in the order in which the sound meets them; lanes one after the other. */
export const processorsOf = (chain: Chain): readonly Processor[] => chain.nodes.flatMap(processorsIn);

function processorsIn(node: ChainNode): readonly Processor[] {
  switch (node.type) {
    case "processor":
      return [node];
    case "section":
      return node.nodes.flatMap(processorsIn);
    case "split":
      return node.lanes.flatMap((lane) => lane.nodes.flatMap((inner) => processorsIn(inner)));
  }
}

export const findProcessor = (chain: Chain, key: string): Processor | null =>
  processorsOf(chain).find((p) => p.key === key) ?? null;

/** A processor's name on screen: its own, else that of its model. */
export const processorName = (processor: Processor): string =>
  processor.label ?? findModel(processor.model)?.name ?? processor.model;

/** The chain with one of its processors replaced; the same chain where no processor has that key. */
export function mapProcessor(chain: Chain, key: string, change: (processor: Processor) => Processor): Chain {
  const nodes = chain.nodes.map((node) => (node.type === "processor" && node.key === key ? change(node) : node));
  return nodes.every((node, at) => node === chain.nodes[at]) ? chain : { ...chain, nodes };
}

/** The chain as it sounds at a tempo. What cannot be heard is passed by. */
export const hearChain = (chain: Chain, tempo: BeatsPerMinute): HeardChain =>
  processorsOf(chain)
    .filter((p) => findModel(p.model)?.hearable)
    .map(({ key, model, enabled, values }) => ({
      key,
      model,
      enabled,
      values: heardValues(getModel(model), values, tempo),
    }));

/**
 * What a schema cannot see: models and parameters that exist, values within their range, keys that are used once, and
 * wiring that can be heard today. The first problem, null for none.
 */
export function findChainProblem(chain: Chain, path: string): Problem | null {
  const keys = new Set<string>();
  for (const [at, node] of chain.nodes.entries()) {
    const here = `${path}.nodes[${at}]`;
    if (node.type !== "processor")
      return { path: `${here}.type`, message: `A ${node.type} cannot be built here yet; use processors in series.` };
    if (keys.has(node.key)) return { path: `${here}.key`, message: `The key “${node.key}” is used twice.` };
    keys.add(node.key);
    const problem = findProcessorProblem(node, here);
    if (problem) return problem;
  }
  if (chain.macros.length > 0) return { path: `${path}.macros`, message: "Macros cannot be built here yet." };
  return null;
}

export function findProcessorProblem(processor: Processor, path: string): Problem | null {
  const model = findModel(processor.model);
  if (!model) return { path: `${path}.model`, message: `No model is called “${processor.model}” here.` };
  for (const [id, value] of Object.entries(processor.values)) {
    const spec = findSpec(model, id);
    if (!spec) return { path: `${path}.values.${id}`, message: `${model.name} has no parameter “${id}”.` };
    const fault = findFault(spec, value);
    if (fault) return { path: `${path}.values.${id}`, message: fault };
  }
  return null;
}

/** Every processor has all its values; call it on a chain without problems. */
export const completeChain = (chain: Chain): Chain => ({
  ...chain,
  nodes: chain.nodes.map((node) => (node.type === "processor" ? completeProcessor(node) : node)),
});

export const completeProcessor = (processor: Processor): Processor => ({
  ...processor,
  values: completeValues(getModel(processor.model), processor.values),
});
