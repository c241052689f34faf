"use client";

import { useQuery } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";

/** Names that are looked up in one go; who gives more at once is told of clashes when they are given. */
const MOST = 500;

/** The presets that have one of these very names, but for some. */
export function useTaken(names: readonly string[], except: readonly string[] = []): readonly PresetRow[] {
  const wanted = [...new Set(names.map((name) => name.trim()).filter((name) => name !== ""))].slice(0, MOST);
  const only = `name:${wanted.map((name) => `"${name.replaceAll('"', "")}"`).join(",")}`;
  const hits = useQuery({
    queryKey: [...KEYS.presets, "taken", only],
    queryFn: () => api.listPresets({ only, limit: MOST }),
    enabled: wanted.length > 0,
    placeholderData: (before) => before,
  });
  return (hits.data?.items ?? []).filter((preset) => !except.includes(preset.id));
}
