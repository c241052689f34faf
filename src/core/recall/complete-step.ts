import { type ChainNode, completeChain, completeProcessor } from "../chains/chain";
import { findModel } from "../processors/models";
import { completeStrip } from "../strips/strip";
import type { Step } from "./step";

const completeNode = (node: ChainNode): ChainNode =>
  node.type === "processor" && findModel(node.model) ? completeProcessor(node) : node;

/** What a step puts in gets a value for every parameter, so that differences and undo see all of it. */
export function completeStep(step: Step): Step {
  switch (step.kind) {
    case "placeNode":
      return step.to ? { ...step, to: { ...step.to, node: completeNode(step.to.node) } } : step;
    case "setNode":
      return { ...step, to: completeNode(step.to) };
    case "setInserts":
      return step.to.nodes.every((n) => n.type === "processor" && findModel(n.model))
        ? { ...step, to: completeChain(step.to) }
        : step;
    case "placeStrip":
      return step.to?.strip.inserts.nodes.every((n) => n.type === "processor" && findModel(n.model))
        ? { ...step, to: { ...step.to, strip: completeStrip(step.to.strip) } }
        : step;
    default:
      return step;
  }
}
