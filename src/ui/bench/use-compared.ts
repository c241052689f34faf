"use client";

import { useQueries, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { type Chain, EMPTY_CHAIN, type PresetRef, type Processor } from "@/core/chains/chain";
import { type Difference, asInPluginPresets, differencesOf, partnersOf } from "@/core/chains/differences";
import { processorsOf } from "@/core/chains/tree";
import { type Content, chainOf, withFrom } from "@/core/presets/preset";

interface Saved {
  readonly chain: Chain;
  /** Of the preset that holds all of it; null where each plugin has its own. */
  readonly content: Content | null;
}

export interface Compared {
  readonly reference: PresetRef | null;
  /** As it was saved: as a whole, or, where it never was, each plugin as its own preset has it. */
  readonly saved: Saved | null;
  readonly partners: ReadonlyMap<string, Processor>;
  readonly differences: readonly Difference[];
}

/** The preset and version that the thing on the bench is compared with. */
function referenceOf(inserts: Chain): PresetRef | null {
  if (inserts.from) return inserts.from;
  const [only, ...others] = processorsOf(inserts);
  return others.length === 0 ? (only?.from ?? null) : null;
}

/** The chain beside the preset that it came from. */
export function useCompared(base: Chain, chain: Chain): Compared {
  const reference = referenceOf(base);
  const whole = useSaved(reference);
  const parts = useSavedPlugins(reference ? EMPTY_CHAIN : base);
  const saved = whole ?? parts;
  return {
    reference,
    saved,
    partners: saved ? partnersOf(saved.chain, chain) : new Map<string, Processor>(),
    differences: saved ? differencesOf(saved.chain, chain) : [],
  };
}

function useSaved(reference: PresetRef | null): Saved | null {
  const query = useQuery({
    queryKey: KEYS.version(reference?.preset ?? "", reference?.version ?? 0),
    queryFn: () => api.getPreset(reference?.preset ?? "", reference?.version),
    enabled: reference !== null,
    retry: false,
  });
  const content = reference ? query.data?.preset.content : undefined;
  const { preset, version, name } = reference ?? {};
  return useMemo(() => {
    if (!content || preset === undefined || version === undefined || name === undefined) return null;
    return { content, chain: chainOf(withFrom(content, { preset, version, name })) };
  }, [content, preset, version, name]);
}

const processorOf = (content: Content): Processor | null => {
  const [only, ...others] = processorsOf(chainOf(content));
  return only && others.length === 0 ? only : null;
};

/** Null where no plugin came from a preset, and until they have come. */
function useSavedPlugins(chain: Chain): Saved | null {
  const origins = processorsOf(chain).flatMap((p) => p.from ?? []);
  const found = useQueries({
    queries: origins.map(({ preset, version }) => ({
      queryKey: KEYS.version(preset, version),
      queryFn: () => api.getPreset(preset, version),
      retry: false,
    })),
    combine: (answers) => answers.map(({ data }) => data?.preset.content ?? null),
  });
  return useMemo(() => {
    if (found.every((content) => content === null)) return null;
    const names = origins.map(nameOfVersion);
    const find = (from: PresetRef) => {
      const content = found[names.indexOf(nameOfVersion(from))];
      return content ? processorOf(content) : null;
    };
    return { content: null, chain: asInPluginPresets(chain, find) };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the origins stand in the chain
  }, [chain, found]);
}

const nameOfVersion = ({ preset, version }: PresetRef): string => `${preset} ${version}`;
