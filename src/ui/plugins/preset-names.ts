"use client";

import { useQueries } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";

/** The names of presets, wherever in the library they stand; "…" until a name is known. */
export function usePresetNames(ids: readonly string[]): (id: string) => string {
  const presets = [...new Set(ids)];
  return useQueries({
    queries: presets.map((id) => ({
      queryKey: [...KEYS.preset(id), "detail"],
      queryFn: () => api.getPreset(id),
    })),
    combine: (answers) => {
      const names = new Map(
        answers.map(({ data, isPending }, at) => [
          presets[at],
          data?.place === "library" ? data.preset.card.name : isPending ? "…" : "a preset that is gone",
        ]),
      );
      return (id: string) => names.get(id) ?? "…";
    },
  });
}
