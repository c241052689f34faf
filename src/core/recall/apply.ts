import equal from "fast-deep-equal";
import type { Chain, ChainNode, Lane, Processor } from "../chains/chain";
import {
  findProcessor,
  mapProcessor,
  findLane,
  findList,
  findMisplaced,
  findNode,
  isTooLong,
  keysIn,
  mapLane,
  mapNode,
  withNode,
  withoutNode,
} from "../chains/tree";

import { MOST_NODES, MOST_STRIPS } from "../documents/limits";
import { type Project, findStrip } from "../projects/project";
import { type Result, fail, ok, unreachable } from "../result";
import { type Strip, chainAt } from "../strips/strip";
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

/** The parts that a step sets as a whole, and what they are called when they have changed. */
const WHOLE_PARTS = {
  setLevel: ["level", "the level"],
  setPan: ["pan", "the pan"],
  setRouting: ["routing", "the output"],
  setLook: ["look", "the look"],
  setSource: ["source", "the source"],
} as const;

type WholeStep = Extract<StripStep, { kind: keyof typeof WHOLE_PARTS }>;

const isWhole = (step: StripStep): step is WholeStep => step.kind in WHOLE_PARTS;

function applyToStrip(strip: Strip, step: StripStep): Change<Strip> {
  if (isWhole(step)) {
    const [part, name] = WHOLE_PARTS[step.kind];
    return equal(strip[part], step.from) ? ok({ ...strip, [part]: step.to }) : fail(`${name} has changed since.`);
  }
  const changed = applyToChain(chainAt(strip, step.cell) ?? strip.inserts, step);
  return changed.ok ? withChainAt(strip, step.cell, changed.value) : changed;
}

type ChainStep = Exclude<StripStep, WholeStep>;

function withChainAt(strip: Strip, { part, layer }: Step["cell"], chain: Chain): Change<Strip> {
  if (part !== "effects") return ok({ ...strip, inserts: chain });
  const { source } = strip;
  if (source.type !== "layers" || !source.layers.some((l) => l.key === layer)) return fail("the layer is not here.");
  const layers = source.layers.map((l) => (l.key === layer ? { ...l, effects: chain } : l));
  return ok({ ...strip, source: { ...source, layers } });
}

function applyToChain(chain: Chain, step: ChainStep): Change<Chain> {
  switch (step.kind) {
    case "setInserts":
      return setInserts(chain, step);
    case "setFrom":
      return setFrom(chain, step);
    case "placeNode":
      return placeNode(chain, step);
    case "moveNode":
      return moveNode(chain, step);
    case "setNode":
      return setNode(chain, step);
    case "setValue":
    case "setKeyInput":
      return changeProcessor(chain, step);
    case "setEnabled":
      return setEnabled(chain, step);
    case "setLabel":
      return setLabel(chain, step);
    case "setLane":
      return setLane(chain, step);
    case "setMacros":
      return setMacros(chain, step);
    default:
      return unreachable(step);
  }
}

const setInserts = (chain: Chain, { from, to }: StepOf<"setInserts">): Change<Chain> =>
  equal(chain, from) ? ok(to) : fail("the inserts have changed since.");

const setMacros = (chain: Chain, { from, to }: StepOf<"setMacros">): Change<Chain> =>
  equal(chain.macros, from) ? ok({ ...chain, macros: to }) : fail("the macros have changed since.");

const setFrom = (chain: Chain, { from, to }: StepOf<"setFrom">): Change<Chain> =>
  equal(chain.from ?? null, from) ? ok(setOrDrop(chain, "from", to)) : fail("the origin has changed since.");

function setNode(chain: Chain, { node, from, to }: StepOf<"setNode">): Change<Chain> {
  const found = findNode(chain, node);
  if (!found || !equal(found.node, from)) return fail("the plugin has changed since.");
  const misplaced = findMisplaced(chain, to, found.place.within);
  return misplaced ? fail(misplaced) : ok(mapNode(chain, node, () => to));
}

/** An optional field is absent, never undefined. */
function setOrDrop<T extends object, K extends keyof T>(record: T, field: K, value: T[K] | null): T {
  if (value !== null) return { ...record, [field]: value };
  const { [field]: _, ...rest } = record;
  return rest as T;
}

function changeProcessor(chain: Chain, step: StepOf<"setValue" | "setKeyInput">): Change<Chain> {
  const processor = findProcessor(chain, step.node);
  if (!processor) return fail(`the plugin “${step.node}” is not here.`);
  const changed = processorAfter(processor, step);
  return changed ? ok(mapProcessor(chain, step.node, () => changed)) : fail("the value has changed since.");
}

