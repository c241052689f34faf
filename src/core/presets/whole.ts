import { completeChain, completeProcessor } from "../chains/complete";
import { findChainProblem, findProcessorProblem } from "../chains/problems";
import type { Problem } from "../documents/problem";
import { findNestedInItself } from "../projects/nesting";
import { findStripProblem } from "../strips/problems";
import { aimsOf, completeStrip } from "../strips/strip";
import type { Content, Strips } from "./preset";

/** Of several strips: ids that are used once, and references among them that lead somewhere. */
function findStripsProblem({ strips }: Strips): Problem | null {
  const ids = new Set<string>();
  for (const [at, strip] of strips.entries()) {
    const path = `strips[${at}]`;
    if (ids.has(strip.id)) return { path: `${path}.id`, message: `The id “${strip.id}” is used twice.` };
    ids.add(strip.id);
    const problem = findStripProblem(strip, path);
    if (problem) return problem;
  }
  const nested = findNestedInItself(strips);
  if (nested) return { path: `strips[${strips.indexOf(nested)}]`, message: `${nested.name} stands within itself.` };
  const lost = strips.findIndex((strip) => aimsOf(strip).some((ref) => "strip" in ref && !ids.has(ref.strip)));
  return lost < 0
    ? null
    : { path: `strips[${lost}]`, message: `${strips[lost]!.name} leads to a strip that is not among them.` };
}

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
      return findStripsProblem(content);
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
      return { ...content, strips: content.strips.map(completeStrip) };
  }
}
