"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { KEYS } from "@/clients/events";
import type { PlanRequest, ProjectBody } from "@/contracts/projects";
import type { PresetRow } from "@/contracts/records";
import type * as choicesOfParts from "@/core/recall/choices";
import { effectWords } from "@/core/presets/effect-words";
import { useInHand } from "../projects/in-hand";
import { useOpenProject } from "../projects/open-project";
import { createLine } from "../kit/in-line";
import { orSay, say } from "../kit/say";
import { useSettings } from "../settings/settings";
import type { Applied } from "./apply-directly";
import { type Aim, type Brought, planAddress } from "./address";

export interface Recall {
  /** "to Cello", "to 2 strips", "to a new strip of Neap Tide"; null with no project in hand. */
  readonly targetWords: string | null;
  /** What applying it does, told before: "replaces 2 plugins of Horn"; null where it makes a new strip, or is for nothing. */
  readonly effectWords: (preset: Pick<PresetRow, "content" | "kind">) => string | null;
  /** At once where nothing is asked and only the targets change, else by the plan. */
  readonly apply: (preset: Applied) => void;
  /** Shows every change first, of all of them together. */
  readonly plan: (...presets: readonly Pick<PresetRow, "id" | "version">[]) => void;
  /** To where it was let go: at once where nothing is asked, else by the plan. `words`: "to the level of Cello". */
  readonly drop: (preset: Applied, aim: Partial<Aim> & { readonly words: string }) => void;
  /** The same for strips of a project. */
  readonly bring: (brought: Brought) => void;
}

export type Targets = PlanRequest["requests"][number]["targets"];

export function targetsOf(body: ProjectBody | undefined, { strips, newStrip, slot }: Aim): Targets {
  if (slot) return { slot };
  if (strips.length > 0) return { strips: [...strips] };
  return { newStrip: { after: newStrip === undefined ? lastBeforeMain(body) : newStrip } };
}

/** A new strip stands before the main output. */
export function lastBeforeMain(body: ProjectBody | undefined): string | null {
  return body?.project.strips.filter((s) => s.kind !== "main").at(-1)?.id ?? null;
}

/** What is still there of an aim when its turn comes; null where nothing is. */
function stillThere(body: ProjectBody | undefined, aim: Aim): Aim | null {
  const isHere = (id: string) => body?.project.strips.some((strip) => strip.id === id) ?? true;
  if (aim.slot) return isHere(aim.slot.strip) ? aim : null;
  const strips = aim.strips.filter(isHere);
  return strips.length === 0 && aim.strips.length > 0 ? null : { ...aim, strips };
}

type Choices = typeof choicesOfParts;

/** What is known of parts; null until it is here. It is of use only where some parts were chosen before. */
function useChoices(isWanted: boolean): Choices | null {
  const [choices, setChoices] = useState<Choices | null>(null);
  useEffect(() => {
    if (isWanted && !choices) void import("@/core/recall/choices").then(setChoices);
  }, [isWanted, choices]);
  return choices;
}

/** One after the other: what comes second is planned on what the first has left. */
const inLine = createLine();

/** Applying what is chosen in the library to what is chosen in the project in hand. */
export function useRecall(): Recall {
  const router = useRouter();
  const queries = useQueryClient();
  const { project: id, strips: chosen, alwaysPlan } = useInHand();
  const open = useOpenProject(id);
  const { settled, settings } = useSettings();
  const choices = useChoices(Object.keys(settings.lastParts).length > 0);
  const project = open.body?.project;
  // What is applied sounds: folders take none of it.
  const strips = chosen.filter((s) => project?.strips.some(({ id: own, kind }) => own === s && kind !== "folder"));
  const [only] = strips;
  const onlyName = strips.length === 1 ? project?.strips.find((s) => s.id === only)?.look.name : undefined;
  const targetWords = !project
    ? null
    : (onlyName && `to ${onlyName}`) ||
      (strips.length > 0 ? `to ${strips.length} strips` : `to a new strip of ${project.name}`);

  const plan: Recall["plan"] = (...presets) => bring({ presets });
  const bring = (brought: Brought, aim: Partial<Aim> = {}) => {
    if (id) router.push(planAddress(id, brought, { strips, ...aim }));
    else say("Choose a project first; then this goes onto its strips.");
  };

  const applyTo = (preset: Applied, aim: Aim, words: string) => {
    if (!id) return;
    const bySight = () => bring({ presets: [preset] }, aim);
    // Several strips find theirs by a plan.
    if (alwaysPlan || preset.kind === "set" || preset.kind === "mix") return bySight();
    const { undo } = open;
    const asked = { queries, project: id, preset, targetWords: words, parts: aim.parts, plan: bySight, undo };
    const applied = async () => {
      const { lastParts } = await settled();
      const { applyDirectly } = await import("./apply-directly");
      const body = queries.getQueryData<ProjectBody>(KEYS.project(id));
      const here = stillThere(body, aim);
      if (!here) return say(`“${preset.card.name}” goes nowhere: the strip is not here any more.`);
      await applyDirectly({ ...asked, targets: targetsOf(body, here), last: lastParts[preset.kind] });
    };
    orSay(inLine(applied));
  };

  const apply: Recall["apply"] = (preset) => {
    if (targetWords) applyTo(preset, { strips }, targetWords);
    else say("Choose a project first; then Enter applies a sound to its strips.");
  };
  const drop: Recall["drop"] = (preset, { words, ...aim }) => applyTo(preset, { strips: [], ...aim }, words);
  const targets = project?.strips.filter((strip) => strips.includes(strip.id)) ?? [];
  /** What of it is taken, where that is not all, and what it does there. */
  const wordsOf: Recall["effectWords"] = ({ content, kind }) => {
    const last = settings.lastParts[kind];
    if (last === undefined) return effectWords(content, targets);
    if (!choices) return null;
    const held = choices.heldBy(content);
    const parts = choices.beginWith(held, last);
    const only = choices.onlyWords(held, parts);
    const effect = parts.includes("inserts") || only === null ? effectWords(content, targets) : null;
    return [only, effect].filter((words) => words !== null).join("; ") || null;
  };
  return { targetWords, effectWords: wordsOf, apply, plan, drop, bring };
}
