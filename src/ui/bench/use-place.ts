"use client";

import equal from "fast-deep-equal";
import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRouter, useSearchParams } from "next/navigation";
import { useEffect } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import { findModel } from "@/core/processors/models";
import { useTempo } from "../library/use-tempo";
import { bring, fetchProject } from "../projects/sending";
import { rememberBench, useInHand, useTakeProject } from "../projects/in-hand";

/** What the bench was opened from, by its address: a strip, a sound of the library, or one that is begun from nothing. */
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
  const [project, strip, layer] = [params.get("project"), params.get("strip"), params.get("layer")];
  const draft = useDraft(params);
  useEffect(() => {
    if (params.size > 0) rememberBench(`/bench?${params}`);
  }, [params]);
  useTakeProject(project);
  useEffect(() => {
    // What is on the bench is in hand, alone where it was not among the chosen.
    if (project === null || strip === null) return;
    const { project: inHand, strips } = useInHand.getState();
    if (inHand === project && !strips.includes(strip)) useInHand.setState({ strips: [strip] });
  }, [project, strip]);
  return project === null
    ? { ...draft, strip: "strip", layer }
    : { project, strip, layer, error: null, nothing: false };
}

/** The address of what a draft goes by: the sound it is of, or, while it is of none, itself. */
export const draftAddress = (id: string, { preset, version }: NonNullable<ProjectBody["draft"]>): string =>
  preset === null ? `draft=${id}` : `preset=${preset}${version === null ? "" : `&version=${version}`}`;

const WAYS = ["preset", "version", "new", "draft"];

/** What of an address says which draft is meant; null for one of a strip, or of nothing. */
function wantedOf(params: URLSearchParams): string | null {
  if (params.has("project")) return null;
  const said = new URLSearchParams([...params].filter(([name]) => WAYS.includes(name)));
  return said.size === 0 ? null : said.toString();
}

async function openWanted(queries: QueryClient, wanted: string, tempo: number): Promise<ProjectBody> {
  const said = new URLSearchParams(wanted);
  const [id, version, scratch] = [said.get("draft"), said.get("version"), said.get("new")];
  const body = await (id === null
    ? api.openDraft({
        preset: said.get("preset"),
        ...(version ? { version: Number(version) } : {}),
        ...(findModel(scratch ?? "") ? { instrument: scratch ?? "" } : {}),
        tempo,
      })
    : fetchProject(queries, id));
  bring(queries, body);
  return body;
}

interface Opened {
  readonly id: string;
  /** What the draft went by when it was opened. */
  readonly opened: ProjectBody["draft"];
}

/** The draft that an address means, opened or taken up again. */
function useOpened(wanted: string | null) {
  const queries = useQueryClient();
  const tempo = useTempo();
  const draftNow = (id: string) => queries.getQueryData<ProjectBody>(KEYS.project(id))?.draft ?? null;
  return useQuery({
    queryKey: ["draft", wanted],
    enabled: wanted !== null,
    retry: false,
    staleTime: 0,
    gcTime: 0,
    queryFn: async (): Promise<Opened> => {
      const { project, draft } = await openWanted(queries, wanted ?? "", tempo);
      return { id: project.id, opened: draft };
    },
    // The same draft under another address stays on the bench.
    placeholderData: (before) => {
      const draft = before ? draftNow(before.id) : null;
      return before && draft && draftAddress(before.id, draft) === wanted ? { ...before, opened: draft } : undefined;
    },
  });
}

/** Keeps the address true to what the draft goes by. */
function useTrueAddress(params: URLSearchParams, draft: Opened | undefined): void {
  const router = useRouter();
  const queries = useQueryClient();
  const { id = "", opened = null } = draft ?? {};
  const { data: goesBy } = useQuery({
    queryKey: KEYS.project(id),
    enabled: false,
    queryFn: () => fetchProject(queries, id),
    select: (body: ProjectBody) => body.draft,
  });
  const isTold = equal(opened, goesBy) && !params.has("new");
  const address = id !== "" && goesBy && !isTold ? draftAddress(id, goesBy) : null;
  const layer = params.get("layer");
  useEffect(() => {
    if (address !== null) router.replace(`/bench?${address}${layer === null ? "" : `&layer=${layer}`}`);
  }, [router, address, layer]);
}

function useDraft(params: URLSearchParams): Pick<Place, "project" | "error" | "nothing"> {
  const wanted = wantedOf(params);
  const { data, error } = useOpened(wanted);
  useTrueAddress(params, data);
  return { project: data?.id ?? null, error: error?.message ?? null, nothing: wanted === null };
}
