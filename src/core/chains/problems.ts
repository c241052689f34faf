import { MOST_NODES } from "../documents/limits";
import type { Problem } from "../documents/problem";
import { findFault, findSpec } from "../processors/model";
import { findModel } from "../processors/models";
import type { Chain, Processor, Split } from "./chain";
import { findTargetProblem } from "./macros";
import { type Nodes, isTooLong } from "./tree";

/**
 * What a schema cannot see: models and parameters that exist, values within their range, keys that are used once, nodes
 * where they may stand, macros that have a name for each axis. The first problem, null for none.
 */
export function findChainProblem(chain: Chain, path: string): Problem | null {
  if (isTooLong(chain.nodes))
    return { path: `${path}.nodes`, message: `A chain holds ${MOST_NODES} plugins, sections and splits at the most.` };
  return findNodesProblem(chain.nodes, path, new Set()) ?? findMacrosProblem(chain, path);
}

function findNodesProblem(nodes: Nodes, path: string, keys: Set<string>): Problem | null {
  const taken = (key: string, here: string): Problem | null => {
    if (keys.has(key)) return { path: `${here}.key`, message: `The key “${key}” is used twice.` };
    keys.add(key);
    return null;
  };
  for (const [at, node] of nodes.entries()) {
    const here = `${path}.nodes[${at}]`;
    const problem =
      taken(node.key, here) ??
      (node.type === "processor" ? (findProcessorProblem(node, here) ?? findPlayedProblem(node, here)) : null) ??
      (node.type === "section" ? findNodesProblem(node.nodes, here, keys) : null) ??
      (node.type === "split" ? findSplitProblem(node, here, keys) : null);
    if (problem) return problem;
  }
  return null;

  function findSplitProblem({ by, lanes }: Split, here: string, seen: Set<string>): Problem | null {
    if (by.way === "bands") {
      if (by.crossovers.length !== lanes.length - 1)
        return { path: `${here}.by.crossovers`, message: `${lanes.length} bands have ${lanes.length - 1} crossovers.` };
      if (by.crossovers.some((hz, at) => at > 0 && hz <= by.crossovers[at - 1]!))
        return { path: `${here}.by.crossovers`, message: "Crossovers rise from band to band." };
    }
    for (const [at, lane] of lanes.entries()) {
      const inLane = `${here}.lanes[${at}]`;
      const problem = taken(lane.key, inLane) ?? findNodesProblem(lane.nodes, inLane, seen);
      if (problem) return problem;
    }
    return null;
  }
}

const findPlayedProblem = ({ model }: Processor, path: string): Problem | null =>
  findModel(model)?.family === "instrument"
    ? { path: `${path}.model`, message: "An instrument plays in the source of a strip, not in a chain." }
    : null;

/** What a macro points at must be there, and be something that can be moved. */
function findMacrosProblem(chain: Chain, path: string): Problem | null {
  const keys = new Set<string>();
  for (const [at, macro] of chain.macros.entries()) {
    const here = `${path}.macros[${at}]`;
    if (keys.has(macro.key)) return { path: `${here}.key`, message: `The key “${macro.key}” is used twice.` };
    keys.add(macro.key);
    if (macro.axes.length !== (macro.style === "pad" ? 2 : 1))
      return { path: `${here}.axes`, message: "A pad has two axes, a line or a switch one." };
    for (const [axis, targets] of macro.axes.entries())
      for (const [n, target] of targets.entries()) {
        const problem = findTargetProblem(chain, target);
        if (problem) return { path: `${here}.axes[${axis}][${n}]`, message: problem };
      }
  }
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
