import equal from "fast-deep-equal";
import { type Chain, type ChainNode, type Processor, findProcessor, mapProcessor } from "../chains/chain";
import { type Project, findStrip } from "../projects/project";
import { type Result, fail, ok, unreachable } from "../result";
import type { Strip } from "../strips/strip";
import type { Step, StepOf } from "./step";

/** Why a step cannot be taken: nothing of its list was. */
export interface StepRefused {
  readonly step: Step;
  readonly reason: string;
}

type Change<T> = Result<T, string>;

/**
 * Applies steps in order, all or none. Every `from` must be what stands there, so that the inverse puts back what was.
 * What no step touches stays the same object.
 */
export function applySteps(project: Project, steps: readonly Step[]): Result<Project, StepRefused> {
  let now = project;
  for (const step of steps) {
    const changed = applyStep(now, step);
    if (!changed.ok) return fail({ step, reason: changed.error });
    now = changed.value;
  }
  return ok(now);
}

function applyStep(project: Project, step: Step): Change<Project> {
  if (step.kind === "placeStrip") return placeStrip(project, step);
  if (step.kind === "setTempo")
    return project.tempo === step.from
      ? ok({ ...project, tempo: step.to })
      : fail(`The tempo is ${project.tempo}, not ${step.from}.`);
  const strip = step.cell.strip === null ? null : findStrip(project, step.cell.strip);
  if (!strip) return fail(`The strip “${step.cell.strip ?? ""}” is not here.`);
  const changed = applyToStrip(strip, step);
  if (!changed.ok) return fail(`${strip.look.name}: ${changed.error}`);
  return ok({ ...project, strips: project.strips.map((s) => (s === strip ? changed.value : s)) });
}

type StripStep = Exclude<Step, { kind: "placeStrip" | "setTempo" }>;

function applyToStrip(strip: Strip, step: StripStep): Change<Strip> {
  switch (step.kind) {
    case "setLevel":
      return equal(strip.level, step.from) ? ok({ ...strip, level: step.to }) : fail("the level has changed since.");
    case "setPan":
      return equal(strip.pan, step.from) ? ok({ ...strip, pan: step.to }) : fail("the pan has changed since.");
    case "setRouting":
      return equal(strip.routing, step.from)
        ? ok({ ...strip, routing: step.to })
        : fail("the output has changed since.");
    case "setLook":
      return equal(strip.look, step.from) ? ok({ ...strip, look: step.to }) : fail("the look has changed since.");
    default: {
      const inserts = applyToChain(strip.inserts, step);
      return inserts.ok ? ok({ ...strip, inserts: inserts.value }) : inserts;
    }
  }
}

type ChainStep = Exclude<StripStep, { kind: "setLevel" | "setPan" | "setRouting" | "setLook" }>;

function applyToChain(chain: Chain, step: ChainStep): Change<Chain> {
  switch (step.kind) {
    case "setInserts":
      return equal(chain, step.from) ? ok(step.to) : fail("the inserts have changed since.");
    case "setFrom":
      return setFrom(chain, step);
    case "placeNode":
      return placeNode(chain, step);
    case "moveNode":
      return moveNode(chain, step);
    case "setNode":
      return setNode(chain, step);
    case "setValue":
    case "setEnabled":
    case "setLabel":
      return changeProcessor(chain, step);
    default:
      return unreachable(step);
  }
}

const setFrom = (chain: Chain, { from, to }: StepOf<"setFrom">): Change<Chain> =>
  equal(chain.from ?? null, from) ? ok(setOrDrop(chain, "from", to)) : fail("the origin has changed since.");

const setNode = (chain: Chain, { node, from, to }: StepOf<"setNode">): Change<Chain> =>
  chain.nodes.some((n) => n.key === node && equal(n, from))
    ? ok({ ...chain, nodes: chain.nodes.map((n) => (n.key === node ? to : n)) })
    : fail("the plugin has changed since.");

/** An optional field is absent, never undefined. */
function setOrDrop<T extends object, K extends keyof T>(record: T, field: K, value: T[K] | null): T {
  if (value !== null) return { ...record, [field]: value };
  const { [field]: _, ...rest } = record;
  return rest as T;
}

