"use client";

import { useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { type Chain, type From, type Processor, nodeName, processorName } from "@/core/chains/chain";
import { clip } from "@/core/chains/clipping";
import type { Content } from "@/core/presets/preset";
import { saveChain } from "@/core/presets/save";
import { CONTENT_SCHEMA } from "@/core/presets/version";
import * as gestures from "@/core/recall/gestures";
import type { Layer } from "@/core/strips/parts/source";
import { errorText } from "../../kit/error-text";
import { say, sayError } from "../../kit/say";
import { holdersOf } from "../../save/holders";
import { openSave } from "../../save/save";
import type { Instrument } from "../instrument/use-instrument";
import type { Slot } from "../load-slot";
import type { Bench } from "../use-bench";
import type { BenchHands } from "../use-bench-gestures";

export function slotOf({ selected }: Bench, whole: boolean, layer: Layer | null): Slot {
  if (!whole && layer) return { kind: "layer", layer };
  if (!whole && selected?.type === "processor") return { kind: "processor", processor: selected };
  if (!whole && selected?.type === "section") return { kind: "section", section: selected };
  return { kind: "chain" };
}

/** The one plugin that the slot is for; null for a section and the chain. */
export const pluginOf = (slot: Slot): Processor | null =>
  slot.kind === "processor" ? slot.processor : slot.kind === "layer" ? slot.layer.instrument : null;

export function titleOf(slot: Slot): string {
  const plugin = pluginOf(slot);
  if (plugin) return processorName(plugin);
  return slot.kind === "section" ? nodeName(slot.section) : "the chain";
}

export const fromOf = (slot: Slot, chain: Chain) =>
  (slot.kind === "chain" ? chain.from : slot.kind === "section" ? slot.section.from : pluginOf(slot)?.from) ?? null;

export function saveSlotAs({ place, strip }: Bench, hand: BenchHands, slot: Slot): void {
  if (slot.kind === "processor") hand.saveNode(slot.processor.key);
  if (slot.kind === "section") hand.saveNode(slot.section.key);
  if (slot.kind === "layer" && place.project && strip)
    openSave({ project: place.project, strips: [strip.id], layer: slot.layer.key, instrument: true });
}

/** The preset's instrument in the layer; its keys, its touch and its effects stay. */
export function loadInstrument(instrument: Instrument | null, layer: Layer, row: PresetRow): void {
  const { content } = row;
  if (content.kind !== "plugin") return;
  const from = { preset: row.id, version: row.version, name: row.card.name };
  instrument?.change(`Load ${row.card.name}`, layer.key, (now) => ({
    ...now,
    instrument: { ...content.processor, key: now.instrument.key, from },
  }));
}

/** What stands in the slot as the next version of the preset that it came from. */
export function useSaveSlot(bench: Bench, slot: Slot, instrument: Instrument | null) {
  const queries = useQueryClient();
  const contentNow = (): Content | null => {
    const plugin = pluginOf(slot);
    if (plugin) {
      const { from: _, ...processor } = plugin;
      return { kind: "plugin", schema: CONTENT_SCHEMA, processor };
    }
    if (slot.kind !== "section") return null;
    const { macros } = clip(
      { ...bench.chain, nodes: slot.section.nodes },
      slot.section.nodes.map((n) => n.key),
    );
    return saveChain({ nodes: slot.section.nodes, macros: [...macros] });
  };
  const follow = (from: From) => {
    if (slot.kind === "layer")
      return instrument?.change(`Save version ${from.version}`, slot.layer.key, (now) => ({
        ...now,
        instrument: { ...now.instrument, from },
      }));
    const node = slot.kind === "processor" ? slot.processor : slot.kind === "section" ? slot.section : null;
    if (node)
      void bench.gesture(`Save version ${from.version}`, (hand) => gestures.replaceNode(hand, { ...node, from }));
  };
  return async (from: From): Promise<void> => {
    const content = contentNow();
    if (!content) return;
    try {
      const { preset } = await api.saveVersion(from.preset, from.version, content);
      follow({ preset: preset.id, version: preset.version, name: preset.card.name });
      await queries.invalidateQueries({ queryKey: KEYS.presets });
      const { heldBy } = await api.getPreset(preset.id);
      say(`Saved version ${preset.version} of “${preset.card.name}”. Earlier ones are kept.${holdersOf(heldBy)}`);
    } catch (error) {
      sayError(errorText(error));
    }
  };
}
