import type { PresetRow } from "@/contracts/records";
import type { Chain, ChainNode, Processor } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { freshClipping } from "@/core/chains/clipping";
import { chainOf, withFrom } from "@/core/presets/preset";
import * as gestures from "@/core/recall/gestures";
import type { Layer } from "@/core/strips/parts/source";
import { mintKey } from "../kit/mint";

/** What the sounds are for: what is selected, or the whole chain. */
export type Slot =
  | { readonly kind: "processor"; readonly processor: Processor }
  | { readonly kind: "section"; readonly section: Extract<ChainNode, { type: "section" }> }
  | { readonly kind: "layer"; readonly layer: Layer }
  | { readonly kind: "chain" };

/** The steps that put a preset into a slot; what stands around it stays. */
export function stepsToLoad(hand: gestures.Hand, slot: Slot, row: PresetRow, now: Chain) {
  const content = withFrom(row.content, { preset: row.id, version: row.version, name: row.card.name });
  const loaded = chainOf(content);
  if (slot.kind === "processor") {
    const [processor] = processorsOf(loaded);
    return processor ? gestures.replaceNode(hand, { ...processor, key: slot.processor.key }) : [];
  }
  if (slot.kind === "chain") return gestures.replaceInserts(hand, loaded);
  if (slot.kind === "layer") return [];
  const fresh = freshClipping(loaded, mintKey);
  const nodes = fresh.nodes.flatMap((node) => (node.type === "section" ? node.nodes : [node]));
  const section: ChainNode = {
    ...slot.section,
    nodes,
    ...(loaded.from ? { from: loaded.from } : {}),
  };
  const others = gestures.macrosWithout(now, slot.section.key);
  return [
    ...gestures.setMacros(hand, others),
    ...gestures.replaceNode(hand, section),
    ...addMacros(hand, others, fresh.macros),
  ];
}

/** Added behind those that are left, once their targets are there. */
const addMacros = (hand: gestures.Hand, others: Chain["macros"], macros: readonly Chain["macros"][number][]) =>
  macros.length === 0 ? [] : gestures.setMacrosFrom(hand, others, [...others, ...macros]);
