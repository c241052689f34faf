"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "next/navigation";
import { useEffect } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { findModel } from "@/core/processors/models";
import { useTempo } from "../library/use-tempo";
import { rememberBench, useInHand, useTakeProject } from "../projects/in-hand";

/** What the bench was opened from, by its address: a strip, a preset, or nothing yet. */
export interface Place {
  readonly project: string | null;
  readonly strip: string | null;
  /** The layer of the strip's instrument whose effects are on the bench. */
  readonly layer: string | null;
  readonly error: string | null;
  readonly nothing: boolean;
}

export function usePlace(): Place {
  const params = useSearchParams();
  const queries = useQueryClient();
  const tempo = useTempo();
  const [project, preset, version] = [params.get("project"), params.get("preset"), params.get("version")];
  const scratch = params.get("new");
  const wanted = project
    ? null
    : preset
      ? `${preset} ${version ?? "newest"}`
      : scratch === null
        ? null
        : `new ${scratch}`;
  const draft = useQuery({
    queryKey: ["draft", wanted],
    enabled: wanted !== null,
    retry: false,
    staleTime: 0,
    gcTime: 0,
    queryFn: async () => {
      const instrument = preset === null && findModel(scratch ?? "") ? { instrument: scratch ?? "" } : {};
      const body = await api.openDraft({
        preset,
        ...(version ? { version: Number(version) } : {}),
        ...instrument,
        tempo,
      });
      queries.setQueryData(KEYS.project(body.project.id), body);
      return body.project.id;
    },
  });
  useEffect(() => {
    if (params.size > 0) rememberBench(`/bench?${params}`);
  }, [params]);
  useTakeProject(project);
  const strip = params.get("strip");
  useEffect(() => {
    // What is on the bench is in hand, alone where it was not among the chosen.
    if (project === null || strip === null) return;
    const { project: inHand, strips } = useInHand.getState();
    if (inHand === project && !strips.includes(strip)) useInHand.setState({ strips: [strip] });
  }, [project, strip]);
  const layer = params.get("layer");
  if (project) return { project, strip: params.get("strip"), layer, error: null, nothing: false };
  return {
    project: draft.data ?? null,
    strip: "strip",
    layer,
    error: draft.error?.message ?? null,
    nothing: wanted === null,
  };
}
