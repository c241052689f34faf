"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import type { PlanRequest, ProjectBody } from "@/contracts/projects";
import type { PresetRow } from "@/contracts/records";
import { effectWords } from "@/core/presets/effect-words";
import { useInHand } from "../projects/in-hand";
import { useOpenProject } from "../projects/open-project";
import { createLine } from "../kit/in-line";
import { orSay, say } from "../kit/say";

export interface Recall {
  /** "to Cello", "to 2 strips", "to a new strip of Neap Tide"; null with no project in hand. */
  readonly targetWords: string | null;
  /** What applying it does, told before: "replaces 2 plugins of Horn"; null where it makes a new strip, or is for nothing. */
  readonly effectWords: (preset: Pick<PresetRow, "content">) => string | null;
  /** At once where nothing is asked and only the targets change, else by the plan. */
  readonly apply: (preset: Pick<PresetRow, "id" | "kind" | "version" | "card">) => void;
  /** Shows every change first. */
  readonly plan: (preset: Pick<PresetRow, "id" | "version">) => void;
}

/** The address of a plan: a preset onto strips of a project, onto a new one where none is named. */
export function planAddress(
  project: string,
  preset: Pick<PresetRow, "id" | "version">,
  strips: readonly string[],
): string {
  const words = new URLSearchParams({ preset: preset.id, version: String(preset.version) });
  if (strips.length > 0) words.set("strips", strips.join(","));
  return `/projects/${project}/plan?${words}`;
}

export const targetsOf = (
  body: ProjectBody | undefined,
  strips: readonly string[],
): PlanRequest["requests"][number]["targets"] =>
  strips.length > 0 ? { strips: [...strips] } : { newStrip: { after: lastBeforeMain(body) } };

/** A new strip stands before the main output. */
export function lastBeforeMain(body: ProjectBody | undefined): string | null {
  return body?.project.strips.filter((s) => s.kind !== "main").at(-1)?.id ?? null;
}

/** One after the other: what comes second is planned on what the first has left. */
const inLine = createLine();

/** Applying what is chosen in the library to what is chosen in the project in hand. */
export function useRecall(): Recall {
  const router = useRouter();
  const queries = useQueryClient();
  const { project: id, strips: chosen, alwaysPlan } = useInHand();
  const open = useOpenProject(id);
  const project = open.body?.project;
  const strips = chosen.filter((s) => project?.strips.some((strip) => strip.id === s));
  const [only] = strips;
  const onlyName = strips.length === 1 ? project?.strips.find((s) => s.id === only)?.look.name : undefined;
  const targetWords = !project
    ? null
    : (onlyName && `to ${onlyName}`) ||
      (strips.length > 0 ? `to ${strips.length} strips` : `to a new strip of ${project.name}`);

  const plan: Recall["plan"] = (preset) => {
    if (id) router.push(planAddress(id, preset, strips));
  };

  const apply: Recall["apply"] = (preset) => {
    if (!id || !targetWords) {
      say("Choose a project first; then Enter applies a sound to its strips.");
      return;
    }
    // Several strips find theirs by a plan.
    if (alwaysPlan || preset.kind === "set" || preset.kind === "mix") return plan(preset);
    const targets = targetsOf(open.body, strips);
    const { undo } = open;
    const asked = { queries, project: id, preset, targets, targetWords, plan: () => plan(preset), undo };
    orSay(inLine(() => import("./apply-directly").then(({ applyDirectly }) => applyDirectly(asked))));
  };
  const targets = project?.strips.filter((strip) => strips.includes(strip.id)) ?? [];
  return { targetWords, effectWords: ({ content }) => effectWords(content, targets), apply, plan };
}