function changeProcessor(chain: Chain, step: StepOf<"setValue" | "setEnabled" | "setLabel">): Change<Chain> {
  const processor = findProcessor(chain, step.node);
  if (!processor) return fail(`the plugin “${step.node}” is not here.`);
  const changed = processorAfter(processor, step);
  return changed ? ok(mapProcessor(chain, step.node, () => changed)) : fail("the value has changed since.");
}

/** null when `from` is not what stands there. */
function processorAfter(processor: Processor, step: StepOf<"setValue" | "setEnabled" | "setLabel">): Processor | null {
  switch (step.kind) {
    case "setValue":
      return equal(processor.values[step.param], step.from)
        ? { ...processor, values: { ...processor.values, [step.param]: step.to } }
        : null;
    case "setEnabled":
      return processor.enabled === step.from ? { ...processor, enabled: step.to } : null;
    case "setLabel":
      return (processor.label ?? null) === step.from ? setOrDrop(processor, "label", step.to) : null;
  }
}

const placeBehind = <T>(list: readonly T[], at: number, item: T): T[] => [
  ...list.slice(0, at + 1),
  item,
  ...list.slice(at + 1),
];

/** The place of what stands before: −1 for the first place, null where it is not here. */
function placeOf(keys: readonly string[], after: string | null): number | null {
  if (after === null) return -1;
  const at = keys.indexOf(after);
  return at < 0 ? null : at;
}

const keysOf = (nodes: readonly ChainNode[]) => nodes.map((n) => n.key);

function takeNode(chain: Chain, key: string, after: string | null): Change<{ node: ChainNode; nodes: ChainNode[] }> {
  const at = keysOf(chain.nodes).indexOf(key);
  const node = chain.nodes[at];
  if (!node) return fail(`the plugin “${key}” is not here.`);
  if ((chain.nodes[at - 1]?.key ?? null) !== after) return fail("the plugin stands elsewhere now.");
  return ok({ node, nodes: chain.nodes.filter((n) => n !== node) });
}

function putNode(chain: Chain, nodes: readonly ChainNode[], node: ChainNode, after: string | null): Change<Chain> {
  if (keysOf(nodes).includes(node.key)) return fail(`the key “${node.key}” is used already.`);
  const place = placeOf(keysOf(nodes), after);
  return place === null
    ? fail(`the plugin “${after ?? ""}” is not here.`)
    : ok({ ...chain, nodes: placeBehind(nodes, place, node) });
}

function placeNode(chain: Chain, { node: key, from, to }: StepOf<"placeNode">): Change<Chain> {
  let nodes: readonly ChainNode[] = chain.nodes;
  if (from) {
    const taken = takeNode(chain, key, from.after);
    if (!taken.ok) return taken;
    if (!equal(taken.value.node, from.node)) return fail("the plugin has changed since.");
    nodes = taken.value.nodes;
  }
  if (!to) return ok({ ...chain, nodes: [...nodes] });
  if (to.node.key !== key) return fail(`the step is for “${key}” and places “${to.node.key}”.`);
  return putNode(chain, nodes, to.node, to.after);
}

function moveNode(chain: Chain, { node: key, from, to }: StepOf<"moveNode">): Change<Chain> {
  const taken = takeNode(chain, key, from.after);
  return taken.ok ? putNode(chain, taken.value.nodes, taken.value.node, to.after) : taken;
}

function placeStrip(project: Project, { cell, from, to }: StepOf<"placeStrip">): Change<Project> {
  let strips: readonly Strip[] = project.strips;
  if (from) {
    const at = strips.findIndex((s) => s.id === cell.strip);
    if (!equal(strips[at], from.strip)) return fail(`The strip “${from.strip.look.name}” has changed since.`);
    if ((strips[at - 1]?.id ?? null) !== from.after)
      return fail(`The strip “${from.strip.look.name}” stands elsewhere now.`);
    strips = strips.filter((s) => s.id !== cell.strip);
  }
  if (!to) return ok({ ...project, strips: [...strips] });
  if (to.strip.id !== cell.strip) return fail(`The step is for “${cell.strip ?? ""}” and places “${to.strip.id}”.`);
  const ids = strips.map((s) => s.id);
  if (ids.includes(to.strip.id)) return fail(`The id “${to.strip.id}” is used already.`);
  const place = placeOf(ids, to.after);
  return place === null
    ? fail(`The strip “${to.after ?? ""}” is not here.`)
    : ok({ ...project, strips: placeBehind(strips, place, to.strip) });
}
