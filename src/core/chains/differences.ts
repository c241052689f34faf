import type { PanLaw } from "../dsp/pan";
import equal from "fast-deep-equal";
import { counted } from "../names/count";
import type { ParamId, Value } from "../units/param-spec";
import type { Chain, ChainNode, PresetRef, Lane, Processor } from "./chain";
import { mapProcessor, processorsOf, lanesOf, nodesIn, panLawOf } from "./tree";

/** One way in which a chain is not as it was saved. */
export type Difference =
  | {
      readonly kind: "value";
      readonly processor: string;
      readonly param: ParamId;
      readonly from: Value;
      readonly to: Value;
    }
  | { readonly kind: "enabled"; readonly processor: string; readonly from: boolean; readonly to: boolean }
  | { readonly kind: "added"; readonly processor: Processor }
  | { readonly kind: "removed"; readonly processor: Processor }
  | {
      readonly kind: "lane";
      readonly lane: string;
      readonly setting: LaneSetting;
      readonly from: number | boolean | PanLaw;
      readonly to: number | boolean | PanLaw;
    }
  | { readonly kind: "section"; readonly section: string; readonly from: boolean; readonly to: boolean }
  | { readonly kind: "macros" }
  | { readonly kind: "order" };

const LANE_SETTINGS = ["enabled", "level", "pan", "panLaw"] as const;
export type LaneSetting = (typeof LANE_SETTINGS)[number];

const settingOf = (lane: Lane, setting: LaneSetting): number | boolean | PanLaw =>
  setting === "panLaw" ? panLawOf(lane) : lane[setting];

/** Pairs by key, then what is left by model in order. A processor whose model changed is another processor. */
function pairUp(saved: readonly Processor[], now: readonly Processor[]): Map<Processor, Processor> {
  const pairs = new Map<Processor, Processor>();
  const free = new Set(saved);
  const take = (p: Processor, match: (s: Processor) => boolean) => {
    const partner = [...free].find(match);
    if (!partner) return;
    free.delete(partner);
    pairs.set(p, partner);
  };
  for (const p of now) take(p, (s) => s.key === p.key && s.model === p.model);
  for (const p of now) if (!pairs.has(p)) take(p, (s) => s.model === p.model);
  return pairs;
}

/** What one plugin differs by from how it was saved. */
export function processorDifferences(saved: Processor, now: Processor): readonly Difference[] {
  const differences: Difference[] = [];
  if (saved.enabled !== now.enabled)
    differences.push({ kind: "enabled", processor: now.key, from: saved.enabled, to: now.enabled });
  for (const [param, to] of Object.entries(now.values)) {
    const from = saved.values[param];
    if (from !== undefined && !equal(from, to))
      differences.push({ kind: "value", processor: now.key, param, from, to });
  }
  return differences;
}

/** The saved processor that each one of the chain stands for, by the key that it has now. */
export const partnersOf = (saved: Chain, now: Chain): ReadonlyMap<string, Processor> =>
  new Map([...pairUp(processorsOf(saved), processorsOf(now))].map(([p, partner]) => [p.key, partner]));

/** How the nodes stand to each other, by the keys that they have in the saved chain; `only` those that both have. */
function wiringOf(nodes: readonly ChainNode[], nameOf: (processor: Processor) => string | null): unknown {
  return nodes.flatMap((node): unknown[] => {
    switch (node.type) {
      case "processor":
        return [nameOf(node)].filter((name) => name !== null);
      case "section":
        return [{ section: node.key, nodes: wiringOf(node.nodes, nameOf) }];
      case "split":
        return [
          { split: node.by, lanes: node.lanes.map((lane) => ({ key: lane.key, nodes: wiringOf(lane.nodes, nameOf) })) },
        ];
    }
  });
}

