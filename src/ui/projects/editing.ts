"use client";

import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ChangedBody, ProjectBody } from "@/contracts/projects";
import type { Project } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import type { Step } from "@/core/recall/steps";
import { describeChange } from "@/core/recall/where";
import { type OpenProject, useOpenProject } from "./open-project";
import { sayError } from "../kit/say";
import { isHidden, isInBin, send } from "./sending";

type Make = (project: Project) => readonly Step[];

export interface How {
  /** A sound that is only passed by while one looks for another. */
  readonly passing?: boolean;
}

interface Gesture extends How {
  /** What it is called in the history. */
  readonly label: string;
  readonly make: Make;
}

/**
 * One gesture: shown at once, then sent. The revision that it made, or null where it made none. The steps are made from the project as it
 * is shown at that moment, which a gesture just before may have changed.
 */
export function commitTo(queries: QueryClient, id: string, { label, make, ...how }: Gesture): Promise<number | null> {
  const key = KEYS.project(id);
  if (isInBin(queries, id)) return Promise.resolve(null);
  // A fetch that is under way would bring the state before; what is shown stays.
  void queries.cancelQueries({ queryKey: key }, { revert: false });
  const isLate = isHidden(queries, id);
  /** Shows what the gesture does to what is shown now; null where that is nothing. */
  const show = (): readonly Step[] | null => {
    const shown = queries.getQueryData<ProjectBody>(key);
    const steps = shown ? make(shown.project) : [];
    if (!shown || steps.length === 0) return null;
    const applied = applySteps(shown.project, steps);
    // Where something quicker took away what it was meant for, there is nothing to do it to, and nothing to send.
    if (!applied.ok) {
      sayError(applied.error.reason);
      return null;
    }
    queries.setQueryData<ProjectBody>(key, {
      ...shown,
      project: applied.value,
      history: { undo: describeChange(label, applied.value, steps), redo: null },
    });
    return steps;
  };
  const steps = isLate ? null : show();
  if (!isLate && steps === null) return Promise.resolve(null);
  // Behind an undo that is on its way the gesture is made when that has been answered.
  const call = async (baseRevision: number, is: { readonly shown: boolean; readonly knows: boolean }) => {
    const made = is.shown ? steps : show();
    return made && tell(id, { baseRevision, steps: [...made], label, brief: is.knows, ...how });
  };
  return send(queries, id, { call, isShown: !isLate }).then((made) => made?.revision ?? null);
}

/** So often another window may be quicker, each time with what does not meet this. */
const MOST_TRIES = 4;

/** Tells the server what is done. Where another window was before, it is done on what that has left, if it still fits. */
async function tell(id: string, change: Parameters<typeof api.changeProject>[1]): Promise<ChangedBody> {
  let { baseRevision } = change;
  for (let tries = 1; ; tries++) {
    try {
      return await api.changeProject(id, { ...change, baseRevision, brief: change.brief === true && tries === 1 });
    } catch (error) {
      if (!(error instanceof api.ApiFailure) || error.error.code !== "stale" || tries === MOST_TRIES) throw error;
      const { project, revision } = await api.getProject(id);
      const applied = applySteps(project, change.steps);
      if (!applied.ok) throw new api.InWords(`It was changed in another window meanwhile. ${applied.error.reason}`);
      baseRevision = revision;
    }
  }
}

export interface ProjectEditing extends OpenProject {
  /** The revision that it made, or null where it made none. */
  readonly commit: (label: string, make: Make, how?: How) => Promise<number | null>;
}

/** A project, or a draft, and what can be done to it. */
export function useProjectEditing(id: string | null): ProjectEditing {
  const queries = useQueryClient();
  const commit: ProjectEditing["commit"] = (label, make, how) =>
    id === null ? Promise.resolve(null) : commitTo(queries, id, { label, make, ...how });
  return { ...useOpenProject(id), commit };
}
