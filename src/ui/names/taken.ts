"use client";

import { useQuery } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";

interface Taken {
  /** Names that others have: these very ones, and the same with a number behind. */
  readonly names: readonly string[];
  /** Some of the presets that have one of them as it stands. */
  readonly presets: readonly PresetRow[];
}

/** Who has these names, but for some. */
export function useTaken(names: readonly string[], except: readonly string[] = []): Taken {
  const wanted = [...new Set(names.map((name) => name.trim()).filter((name) => name !== ""))];
  const hits = useQuery({
    queryKey: [...KEYS.presets, "taken", wanted],
    queryFn: () => api.listTaken(wanted),
    enabled: wanted.length > 0,
    placeholderData: (before) => before,
  });
  const { taken = [], presets = [] } = (wanted.length > 0 && hits.data) || {};
  const spared = new Set(except);
  return {
    names: taken.filter(({ id }) => !spared.has(id)).map(({ name }) => name),
    presets: presets.filter(({ id }) => !spared.has(id)),
  };
}
