"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import type { PlanRequest, ProjectBody } from "@/contracts/projects";
import { beginWith, heldBy, rememberedAs } from "@/core/recall/choices";
import type { Exception, SetTargets } from "@/core/recall/plan-shape";
import type { InsertMode } from "@/core/recall/plan-inserts";
import type { LayerTake } from "@/core/recall/plan-layers";
import type { SendMode } from "@/core/recall/plan-sends";
import { isStrips } from "@/core/presets/preset";
import { withLastParts } from "@/core/settings/settings";
import { PARTS, type PartName } from "@/core/strips/parts";
import { orSay } from "../kit/say";
import { useProjectEditing } from "../projects/editing";
import { useSettings } from "../settings/settings";
import { type Targets, lastBeforeMain, targetsOf } from "./recall";
import type { Aim } from "./address";
import { type PlanSource, useAsked, useSources } from "./sources";

export type Onto = SetTargets["onto"];

/** A cell, a row or a single send, as it is kept of what was switched off. */
export const offKey = (...of: readonly string[]): string => JSON.stringify(of);

/** What was switched off, as the plan takes it. */
const toExceptions = (off: ReadonlySet<string>): Exception[] =>
  [...off].map((cell) => {
    const [strip, part, send] = JSON.parse(cell) as readonly [string, PartName?, string?];
    if (send !== undefined) return { strip, send };
    return { strip, ...(part ? { part } : {}) };
  });

/** What a hand has chosen in the plan so far. */
function useChoices(begin: readonly PartName[] | null) {
  const [chosenParts, setParts] = useState(begin);
  const [chosenMode, setMode] = useState<InsertMode | null>(null);
  const [layers, setLayers] = useState<LayerTake>("whole");
  const [sends, setSends] = useState<SendMode>("replace");
  const [onto, setOnto] = useState<Onto>("matched");
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [answers, setAnswers] = useState<Readonly<Record<string, string>>>({});
  const [applying, setApplying] = useState(false);
  return {
    chosenParts,
    setParts,
    chosenMode,
    setMode,
    layers,
    setLayers,
    sends,
    setSends,
    onto,
    setOnto,
    off,
    setOff,
    answers,
    setAnswers,
    /** While it is applied there is nothing to plan. */
    applying,
    setApplying,
  };
}

/** Several strips find theirs among those that are chosen, where any are. */
const targetsFor = (
  { content }: PlanSource,
  body: ProjectBody | undefined,
  { onto, ...aim }: Aim & { readonly onto: Onto },
): Targets =>
  isStrips(content)
    ? {
        set: {
          onto,
          among: aim.strips.length > 0 ? [...aim.strips] : null,
          after: aim.newStrip ?? lastBeforeMain(body),
        },
      }
    : targetsOf(body, aim);

/** A plugin is added, everything else takes the place of what is there. */
const usualMode = ({ kind }: Pick<PlanSource, "kind">): InsertMode => (kind === "plugin" ? "after" : "replace");

const modeOf = (sources: readonly PlanSource[]): InsertMode =>
  sources.length > 0 && sources.every(({ kind }) => kind === "plugin") ? "after" : "replace";

const isReady = (sources: readonly PlanSource[] | null, revision: number | undefined): boolean =>
  sources !== null && revision !== undefined;

export function usePlan(id: string) {
  const asked = useAsked();
  const { strips } = asked;
  const editing = useProjectEditing(id);
  const { sources, error: notFound } = useSources(asked);
  const { settings, change } = useSettings();
  const choices = useChoices(asked.parts);
  const { chosenParts, chosenMode, layers, sends, onto, off, answers, applying, ...setters } = choices;
  const held = PARTS.filter((part) => sources?.some(({ content }) => heldBy(content).includes(part)));
  const [first] = sources ?? [];
  const mode = chosenMode ?? modeOf(sources ?? []);
  const parts = chosenParts ?? beginWith(held, first && settings.lastParts[first.kind]);
  const revision = editing.body?.revision;
  const some = parts.length > 0;
  /** With every part switched off, the plan is asked for all of them and told to leave each out: it then says what stays. */
  const request: PlanRequest = {
    requests: (sources ?? []).map((source) => ({
      source: source.ask,
      parts: some ? [...parts] : [...PARTS],
      targets: targetsFor(source, editing.body, { strips, slot: asked.slot, newStrip: asked.newStrip, onto }),
      mode: chosenMode ?? usualMode(source),
      layers,
      sends,
    })),
    except: some ? toExceptions(off) : PARTS.map((part) => ({ part })),
    answers,
  };
  const planned = useQuery({
    queryKey: ["plan", id, revision, request],
    queryFn: () => api.planRecall(id, request),
    enabled: isReady(sources, revision) && !applying,
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  /** The next plan of such a thing begins with the same parts. */
  const rememberParts = () => {
    // What was dropped on one cell is no choice for all that comes.
    if (first && chosenParts !== null && asked.parts === null)
      orSay(change((now) => withLastParts(now, first.kind, rememberedAs(held, parts))));
  };
  return {
    editing,
    sources,
    held,
    parts,
    mode,
    layers,
    sends,
    onto,
    off,
    planned,
    strips,
    applying,
    rememberParts,
    ...setters,
    error: notFound ?? planned.error ?? editing.error,
  };
}
