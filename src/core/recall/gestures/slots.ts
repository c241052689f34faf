import { type Chain, type PresetRef, type Processor, type Section, nodeName, processorName } from "../../chains/chain";
import { clip, freshClipping } from "../../chains/clipping";
import { processorsOf } from "../../chains/tree";
import { type Content, chainOf as chainOfContent, withFrom } from "../../presets/preset";
import { saveChain } from "../../presets/save";
import { CONTENT_SCHEMA } from "../../presets/version";
import type { Layer } from "../../strips/parts/source";
import type { Step } from "../steps";
import { type Hand, chainOf } from "./hand";
import { changeLayer } from "./layers";
import { macrosWithout, setMacros, setMacrosFrom } from "./macros";
import { replaceInserts } from "./whole";
import { replaceNode } from "./wiring";

/** What a preset can be loaded into: a plugin, a section, the instrument of a layer, or the whole chain in hand. */
export type Slot =
  | { readonly kind: "processor"; readonly processor: Processor }
  | { readonly kind: "section"; readonly section: Section }
  | { readonly kind: "layer"; readonly layer: Layer }
  | { readonly kind: "chain" };

/** The one plugin that a slot is for; null for a section and the chain. */
export const pluginOf = (slot: Slot): Processor | null =>
  slot.kind === "processor" ? slot.processor : slot.kind === "layer" ? slot.layer.instrument : null;

export function nameOfSlot(slot: Slot): string {
  const plugin = pluginOf(slot);
  if (plugin) return processorName(plugin);
  return slot.kind === "section" ? nodeName(slot.section) : "the chain";
}

/** The preset that stands in a slot; null where none was loaded. */
export const presetInSlot = (slot: Slot, chain: Chain): PresetRef | null =>
  (slot.kind === "chain" ? chain.from : slot.kind === "section" ? slot.section.from : pluginOf(slot)?.from) ?? null;

/** The steps that put a preset into a slot; what stands around it stays, and a layer keeps its keys and its effects. */
export function loadIntoSlot(hand: Hand, slot: Slot, content: Content, from: PresetRef): readonly Step[] {
  const loaded = chainOfContent(withFrom(content, from));
  const [plugin] = processorsOf(loaded);
  switch (slot.kind) {
    case "processor":
      return plugin ? replaceNode(hand, { ...plugin, key: slot.processor.key }) : [];
    case "layer":
      return plugin && content.kind === "plugin"
        ? changeLayer(hand, slot.layer.key, (now) => ({
            ...now,
            instrument: { ...plugin, key: now.instrument.key, from },
          }))
        : [];
    case "chain":
      return replaceInserts(hand, loaded);
    case "section":
      return loadIntoSection(hand, slot.section, loaded);
  }
}

/** A section inside what is loaded gives up its bracket: a section holds none. */
function loadIntoSection(hand: Hand, section: Section, loaded: Chain): readonly Step[] {
  const fresh = freshClipping(loaded, hand.mint);
  const nodes = fresh.nodes.flatMap((node) => (node.type === "section" ? node.nodes : [node]));
  const others = macrosWithout(chainOf(hand), section.key);
  return [
    ...setMacros(hand, others),
    ...replaceNode(hand, { ...section, nodes, ...(loaded.from ? { from: loaded.from } : {}) }),
    // Behind those that are left, once their targets are there.
    ...setMacrosFrom(hand, others, [...others, ...fresh.macros]),
  ];
}

/** What stands in a slot, as it is saved; null for the whole chain, which is saved as more than its plugins. */
export function contentOfSlot(slot: Slot, chain: Chain): Content | null {
  const plugin = pluginOf(slot);
  if (plugin) {
    const { from: _, ...processor } = plugin;
    return { kind: "plugin", schema: CONTENT_SCHEMA, processor };
  }
  if (slot.kind !== "section") return null;
  const { nodes } = slot.section;
  const { macros } = clip(
    { ...chain, nodes },
    nodes.map((n) => n.key),
  );
  return saveChain({ nodes, macros: [...macros] });
}

/** What stands in a slot goes by a preset's name from now on. */
export function followInSlot(hand: Hand, slot: Slot, from: PresetRef): readonly Step[] {
  switch (slot.kind) {
    case "processor":
      return replaceNode(hand, { ...slot.processor, from });
    case "section":
      return replaceNode(hand, { ...slot.section, from });
    case "layer":
      return changeLayer(hand, slot.layer.key, (now) => ({ ...now, instrument: { ...now.instrument, from } }));
    case "chain":
      return [];
  }
}
