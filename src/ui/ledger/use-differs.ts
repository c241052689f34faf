"use client";

import { useQueries } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { describeDifferences, differencesOf } from "@/core/chains/differences";
import { chainOf } from "@/core/presets/preset";
import type { Strip } from "@/core/strips/strip";

/** For each strip that came from a preset and is not as saved: "1 value", "2 plugins and 3 values". */
export function useDiffers(strips: readonly Strip[]): ReadonlyMap<string, string> {
  const wanted = [
    ...new Map(
      strips.flatMap((s) =>
        s.inserts.from ? [[`${s.inserts.from.preset} ${s.inserts.from.version}`, s.inserts.from] as const] : [],
      ),
    ).values(),
  ];
  return useQueries({
    queries: wanted.map((from) => ({
      queryKey: KEYS.version(from.preset, from.version),
      queryFn: () => api.getPreset(from.preset, from.version),
      staleTime: Number.POSITIVE_INFINITY,
      retry: false,
    })),
    combine: (results) => {
      const found = new Map<string, string>();
      for (const strip of strips) {
        const { from } = strip.inserts;
        const at = wanted.findIndex((w) => w.preset === from?.preset && w.version === from.version);
        const content = results[at]?.data?.preset.content;
        const differences = content ? differencesOf(chainOf(content), strip.inserts) : [];
        if (differences.length > 0) found.set(strip.id, describeDifferences(differences));
      }
      return found;
    },
  });
}