/** null when `from` is not what stands there. */
function processorAfter(processor: Processor, step: StepOf<"setValue" | "setKeyInput">): Processor | null {
  if (step.kind === "setKeyInput")
    return equal(processor.keyInput ?? null, step.from) ? setOrDrop(processor, "keyInput", step.to) : null;
  return equal(processor.values[step.param], step.from)
    ? { ...processor, values: { ...processor.values, [step.param]: step.to } }
    : null;
}

/** Of a plugin, a section or a lane. */
function setEnabled(chain: Chain, { node: key, from, to }: StepOf<"setEnabled">): Change<Chain> {
  const thing = findNode(chain, key)?.node ?? findLane(chain, key);
  if (!thing || !("enabled" in thing)) return fail(`there is nothing called “${key}” to switch.`);
  if (thing.enabled !== from) return fail("the value has changed since.");
  return ok(
    "type" in thing
      ? mapNode(chain, key, (node) => ("enabled" in node ? { ...node, enabled: to } : node))
      : mapLane(chain, key, (lane) => ({ ...lane, enabled: to })),
  );
}

/** Of a plugin, whose model's name shows where it has none, or of a section, which always has one. */
function setLabel(chain: Chain, { node: key, from, to }: StepOf<"setLabel">): Change<Chain> {
  const node = findNode(chain, key)?.node;
  if (!node || node.type === "split") return fail(`the plugin “${key}” is not here.`);
  const standing = node.type === "section" ? node.name : (node.label ?? null);
  if (standing !== from) return fail("the value has changed since.");
  if (node.type === "processor") return ok(mapNode(chain, key, () => setOrDrop(node, "label", to)));
  return to === null ? fail("a section has a name.") : ok(mapNode(chain, key, () => ({ ...node, name: to })));
}

function setLane(chain: Chain, { node: key, from, to }: StepOf<"setLane">): Change<Chain> {
  const lane = findLane(chain, key);
  if (!lane) return fail(`the lane “${key}” is not here.`);
  if (!equal(settingsOf(lane), from)) return fail("the lane has changed since.");
  return ok(mapLane(chain, key, (standing) => ({ ...standing, ...to })));
}

const settingsOf = ({ name, enabled, level, pan }: Lane) => ({ name, enabled, level, pan });

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

type PlaceInStep = NonNullable<StepOf<"moveNode">["from"]>;
const placeIn = ({ after, within }: PlaceInStep) => ({ after, within: within ?? null });

function takeNode(chain: Chain, key: string, from: PlaceInStep): Change<{ node: ChainNode; rest: Chain }> {
  const found = findNode(chain, key);
  if (!found) return fail(`the plugin “${key}” is not here.`);
  if (!equal(found.place, placeIn(from))) return fail("the plugin stands elsewhere now.");
  return ok({ node: found.node, rest: withoutNode(chain, key) });
}

function putNode(chain: Chain, node: ChainNode, to: PlaceInStep): Change<Chain> {
  const place = placeIn(to);
  if (isTooLong([...chain.nodes, node])) return fail(`a chain holds ${MOST_NODES} plugins at the most.`);
  const used = new Set(chain.nodes.flatMap(keysIn));
  const twice = keysIn(node).find((key) => used.has(key));
  if (twice !== undefined) return fail(`the key “${twice}” is used already.`);
  const misplaced = findMisplaced(chain, node, place.within);
  if (misplaced) return fail(misplaced);
  if (place.after !== null && !findList(chain, place.within)?.some((n) => n.key === place.after))
    return fail(`the plugin “${place.after}” is not here.`);
  return ok(withNode(chain, node, place));
}

function placeNode(chain: Chain, { node: key, from, to }: StepOf<"placeNode">): Change<Chain> {
  let rest = chain;
  if (from) {
    const taken = takeNode(chain, key, from);
    if (!taken.ok) return taken;
    if (!equal(taken.value.node, from.node)) return fail("the plugin has changed since.");
    rest = taken.value.rest;
  }
  if (!to) return ok(rest);
  if (to.node.key !== key) return fail(`the step is for “${key}” and places “${to.node.key}”.`);
  return putNode(rest, to.node, to);
}

function moveNode(chain: Chain, { node: key, from, to }: StepOf<"moveNode">): Change<Chain> {
  const taken = takeNode(chain, key, from);
  return taken.ok ? putNode(taken.value.rest, taken.value.node, to) : taken;
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
  return putStrip(project, strips, to);
}

function putStrip(project: Project, strips: readonly Strip[], to: NonNullable<StepOf<"placeStrip">["to"]>) {
  const ids = strips.map((s) => s.id);
  if (ids.length >= MOST_STRIPS) return fail(`A project has ${MOST_STRIPS} strips at the most.`);
  if (ids.includes(to.strip.id)) return fail(`The id “${to.strip.id}” is used already.`);
  const place = placeOf(ids, to.after);
  return place === null
    ? fail(`The strip “${to.after ?? ""}” is not here.`)
    : ok({ ...project, strips: placeBehind(strips, place, to.strip) });
}
