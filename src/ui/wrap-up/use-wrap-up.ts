"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { WrapUp } from "@/contracts/wrap-up";
import type { Project } from "@/core/projects/project";
import { whenSent } from "../projects/sending";
import { blocksOf } from "./rows";
import { useFiling } from "./use-filing";
import { useFindings } from "./use-findings";

/** What the library says of a project; fetched anew with each of its revisions. */
export const useLookedThrough = (project: string, revision: number) =>
  useQuery({
    queryKey: [...KEYS.presets, "wrap-up", project, revision],
    queryFn: () => api.lookThrough(project),
    staleTime: 0,
    placeholderData: (before) => before,
  });

/** The wrap-up of one project: what was found in it, and how that is filed, and taken back. */
export function useWrapUp(project: Project, told: WrapUp) {
  const queries = useQueryClient();
  const { id, name } = project;
  const findings = useFindings(
    id,
    useMemo(() => blocksOf(project, told), [project, told]),
  );
  const { done, takeBack } = useFiling(name);
  const { undo: last } = told;
  return {
    findings,
    file: async () => {
      // What is on its way is found, too.
      await whenSent(queries, id);
      const { presets, undo } = await api.wrapUp(id, {
        baseRevision: told.revision,
        file: findings.filed.map((filed) => ({
          key: filed.row.key,
          as: findings.asFiled(filed),
          ...(filed.companions.length > 0 ? { companions: [...filed.companions] } : {}),
        })),
        left: findings.passedOver().map(({ fingerprint }) => fingerprint),
      });
      await done(presets.length, undo && { project: id, ...undo });
      findings.forget();
    },
    /** Takes the last wrap-up back, also after a reload. */
    takeBack: last && (() => takeBack({ project: id, ...last }, `Wrap-up of ${name}`)),
  };
}
