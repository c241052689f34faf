"use client";

import { useQueries, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRef } from "@/core/chains/chain";
import { describeDifferences } from "@/core/chains/differences";
import { contentMeant } from "@/core/presets/as-strip";
import { differencesFrom, referenceOf } from "@/core/presets/standing";
import type { Strip } from "@/core/strips/strip";
import { takeVersion } from "../plan/take-version";

/** How a strip stands to the preset that all of its sound came from. */
export interface Standing {
  readonly reference: PresetRef;
  /** "1 value", "2 plugins and 3 values"; null where it is as saved, or that is not known yet. */
  readonly differs: string | null;
  /** The newest version, where that is a later one. */
  readonly newer: number | null;
}

const nameOf = ({ preset, version }: PresetRef): string => `${preset} ${version}`;

/** Of every strip that came from a preset. */
export function useStandings(strips: readonly Strip[]): ReadonlyMap<string, Standing> {
  const references = new Map(strips.map((strip) => [strip.id, referenceOf(strip)]));
  const wanted = [
    ...new Map([...references.values()].flatMap((from) => (from ? [[nameOf(from), from] as const] : []))).values(),
  ];
  return useQueries({
    queries: wanted.map((from) => ({
      queryKey: KEYS.version(from.preset, from.version),
      queryFn: () => api.getPreset(from.preset, from.version),
      staleTime: Number.POSITIVE_INFINITY,
      retry: false,
    })),
    combine: (results) => {
      const found = new Map<string, Standing>();
      for (const strip of strips) {
        const reference = references.get(strip.id);
        if (!reference) continue;
        const detail = results[wanted.findIndex((w) => nameOf(w) === nameOf(reference))]?.data;
        const content = detail && contentMeant(detail.preset.content, reference);
        const differences = content ? differencesFrom(strip, content) : [];
        const newest = Math.max(0, ...(detail?.versions ?? []).map((v) => v.version));
        found.set(strip.id, {
          reference,
          differs: differences.length > 0 ? describeDifferences(differences) : null,
          newer: newest > reference.version ? newest : null,
        });
      }
      return found;
    },
  });
}

/** Lets each of some strips sound as the newest version of what it came from; those of one preset are one change. */
export function useTakeNewest(project: string, standings: ReadonlyMap<string, Standing>) {
  const queries = useQueryClient();
  return async (strips: readonly string[]): Promise<void> => {
    const late = strips.flatMap((strip) => {
      const { reference, newer } = standings.get(strip) ?? {};
      return reference && newer ? [{ strip, reference, newer }] : [];
    });
    for (const preset of new Set(late.map(({ reference }) => reference.preset))) {
      const followers = late.filter(({ reference }) => reference.preset === preset);
      const [first] = followers;
      if (!first) continue;
      const { newer: version, reference } = first;
      const label = `Take version ${version} of “${reference.name}”`;
      await takeVersion({ queries, project, followers, version, label });
    }
  };
}
