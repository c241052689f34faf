"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import type { Chain, PresetRef } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { type Content, presetRef } from "@/core/presets/preset";
import { saveChain, saveStrip } from "@/core/presets/save";
import * as gestures from "@/core/recall/gestures";
import type { Step } from "@/core/recall/steps";
import { layersOf } from "@/core/strips/parts/source";
import { differencesFrom, referenceOf, soundingChain } from "@/core/presets/standing";
import { type Strip, partsOf } from "@/core/strips/strip";
import { errorText } from "../kit/error-text";
import { createLine } from "../kit/in-line";
import { orSay, say, sayError } from "../kit/say";
import { nothingNew, wordsOfSave } from "../save/version-words";
import { openSave } from "../save/save";
import type { Bench } from "./use-bench";

/** The strip as the next version of a preset of this kind: the same parts, as they stand now. */
function contentNow(saved: Content, strip: Strip, project: Parameters<typeof saveStrip>[0]): Content | null {
  switch (saved.kind) {
    case "plugin": {
      const [processor] = processorsOf(soundingChain(strip));
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

/** After saving, what is on the bench goes by the new version: its only plugin, its only instrument, or all of it. */
function followed(hand: gestures.Hand, kind: Content["kind"], next: PresetRef): readonly Step[] {
  if (kind !== "plugin") return gestures.follow(hand, next);
  const [layer] = layersOf(hand.strip);
  if (layer)
    return gestures.changeLayer(hand, layer.key, (now) => ({ ...now, instrument: { ...now.instrument, from: next } }));
  const [only] = processorsOf(hand.strip.inserts);
  return only ? gestures.replaceNode(hand, { ...only, from: next }) : [];
}

/** What comes with a pack is read only, and what is in the bin gets no versions. */
const takesVersions = ({ preset, place }: Awaited<ReturnType<typeof api.getPreset>>): boolean =>
  preset.pack === null && place === "library";

/** One key: a new version of the preset that the thing in hand came from; the save sheet where it came from none. */
export function useSaveAgain({ place, gesture }: Bench): () => void {
  const queries = useQueryClient();
  // Of quick presses each waits for the one before, and finds nothing changed where that has saved it.
  const [line] = useState(createLine);
  const standing = () => {
    const project = queries.getQueryData<ProjectBody>(KEYS.project(place.project ?? ""))?.project;
    const strip = project?.strips.find((s) => s.id === place.strip);
    return project && strip ? { project, strip } : null;
  };
  const ask = (strip: Strip) =>
    openSave({
      project: place.project ?? "",
      strips: [strip.id],
      ...(place.layer === null ? {} : { layer: place.layer }),
    });
  const save = async (overtaking?: number): Promise<void> => {
    const now = standing();
    if (!now) return;
    const { strip, project } = now;
    const reference = place.layer === null ? referenceOf(strip) : null;
    if (!reference) return ask(strip);
    const detail = await api.getPreset(reference.preset, reference.version);
    const { preset: saved, versions } = detail;
    const content = contentNow(saved.content, strip, project);
    // The sheet makes a new one of what takes no versions.
    if (!content || !takesVersions(detail)) return ask(strip);
    if (overtaking === undefined && differencesFrom(strip, saved.content).length === 0)
      return say(nothingNew({ ...saved, version: reference.version }));
    const newest = Math.max(...versions.map(({ version }) => version));
    if (overtaking === undefined && newest > reference.version) {
      const words = `“${saved.card.name}” has version ${newest} by now; yours is based on version ${reference.version}.`;
      return offer(words, newest);
    }
    try {
      const before = overtaking ?? reference.version;
      const { preset } = await api.saveVersion(reference.preset, before, content);
      await gesture(`Save version ${preset.version}`, (hand) => followed(hand, content.kind, presetRef(preset)));
      await queries.invalidateQueries({ queryKey: KEYS.preset(preset.id) });
      await queries.invalidateQueries({ queryKey: KEYS.presets });
      const { heldBy } = await api.getPreset(preset.id);
      say(wordsOfSave(before, preset, heldBy));
    } catch (error) {
      refused(error);
    }
  };
  const refused = (error: unknown): void => {
    const known = error instanceof api.ApiFailure ? error.error : null;
    if (known?.code !== "stale") return void sayError(errorText(error));
    const { version } = known.detail as { version: number };
    offer(errorText(error), version);
  };
  /** To save behind a version that is newer than the one that this came from. */
  const offer = (words: string, newest: number): void =>
    void sayError(words, {
      duration: 20_000,
      action: { label: `Save as version ${newest + 1}`, onClick: () => orSay(line(() => save(newest))) },
    });
  return () => orSay(line(() => save()));
}
