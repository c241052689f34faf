import { EMPTY_CHAIN, type ChainNode } from "../chains/chain";
import { completeChain } from "../chains/complete";

import { SOURCE } from "../strips/parts/source";
import { completeStrip } from "../strips/strip";
import type { Step } from "./step";

const completeNode = (node: ChainNode): ChainNode => completeChain({ ...EMPTY_CHAIN, nodes: [node] }).nodes[0] ?? node;

/** What a step puts in gets a value for every parameter, so that differences and undo see all of it. */
export function completeStep(step: Step): Step {
  switch (step.kind) {
    case "placeNode":
      return step.to ? { ...step, to: { ...step.to, node: completeNode(step.to.node) } } : step;
    case "setNode":
      return { ...step, to: completeNode(step.to) };
    case "setInserts":
      return { ...step, to: completeChain(step.to) };
    case "setSource":
      return { ...step, to: SOURCE.complete(step.to) };
    case "placeStrip":
      return step.to ? { ...step, to: { ...step.to, strip: completeStrip(step.to.strip) } } : step;
    default:
      return step;
  }
}
