import { type Processor, processorName } from "../chains/chain";
import { findList, findNode, processorsOf } from "../chains/tree";
import { type Family, FAMILIES, FAMILY_NAMES, type Model } from "../processors/model";
import { findModel } from "../processors/models";
import { ledgerOrder } from "../projects/nesting";
import type { Project } from "../projects/project";
import type { Relief, RelievedPlugin } from "../projects/reliefs";
import { type Hand, switchOn, takeOut } from "../recall/gestures";
import type { Step } from "../recall/steps";
import { chainAt, stripName, type Strip } from "../strips/strip";
import { layersOf } from "../strips/layers";

/*
 * What was needed while recording, and is in the way of the mix, is relieved together: switched off or taken out over many strips in one
 * change, which remembers what it takes to put all of it back later.
 */

/** A plugin on a strip, or within a layer of its instrument. */
export interface PluginAt {
  readonly strip: Strip;
  readonly layer?: string;
  readonly processor: Processor;
}

/** Which plugin it is, wherever it stands. */
export const pluginId = ({ strip, layer, processor }: PluginAt): string =>
  JSON.stringify([strip.id, layer, processor.key]);

/** Every plugin of some strips, in the order of the ledger; an instrument itself is none. */
export const pluginsOn = (project: Project, strips: readonly string[]): readonly PluginAt[] => {
  const chosen = new Set(strips);
  return ledgerOrder(project)
    .filter(({ id }) => chosen.has(id))
    .flatMap((strip): readonly PluginAt[] => [
      ...processorsOf(strip.inserts).map((processor) => ({ strip, processor })),
      ...layersOf(strip).flatMap(({ key, effects }) =>
        processorsOf(effects).map((processor) => ({ strip, layer: key, processor })),
      ),
    ]);
};

/** What is relieved together. */
export interface ReliefGroup {
  /** "family dynamics", "compressors", "model vca-compressor". */
  readonly id: string;
  /** "Dynamics", "Compressors", the name of a model. */
  readonly title: string;
  readonly plugins: readonly PluginAt[];
}

/** Turns down what is loud, and lets more through than a limiter: what is put on while recording. */
const isCompressor = (model: Model): boolean => model.holdsLevels && !model.limits;

function groupOf(
  id: string,
  title: string,
  all: readonly PluginAt[],
  holds: (model: Model) => boolean,
): readonly ReliefGroup[] {
  const plugins = all.filter(({ processor }) => {
    const model = findModel(processor.model);
    return model !== null && holds(model);
  });
  return plugins.length > 0 ? [{ id, title, plugins }] : [];
}

/** What can be relieved of some plugins: compressors, families, then single models by name. A plugin stands in each group that it is of. */
export function reliefGroups(plugins: readonly PluginAt[]): readonly ReliefGroup[] {
  const models = new Map(plugins.flatMap(({ processor: { model } }) => [[model, findModel(model)] as const]));
  return [
    ...groupOf("compressors", "Compressors", plugins, isCompressor),
    ...FAMILIES.flatMap((family: Family) =>
      groupOf(`family ${family}`, FAMILY_NAMES[family], plugins, (model) => model.family === family),
    ),
    ...[...models.values()]
      .flatMap((model) => model ?? [])
      .toSorted((a, b) => a.name.localeCompare(b.name, "en"))
      .flatMap(({ id, name }) => groupOf(`model ${id}`, name, plugins, (model) => model.id === id)),
  ];
}

/** What is off already is not switched off once more. */
export const canRelieve = (plugin: PluginAt, how: Relief["how"]): boolean => how === "out" || plugin.processor.enabled;

interface Asked {
  readonly plugins: readonly PluginAt[];
  readonly how: Relief["how"];
  readonly title: string;
  /** When, by the clock of who asks, as in ISO 8601. */
  readonly at: string;
}

/** Plugins by the chain that they stand in. */
function byChain(plugins: readonly PluginAt[]): readonly (readonly PluginAt[])[] {
  const chains = new Map<string, PluginAt[]>();
  for (const plugin of plugins) {
    const key = JSON.stringify(inChain(plugin));
    chains.set(key, [...(chains.get(key) ?? []), plugin]);
  }
  return [...chains.values()];
}

const inChain = ({ strip, layer }: PluginAt) => ({ strip: strip.id, ...(layer === undefined ? {} : { layer }) });

function remembered(plugin: PluginAt, how: Relief["how"]): RelievedPlugin {
  const { strip, layer, processor } = plugin;
  const said = {
    ...inChain(plugin),
    stripName: stripName(strip),
    key: processor.key,
    name: processorName(processor),
  };
  if (how === "off") return said;
  const chain = chainAt(strip, layer)!;
  const { node, place } = findNode(chain, processor.key)!;
  const keys = (findList(chain, place.within) ?? []).map(({ key }) => key);
  return {
    ...said,
    out: {
      node,
      ...(place.within === null ? {} : { within: place.within }),
      before: keys.slice(0, keys.indexOf(processor.key)).toReversed(),
    },
  };
}

/**
 * The steps that relieve plugins, and remember how they were. Law: with `putBack` right behind them, the project is as it was; what is not
 * named is not touched. None where there is nothing to relieve.
 */
export function relieve({ plugins, how, title, at }: Asked, mint: () => string): readonly Step[] {
  const able = plugins.filter((plugin) => canRelieve(plugin, how));
  if (able.length === 0) return [];
  const steps = byChain(able).flatMap((here) => {
    const [{ strip, layer }] = here as [PluginAt];
    const hand: Hand = { strip, layer, mint };
    const keys = here.map(({ processor }) => processor.key);
    return how === "off" ? switchOn(hand, keys, false) : takeOut(hand, ...keys);
  });
  const macros = steps.flatMap((step) =>
    step.kind === "setMacros"
      ? [
          {
            strip: step.strip,
            ...(step.layer === undefined ? {} : { layer: step.layer }),
            from: step.from,
            to: step.to,
          },
        ]
      : [],
  );
  const id = mint();
  const relief: Relief = { id, title, how, at, plugins: able.map((plugin) => remembered(plugin, how)), macros };
  return [...steps, { id: mint(), kind: "setRelief", relief: id, from: null, to: relief }];
}
