"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import { send } from "./sending";

export interface OpenProject {
  readonly body: ProjectBody | undefined;
  readonly error: Error | null;
  readonly undo: () => Promise<boolean>;
  readonly redo: () => Promise<boolean>;
}

/** A project, or a draft, as it stands, and the way back. What changes it is in editing.ts. */
export function useOpenProject(id: string | null): OpenProject {
  const queries = useQueryClient();
  const { data, error } = useQuery({
    queryKey: KEYS.project(id ?? ""),
    queryFn: () => api.getProject(id ?? ""),
    enabled: id !== null,
    retry: false,
  });
  return {
    body: data,
    error,
    undo: () => (id === null ? Promise.resolve(false) : send(queries, id, (base) => api.undoProject(id, base))),
    redo: () => (id === null ? Promise.resolve(false) : send(queries, id, (base) => api.redoProject(id, base))),
  };
}
