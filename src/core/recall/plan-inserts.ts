import equal from "fast-deep-equal";
import {
  type Chain,
  type ChainNode,
  type Macro,
  type Processor,
  cameFrom,
  isOneSound,
  processorName,
} from "../chains/chain";
import { processorsOf, keysIn, mapProcessor, rekeyed } from "../chains/tree";
import { retargeted, withoutLostTargets } from "../chains/macros";
import type { Step } from "./steps";

export const INSERT_MODES = ["replace", "before", "after", "section", "itself", "values"] as const;
/**
 * What happens to the inserts that stand there: `section` changes only sections, as `planSections` says, where a plugin goes last;
 * `itself` changes what came from the same preset, wherever that stands; `values` sets those of the same models and leaves all others.
 */
export type InsertMode = (typeof INSERT_MODES)[number];

/** A place in the inserts of a strip: that of a plugin, or the one behind a node, which may be the first. */
export type Slot = { readonly on: string } | { readonly after: string | null };

interface InsertsInput {
  readonly strip: string;
  readonly now: Chain;
  readonly wanted: Chain;
  /** One plugin rather than a chain: it takes the place of the first of its model, or goes last. */
  readonly single: boolean;
  readonly mode: InsertMode;
  /** The place that it goes to; that comes before any mode. */
  readonly slot?: Slot | undefined;
  readonly mint: () => string;
}

export interface PlannedInserts {
  readonly steps: readonly Step[];
  /** What finds no place, in a sentence each. */
  readonly left: readonly string[];
}

export function planInserts(input: InsertsInput): PlannedInserts {
  const { now, single, mode, slot } = input;
  if (slot) return planAtSlot(input, slot);
  if (mode === "values") return planValues(input);
  if (single && mode === "replace") return planSingle(input);
  if (mode === "replace" || now.nodes.length === 0) {
    if (single) return planPlaced(input, null);
    return { steps: planReplaced(input), left: [] };
  }
  return planPlaced(input, mode === "before" ? null : (now.nodes.at(-1)?.key ?? null));
}

const blank = ({ strip, mint }: InsertsInput) => ({ id: mint(), strip });

const asWhole = (input: InsertsInput): Step => ({
  ...blank(input),
  kind: "setChain",
  from: input.now,
  to: input.wanted,
});

/**
 * One chain in the place of another. Where both are the same preset and the same plugins stand in the same order, only what differs
 * is changed, so that the plan tells it value by value.
 */
function planReplaced(input: InsertsInput): readonly Step[] {
  const { now, wanted } = input;
  if (equal(now, wanted)) return [];
  if ((now.from || wanted.from) && !cameFrom(now.from, wanted.from)) return [asWhole(input)];
  const partners = new Map(processorsOf(wanted).map((p) => [p.key, p]));
  const pairs = processorsOf(now).flatMap((standing) => {
    const partner = partners.get(standing.key);
    return partner?.model === standing.model ? [[standing, partner] as const] : [];
  });
  const turned = pairs.reduce(
    (chain, [{ key }, { values, enabled }]) => mapProcessor(chain, key, (p) => ({ ...p, values, enabled })),
    now,
  );
  if (!equal(turned.nodes, wanted.nodes)) return [asWhole(input)];
  const steps: Step[] = pairs.flatMap(([standing, partner]) => [...valueSteps(input, standing, partner)]);
  if (!equal(now.macros, wanted.macros))
    steps.push({ ...blank(input), kind: "setMacros", from: now.macros, to: wanted.macros });
  const [from, to] = [now.from ?? null, wanted.from ?? null];
  if (!equal(from, to)) steps.push({ ...blank(input), kind: "setFrom", from, to });
  return steps;
}

/** The nodes of a chain, and its macros, under keys that the other chain does not use. */
function freshOf(input: InsertsInput): { readonly nodes: readonly ChainNode[]; readonly macros: readonly Macro[] } {
  const used = new Set([...input.now.nodes.flatMap(keysIn), ...input.now.macros.map((m) => m.key)]);
  const renamed = new Map<string, string>();
  const nodes = input.wanted.nodes.map((node) => {
    if (!keysIn(node).some((key) => used.has(key))) return node;
    const copy = rekeyed(node, input.mint);
    for (const [from, to] of copy.keys) renamed.set(from, to);
    return copy.node;
  });
  const macros = input.wanted.macros.map((macro) => ({
    ...retargeted(macro, renamed),
    key: used.has(macro.key) ? input.mint() : macro.key,
  }));
  return { nodes, macros };
}