const inLanes = (saved: readonly Lane[], now: readonly Lane[]): readonly Difference[] =>
  now.flatMap((lane) => {
    const partner = saved.find((l) => l.key === lane.key);
    return LANE_SETTINGS.flatMap((setting): Difference[] =>
      partner && settingOf(partner, setting) !== settingOf(lane, setting)
        ? [{ kind: "lane", lane: lane.key, setting, from: settingOf(partner, setting), to: settingOf(lane, setting) }]
        : [],
    );
  });

function inSections(saved: Chain, now: Chain): readonly Difference[] {
  const before = new Map(nodesIn(saved.nodes).map((node) => [node.key, node]));
  return nodesIn(now.nodes).flatMap((node): Difference[] => {
    const partner = before.get(node.key);
    return node.type === "section" && partner?.type === "section" && partner.enabled !== node.enabled
      ? [{ kind: "section", section: node.key, from: partner.enabled, to: node.enabled }]
      : [];
  });
}

/** All that a chain differs by from its saved state, in the order of the chain. `from` is saved, `to` is now. */
export function differencesOf(saved: Chain, now: Chain): readonly Difference[] {
  const before = processorsOf(saved);
  const after = processorsOf(now);
  const pairs = pairUp(before, after);
  const kept = new Set(pairs.values());
  const wiring = {
    saved: wiringOf(saved.nodes, (p) => (kept.has(p) ? p.key : null)),
    now: wiringOf(now.nodes, (p) => pairs.get(p)?.key ?? null),
  };
  return [
    ...after.flatMap((p): Difference[] => {
      const partner = pairs.get(p);
      return partner ? [...processorDifferences(partner, p)] : [{ kind: "added", processor: p }];
    }),
    ...before.filter((p) => !kept.has(p)).map((processor): Difference => ({ kind: "removed", processor })),
    ...inSections(saved, now),
    ...inLanes(lanesOf(saved), lanesOf(now)),
    ...(equal(wiring.saved, wiring.now) ? [] : [{ kind: "order" } as const]),
    ...(equal(saved.macros, now.macros) ? [] : [{ kind: "macros" } as const]),
  ];
}

/**
 * The chain with each plugin as its own preset has it, for a chain that was never saved as a whole. `find` gives the saved
 * plugin, null while it is not known; plugins without a preset, or of another model by now, stay as they are.
 */
export function asInPluginPresets(chain: Chain, find: (from: PresetRef) => Processor | null): Chain {
  return processorsOf(chain).reduce((saved, { key, model, from }) => {
    const partner = from ? find(from) : null;
    if (partner?.model !== model) return saved;
    const { values, enabled } = partner;
    return mapProcessor(saved, key, (p) => ({ ...p, values, enabled }));
  }, chain);
}

function wordsOf(differences: readonly Difference[]): readonly { readonly text: string; readonly isOne: boolean }[] {
  const count = (kinds: readonly Difference["kind"][]) => differences.filter((d) => kinds.includes(d.kind)).length;
  const plugins = count(["added", "removed"]);
  const values = count(["value", "enabled", "lane", "section"]);
  return [
    plugins > 0 ? { text: counted(plugins, "plugin"), isOne: plugins === 1 } : null,
    values > 0 ? { text: counted(values, "value"), isOne: values === 1 } : null,
    count(["order"]) > 0 ? { text: "the order", isOne: true } : null,
    count(["macros"]) > 0 ? { text: "the macros", isOne: false } : null,
  ].filter((word) => word !== null);
}

/** "3 values", "1 plugin and 2 values"; "nothing" for no difference. */
export function describeDifferences(differences: readonly Difference[]): string {
  const words = wordsOf(differences);
  return words.length === 0 ? "nothing" : words.map(({ text }) => text).join(" and ");
}

/** "1 value differs", "the macros differ"; "nothing differs" for no difference. */
export function sayDifferences(differences: readonly Difference[]): string {
  const [first, ...others] = wordsOf(differences);
  const isOne = others.length === 0 && first?.isOne !== false;
  return `${describeDifferences(differences)} ${isOne ? "differs" : "differ"}`;
}
