"use client";

import equal from "fast-deep-equal";
import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRouter, useSearchParams } from "next/navigation";
import { useEffect } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { NewDraft, ProjectBody } from "@/contracts/projects";
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
  /** Where a layer of it stands, or, for null, itself: an address that opens nothing anew, also while a new one's is still on its way. */
  readonly addressOf: (layer: string | null) => string;
}

const addressFrom = (said: string) => (layer: string | null) =>
  `/bench?${said}${layer === null ? "" : `&layer=${encodeURIComponent(layer)}`}`;

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
    : {
        project,
        strip,
        layer,
        error: null,
        nothing: false,
        addressOf: addressFrom(new URLSearchParams({ project, ...(strip === null ? {} : { strip }) }).toString()),
      };
}

/** The address of what a draft goes by: the sound it is of, or, while it is of none, itself. */
export const draftAddress = (id: string, { preset, version }: NonNullable<ProjectBody["draft"]>): string =>
  preset === null ? `draft=${id}` : `preset=${preset}${version === null ? "" : `&version=${version}`}`;

const WAYS = ["preset", "version", "new", "draft", "then", "at", "strip", "name"];

/** The address of a strip as it was after a change of its project, on the bench: a copy, to look at and to turn. */
export const thenAddress = (
  project: string,
  { revision, strip, name }: { readonly revision: number; readonly strip: string; readonly name: string },
): string => `/bench?${new URLSearchParams({ then: project, at: String(revision), strip, name })}`;

/** The moment that an address means; nothing where it means none. */
function momentIn(said: URLSearchParams): Pick<NewDraft, "moment"> {
  const project = said.get("then");
  if (project === null) return {};
  const [revision, strip, name] = [Number(said.get("at")), said.get("strip") ?? "", said.get("name") ?? "As it was"];
  return { moment: { project, revision, strip, name } };
}

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
        ...momentIn(said),
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

/** Keeps the address true to what the draft goes by, and says it; null before there is a draft. */
function useTrueAddress(params: URLSearchParams, draft: Opened | undefined): string | null {
  const router = useRouter();
  const queries = useQueryClient();
  const { id = "", opened = null } = draft ?? {};
  const { data: goesBy } = useQuery({
    queryKey: KEYS.project(id),
    enabled: false,
    queryFn: () => fetchProject(queries, id),
    select: (body: ProjectBody) => body.draft,
  });
  const isTold = equal(opened, goesBy) && !params.has("new") && !params.has("then");
  const address = id !== "" && goesBy ? draftAddress(id, goesBy) : null;
  const layer = params.get("layer");
  useEffect(() => {
    if (address !== null && !isTold) router.replace(addressFrom(address)(layer));
  }, [router, address, isTold, layer]);
  return address;
}

function useDraft(params: URLSearchParams): Pick<Place, "project" | "error" | "nothing" | "addressOf"> {
  const wanted = wantedOf(params);
  const { data, error } = useOpened(wanted);
  const address = useTrueAddress(params, data);
  return {
    project: data?.id ?? null,
    // What was opened once stays, though a line breaks later.
    error: data ? null : (error?.message ?? null),
    nothing: wanted === null,
    addressOf: addressFrom(address ?? wanted ?? ""),
  };
}
