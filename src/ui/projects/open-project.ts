"use client";

import { CancelledError, useQuery, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import { say } from "../kit/say";
import { fetchProject, send } from "./sending";

export interface OpenProject {
  readonly body: ProjectBody | undefined;
  readonly error: Error | null;
  /** Takes back the last change, or the one that made a revision; says what, and where. */
  readonly undo: (revision?: number) => Promise<boolean>;
  readonly redo: () => Promise<boolean>;
}

/** Many that follow each other quickly are one message. */
const WALK = "walked";

const placeOf = ({ draft, project }: ProjectBody): string => (draft ? "" : `, in ${project.name}`);

/** A project, or a draft, as it stands, and the way back. What changes it is in editing.ts. */
export function useOpenProject(id: string | null): OpenProject {
  const queries = useQueryClient();
  const { data, error } = useQuery({
    queryKey: KEYS.project(id ?? ""),
    // What is done meanwhile is shown already, and stays.
    queryFn: () => fetchProject(queries, id ?? ""),
    enabled: id !== null,
  });
  const walk = async (
    direction: "undo" | "redo",
    call: (id: string, base: number) => Promise<ProjectBody>,
    wordsOf: (now: ProjectBody) => string,
  ) => {
    if (id === null) return false;
    // Of quick presses the last may find that all has been taken back.
    const isThere = () => queries.getQueryData<ProjectBody>(KEYS.project(id))?.history[direction] !== null;
    const now = await send(queries, id, {
      call: (base) => (isThere() ? call(id, base) : Promise.resolve(null)),
      isShown: false,
    });
    if (now) say(wordsOf(now), { id: WALK });
    return now !== null;
  };
  return {
    body: data,
    // A fetch that a gesture overtook has brought nothing, and nothing is wrong; where a line broke, what is shown stays.
    error: error instanceof CancelledError || (data && api.isUnreachable(error)) ? null : error,
    undo: (revision) =>
      walk(
        "undo",
        (project, base) => api.undoProject(project, base, revision),
        (now) => `Taken back: ${now.history.redo}${placeOf(now)}`,
      ),
    redo: () => walk("redo", api.redoProject, (now) => `Done again: ${now.history.undo}${placeOf(now)}`),
  };
}
