"use client";

import { type Content, presetRef } from "@/core/presets/preset";
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRef } from "@/core/chains/chain";
import * as gestures from "@/core/recall/gestures";
import type { Layer } from "@/core/strips/parts/source";
import { errorText } from "../../kit/error-text";
import { createLine } from "../../kit/in-line";
import { say, sayError } from "../../kit/say";
import { wordsOfSave } from "../../save/version-words";
import { openSave } from "../../save/save";
import type { Bench } from "../use-bench";
import type { BenchGestures } from "../use-bench-gestures";

export function slotOf({ selected }: Bench, whole: boolean, layer: Layer | null): gestures.Slot {
  if (!whole && layer) return { kind: "layer", layer };
  if (!whole && selected?.type === "processor") return { kind: "processor", processor: selected };
  if (!whole && selected?.type === "section") return { kind: "section", section: selected };
  return { kind: "chain" };
}

export function saveSlotAs({ place, strip }: Bench, act: BenchGestures, slot: gestures.Slot): void {
  if (slot.kind === "processor") act.saveNode(slot.processor.key);
  if (slot.kind === "section") act.saveNode(slot.section.key);
  if (slot.kind === "layer" && place.project && strip)
    openSave({ project: place.project, strips: [strip.id], layer: slot.layer.key, instrument: true });
}

/** What stands in the slot as the next version of the preset that it came from. */
export function useSaveSlot(bench: Bench, act: BenchGestures, slot: gestures.Slot) {
  const queries = useQueryClient();
  // Of quick presses the second finds its version saved by the first.
  const overtaken = useRef<PresetRef | null>(null);
  const [line] = useState(createLine);
  const save = async (from: PresetRef): Promise<void> => {
    const content = gestures.contentOfSlot(slot, bench.chain);
    if (!content || overtaken.current === from) return;
    try {
      const { preset: saved, place } = await api.getPreset(from.preset);
      // What comes with a pack is read only, and what is in the bin gets no versions.
      if (saved.pack !== null || place !== "library") return saveSlotAs(bench, act, slot);
      return await saveOver(from, content);
    } catch (error) {
      sayError(errorText(error));
    }
  };
  const saveOver = async (from: PresetRef, content: Content): Promise<void> => {
    const { preset } = await api.saveVersion(from.preset, from.version, content);
    overtaken.current = from;
    const saved = presetRef(preset);
    void bench.gesture(`Save version ${saved.version}`, (hand) => gestures.followInSlot(hand, slot, saved));
    await queries.invalidateQueries({ queryKey: KEYS.presets });
    const { heldBy } = await api.getPreset(preset.id);
    say(wordsOfSave(from.version, preset, heldBy));
  };
  return (from: PresetRef) => line(() => save(from));
}
