"use client";

import { useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { Chain, PresetRef } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { type Content, presetRef } from "@/core/presets/preset";
import { saveChain, saveStrip } from "@/core/presets/save";
import * as gestures from "@/core/recall/gestures";
import { type Strip, partsOf } from "@/core/strips/strip";
import type { Bench } from "./use-bench";
import { openSave } from "../save/save";
import { holdersOf } from "../save/holders";
import { errorText } from "../kit/error-text";
import { say, sayError } from "../kit/say";

/** The strip as the next version of a preset of this kind: the same parts, as they stand now. */
function contentNow(saved: Content, strip: Strip, project: Parameters<typeof saveStrip>[0]): Content | null {
  switch (saved.kind) {
    case "plugin": {
      const [processor] = processorsOf(strip.inserts);
      if (!processor) return null;
      const { from: _, ...sound } = processor;
      return { ...saved, processor: sound };
    }
    case "chain":
      return saveChain(strip.inserts);
    case "strip":
      return saveStrip(project, { ...strip, inserts: withoutFrom(strip.inserts) }, partsOf(saved.strip));
    case "set":
    case "mix":
      return null;
  }
}

const withoutFrom = ({ from: _, ...chain }: Chain): Chain => chain;

/** One key: a new version of the preset that the thing in hand came from; the save sheet where it came from none. */
export function useSaveAgain({ place, strip, reference, saved, editing, gesture }: Bench): () => void {
  const queries = useQueryClient();
  const ask = () => {
    if (place.project && strip)
      openSave({
        project: place.project,
        strips: [strip.id],
        ...(place.layer === null ? {} : { layer: place.layer }),
      });
  };
  const save = async (from: PresetRef, baseVersion: number, content: Content): Promise<void> => {
    try {
      const { preset } = await api.saveVersion(from.preset, baseVersion, content);
      const next = presetRef(preset);
      const [only] = strip ? processorsOf(strip.inserts) : [];
      await gesture(`Save version ${preset.version}`, (hand) =>
        content.kind === "plugin" && only
          ? gestures.replaceNode(hand, { ...only, from: next })
          : gestures.follow(hand, next),
      );
      await queries.invalidateQueries({ queryKey: KEYS.preset(preset.id) });
      await queries.invalidateQueries({ queryKey: KEYS.presets });
      const { heldBy } = await api.getPreset(preset.id);
      say(`Saved version ${preset.version} of “${preset.card.name}”. Earlier ones are kept.${holdersOf(heldBy)}`);
    } catch (error) {
      const stale =
        error instanceof api.ApiFailure && error.error.code === "stale"
          ? (error.error.detail as { version: number })
          : null;
      const message = errorText(error);
      // What comes with a pack is read only: the sheet makes one of the person's own of it.
      if (error instanceof api.ApiFailure && "path" in error.error && error.error.path === "pack") ask();
      if (!stale) return void sayError(message);
      sayError(message, {
        duration: 20_000,
        action: {
          label: `Save as version ${stale.version + 1}`,
          onClick: () => void save(from, stale.version, content),
        },
      });
    }
  };
  return () => {
    const project = editing.body?.project;
    const content = saved?.content && strip && project ? contentNow(saved.content, strip, project) : null;
    if (!reference || !content) return ask();
    void save(reference, reference.version, content);
  };
}
