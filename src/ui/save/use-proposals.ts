"use client";

import { useQuery } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { type PresetRef, isOfSet, originsOf } from "@/core/chains/chain";
import { type Proposal, proposeCard } from "@/core/library/proposal";
import { wordsOf } from "@/core/names/words";
import { type Subject, presetRef } from "./proposal";

/** Sounds that are looked through for how those of a strip's name are filed. */
const LOOKED_THROUGH = 60;

export interface Known {
  readonly proposal: Proposal;
  /** The preset that the thing was loaded from, as it is now. */
  readonly loaded: PresetRow | null;
  /** The set of which it is a strip. */
  readonly set: PresetRow | null;
}

/** What a thing was loaded from, as it is now; it may be in the bin. */
const inLibrary = async (from: PresetRef | undefined): Promise<PresetRow | null> =>
  from
    ? api.getPreset(from.preset).then(
        ({ preset, place }) => (place === "library" ? preset : null),
        () => null,
      )
    : null;

async function lookUp(subject: Subject): Promise<Known> {
  const { artist } = subject.body.project;
  const strip = subject.body.draft ? "" : subject.strip.look.name;
  const from = presetRef(subject);
  const origins = from ? originsOf(from) : [];
  const [loaded, set] = await Promise.all([
    inLibrary(origins.find((one) => !isOfSet(one))),
    inLibrary(origins.find(isOfSet)),
  ]);
  const words = wordsOf(strip).map((word) => `"${word}"`);
  const alike = words.length > 0 ? await api.listPresets({ q: words.join(" "), limit: LOOKED_THROUGH }) : null;
  const cards = (alike?.items ?? []).map((row) => row.card);
  return { proposal: proposeCard({ artist, strip }, loaded?.card ?? null, cards), loaded, set };
}

/** A draft of a sound of the library. */
const isOfSound = ({ body }: Subject): boolean => body.draft !== null && body.draft.preset !== null;

/** What is proposed for each thing, by its strip; undefined until it is known. */
export function useProposals(subjects: readonly Subject[]): {
  readonly proposals: ReadonlyMap<string, Known> | undefined;
  /** What kind it becomes is not known yet: what it came from is on its way. */
  readonly isLookedUp: boolean;
  /** Nothing will be proposed: it could not be looked up. */
  readonly hasFailed: boolean;
} {
  const asked = subjects.map((subject) => [
    subject.body.project.id,
    subject.strip.id,
    subject.request.node,
    subject.request.layer,
  ]);
  const { data, isPending, isError } = useQuery({
    queryKey: [...KEYS.presets, "proposals", asked],
    queryFn: async () =>
      new Map(await Promise.all(subjects.map(async (subject) => [subject.strip.id, await lookUp(subject)] as const))),
    // It is filled in once; what is saved meanwhile must not write over what was typed.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
  return { proposals: data, isLookedUp: isPending && subjects.some(isOfSound), hasFailed: isError };
}
