"use client";

import { create } from "zustand";
import { persist } from "zustand/middleware";
import { parentOf } from "@/core/projects/nesting";
import { type Project, findStrip } from "@/core/projects/project";

/** Groups and folders, by project, of which nothing is shown that stands in them. It survives a reload. */
const useFolds = create<{ readonly folds: Readonly<Record<string, readonly string[]>> }>()(
  persist(() => ({ folds: {} }), { name: "diathesis.folds" }),
);

const NONE: readonly string[] = [];

function setFolds(project: string, change: (folded: readonly string[]) => readonly string[]): void {
  const { folds } = useFolds.getState();
  const [was, is] = [folds[project] ?? NONE, change(folds[project] ?? NONE)];
  // What stays as it is is not written down again: that is asked at every edit.
  if (is !== was) useFolds.setState({ folds: { ...folds, [project]: is } });
}

/** Which groups and folders of a project are folded; the same list until one is otherwise. */
export const useFolded = (project: string): readonly string[] => useFolds(({ folds }) => folds[project] ?? NONE);

export const fold = (project: string, strip: string, on: boolean): void =>
  setFolds(project, (folded) => {
    const others = folded.filter((id) => id !== strip);
    return on ? [...others, strip] : others;
  });

/** Unfolds all in which some strips stand: what is in hand is in sight. */
export function unfoldAround(project: Project, strips: readonly string[]): void {
  const above = new Set<string>();
  for (const id of strips) {
    const strip = findStrip(project, id);
    for (let at = strip && parentOf(project, strip); at; at = parentOf(project, at)) above.add(at.id);
  }
  setFolds(project.id, (folded) =>
    folded.some((id) => above.has(id)) ? folded.filter((id) => !above.has(id)) : folded,
  );
}
