"use client";

import { useQueryClient } from "@tanstack/react-query";
import type { PresetRow } from "@/contracts/records";

/** Copies of sounds; each knows its original. How they are made comes with the first of them. */
export function useCopies() {
  const queries = useQueryClient();
  return {
    duplicate: async (presets: readonly PresetRow[]) => (await import("./copies")).duplicate(queries, presets),
    vary: async (preset: PresetRow) => (await import("./copies")).vary(queries, preset),
  };
}
