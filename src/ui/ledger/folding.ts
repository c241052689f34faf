"use client";

import { useEffect, useMemo } from "react";
import { create } from "zustand";
import { persist } from "zustand/middleware";
import { isHolder, parentOf } from "@/core/projects/nesting";
import { type Project, findStrip } from "@/core/projects/project";
import type { Strip } from "@/core/strips/strip";
import { useInHand } from "../projects/in-hand";
import type { ColumnId } from "./views/layout";

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
const useFolded = (project: string): readonly string[] => useFolds(({ folds }) => folds[project] ?? NONE);

const fold = (project: string, strip: string, on: boolean): void =>
  setFolds(project, (folded) => {
    const others = folded.filter((id) => id !== strip);
    return on ? [...others, strip] : others;
  });

/** Unfolds all in which some strips stand: what is in hand is in sight. */
function unfoldAround(project: Project, strips: readonly string[]): void {
  const above = new Set<string>();
  for (const id of strips) {
    const strip = findStrip(project, id);
    for (let at = strip && parentOf(project, strip); at; at = parentOf(project, at)) above.add(at.id);
  }
  setFolds(project.id, (folded) =>
    folded.some((id) => above.has(id)) ? folded.filter((id) => !above.has(id)) : folded,
  );
}

/** What is folded, and turning that. What is in hand is always in sight. */
export function useFolding(project: Project) {
  const ids = useFolded(project.id);
  const folded = useMemo(() => new Set(ids), [ids]);
  const strips = useInHand((h) => h.strips);
  useEffect(() => unfoldAround(project, strips), [project, strips]);
  return { folded, turnFold: (strip: string) => fold(project.id, strip, !folded.has(strip)) };
}

/** Whether an arrow folds or unfolds what stands in a row: on the row itself, to the left where it is open, to the right where not. */
export const isFoldKey = (key: string, strip: Strip, column: ColumnId | null, folded: ReadonlySet<string>): boolean =>
  (column === null || column === "look") && isHolder(strip) && folded.has(strip.id) === (key === "ArrowRight");
