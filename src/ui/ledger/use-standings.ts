"use client";

import { useQueries, useQueryClient } from "@tanstack/react-query";
import DataLoader from "dataloader";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { SavedVersion } from "@/contracts/library";
import type { PresetRef } from "@/core/chains/chain";
import { describeDifferences } from "@/core/chains/differences";
import { contentMeant } from "@/core/presets/meant";
import type { Content } from "@/core/presets/preset";
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

const nameOf = ({ preset, version }: Pick<PresetRef, "preset" | "version">): string => `${preset} ${version}`;

/** What many strips came from is asked for at once. Of what is not there nothing comes. */
const versions = new DataLoader(
  async (wanted: readonly Pick<PresetRef, "preset" | "version">[]): Promise<readonly (SavedVersion | null)[]> => {
    const found = await api.listSaved(wanted.map(({ preset, version }) => ({ preset, version })));
    const byName = new Map(found.versions.map((saved) => [nameOf(saved), saved]));
    return wanted.map((one) => byName.get(nameOf(one)) ?? null);
  },
  { cache: false, maxBatchSize: 500 },
);

/** By how much each strip differs from each content that it was held against: neither ever changes. */
const KNOWN = new WeakMap<Strip, WeakMap<Content, string | null>>();

function differsFrom(strip: Strip, saved: Content, reference: PresetRef): string | null {
  const known = KNOWN.get(strip) ?? new WeakMap<Content, string | null>();
  KNOWN.set(strip, known);
  const before = known.get(saved);
  if (before !== undefined) return before;
  const meant = contentMeant(saved, reference);
  const differences = meant ? differencesFrom(strip, meant) : [];
  const differs = differences.length > 0 ? describeDifferences(differences) : null;
  known.set(saved, differs);
  return differs;
}

/** Of every strip that came from a preset. */
export function useStandings(strips: readonly Strip[]): ReadonlyMap<string, Standing> {
  const references = new Map(strips.map((strip) => [strip.id, referenceOf(strip)]));
  const wanted = [
    ...new Map([...references.values()].flatMap((from) => (from ? [[nameOf(from), from] as const] : []))).values(),
  ];
  return useQueries({
    queries: wanted.map(({ preset, version }) => ({
      queryKey: [...KEYS.preset(preset), "saved", version],
      queryFn: () => versions.load({ preset, version }),
      staleTime: Number.POSITIVE_INFINITY,
    })),
    combine: (results) => {
      const saved = new Map(results.flatMap(({ data }) => (data ? [[nameOf(data), data] as const] : [])));
      const found = new Map<string, Standing>();
      for (const strip of strips) {
        const reference = references.get(strip.id);
        if (!reference) continue;
        const { newest = 0, content } = saved.get(nameOf(reference)) ?? {};
        found.set(strip.id, {
          reference,
          differs: content ? differsFrom(strip, content, reference) : null,
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
