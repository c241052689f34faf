import { completeChain, completeProcessor } from "../chains/complete";
import { findChainProblem, findProcessorProblem } from "../chains/problems";
import type { Problem } from "../documents/problem";
import { findStripProblem } from "../strips/problems";
import { completeStrip } from "../strips/strip";
import { type Content, KIND_NAMES } from "./preset";

/** What a schema cannot see. The first problem, null for none. */
export function findContentProblem(content: Content): Problem | null {
  switch (content.kind) {
    case "plugin":
      return findProcessorProblem(content.processor, "processor");
    case "chain":
      return findChainProblem(content.chain, "chain");
    case "strip":
      return findStripProblem(content.strip, "strip");
    case "set":
    case "mix":
      return { path: "kind", message: `A ${KIND_NAMES[content.kind].toLowerCase()} cannot be kept here yet.` };
  }
}

export function completeContent(content: Content): Content {
  switch (content.kind) {
    case "plugin":
      return { ...content, processor: completeProcessor(content.processor) };
    case "chain":
      return { ...content, chain: completeChain(content.chain) };
    case "strip":
      return { ...content, strip: completeStrip(content.strip) };
    case "set":
    case "mix":
      return content;
  }
}