function planPlaced(input: InsertsInput, behind: string | null): PlannedInserts {
  let after = behind;
  const { nodes, macros } = freshOf(input);
  const steps = nodes.map((node): Step => {
    const step: Step = { ...blank(input), kind: "placeNode", node: node.key, from: null, to: { node, after } };
    after = node.key;
    return step;
  });
  if (macros.length === 0) return { steps, left: [] };
  const from = input.now.macros;
  const added: Step = { ...blank(input), kind: "setMacros", from, to: [...from, ...macros] };
  return { steps: [...steps, added], left: [] };
}

/** The plugin that came from the same preset, else the first of the same model, keeps its place and its key. */
function planSingle(input: InsertsInput): PlannedInserts {
  const [wanted] = processorsOf(input.wanted);
  const alike = processorsOf(input.now).filter((p) => p.model === wanted?.model);
  const own = alike.find(({ from }) => isOneSound(from, wanted?.from));
  const standing = own ?? alike[0];
  if (!wanted || !standing) return planPlaced(input, input.now.nodes.at(-1)?.key ?? null);
  const to = { ...wanted, key: standing.key };
  return {
    steps: equal(standing, to) ? [] : [{ ...blank(input), kind: "setNode", node: to.key, from: standing, to }],
    left: [],
  };
}

/** On a plugin it takes the place of that, one for one; several stand behind it. Between plugins it goes there. */
function planAtSlot(input: InsertsInput, slot: Slot): PlannedInserts {
  if ("after" in slot) {
    const isHere = slot.after === null || input.now.nodes.some(({ key }) => key === slot.after);
    return isHere
      ? planPlaced(input, slot.after)
      : { steps: [], left: ["The place that it was meant for is not here any more."] };
  }
  const wanted = processorsOf(input.wanted);
  const standing = processorsOf(input.now).find(({ key }) => key === slot.on);
  if (!standing) return { steps: [], left: ["The plugin that it was meant for is not here any more."] };
  const [only, ...others] = wanted;
  if (!only || others.length > 0 || input.wanted.nodes[0] !== only)
    return planPlaced(input, input.now.nodes.find((node) => keysIn(node).includes(slot.on))?.key ?? null);
  return planInPlace(input, standing, { ...only, key: standing.key });
}

/** One plugin in the place of another; macros let go of what the other does not have. */
function planInPlace(input: InsertsInput, standing: Processor, to: Processor): PlannedInserts {
  if (equal(standing, to)) return { steps: [], left: [] };
  const { macros, lost } = withoutLostTargets(mapProcessor(input.now, standing.key, () => to));
  const from = input.now.macros;
  const released: Step[] = lost === 0 ? [] : [{ ...blank(input), kind: "setMacros", from, to: [...macros] }];
  const words = `${processorName(to)} has not all that macros moved on ${processorName(standing)}; they let go of ${lost}.`;
  return {
    steps: [...released, { ...blank(input), kind: "setNode", node: to.key, from: standing, to }],
    left: lost === 0 ? [] : [words],
  };
}

/** Pairs plugins of the same model in order; no plugin comes, goes or moves. */
function planValues(input: InsertsInput): PlannedInserts {
  const free = [...processorsOf(input.now)];
  const steps: Step[] = [];
  const left: string[] = [];
  for (const wanted of processorsOf(input.wanted)) {
    const at = free.findIndex((p) => p.model === wanted.model);
    const [standing] = at < 0 ? [] : free.splice(at, 1);
    if (standing) steps.push(...valueSteps(input, standing, wanted));
    else left.push(`${processorName(wanted)} has no partner here; its values are left out.`);
  }
  return {
    steps,
    left: [...left, ...free.map((p) => `${processorName(p)} stays as it is; the source has no such plugin.`)],
  };
}

function valueSteps(input: InsertsInput, standing: Processor, wanted: Processor): readonly Step[] {
  const node = standing.key;
  const steps: Step[] = [];
  for (const [param, to] of Object.entries(wanted.values)) {
    const from = standing.values[param];
    if (from !== undefined && !equal(from, to))
      steps.push({ ...blank(input), kind: "setValue", node, param, from, to });
  }
  if (standing.enabled !== wanted.enabled)
    steps.push({ ...blank(input), kind: "setEnabled", node, from: standing.enabled, to: wanted.enabled });
  return steps;
}
