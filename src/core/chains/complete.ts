import equal from "fast-deep-equal";
import { completeValues } from "../processors/model";
import { findModel } from "../processors/models";
import { type Chain, type ChainNode, EMPTY_CHAIN, type Processor } from "./chain";
import { mapProcessors } from "./tree";

/** Every processor of a known model has all its values. */
export const completeChain = (chain: Chain): Chain => mapProcessors(chain, completeProcessor);

export function completeProcessor(processor: Processor): Processor {
  const model = findModel(processor.model);
  if (!model) return processor;
  const values = completeValues(model, processor.values);
  return equal(values, processor.values) ? processor : { ...processor, values };
}

export const completeNode = (node: ChainNode): ChainNode =>
  completeChain({ ...EMPTY_CHAIN, nodes: [node] }).nodes[0] ?? node;
