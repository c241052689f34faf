"use client";

import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { LONGEST_NAME } from "@/core/names/free";
import type { PresetRow } from "@/contracts/records";

interface Taken {
  /** Names that others have: these very ones, and the same with a number behind. */
  readonly names: readonly string[];
  /** Some of the presets that have one of them as it stands. */
  readonly presets: readonly PresetRow[];
}

const NOBODY: readonly string[] = [];

/** Who has these names, but for some. */
export function useTaken(names: readonly string[], except: readonly string[] = NOBODY): Taken {
  // Nobody has a name that is too long to be given.
  const wanted = useMemo(
    () => [...new Set(names.map((name) => name.trim()).filter((name) => name !== "" && name.length <= LONGEST_NAME))],
    [names],
  );
  // As one text: what is kept under a list of thousands is looked up at every letter.
  const key = useMemo(() => JSON.stringify(wanted), [wanted]);
  const hits = useQuery({
    queryKey: [...KEYS.presets, "taken", key],
    queryFn: () => api.listTaken(wanted),
    enabled: wanted.length > 0,
    placeholderData: (before) => before,
  });
  const found = wanted.length > 0 ? hits.data : undefined;
  return useMemo(() => {
    const spared = new Set(except);
    const { taken = [], presets = [] } = found ?? {};
    return {
      names: taken.filter(({ id }) => !spared.has(id)).map(({ name }) => name),
      presets: presets.filter(({ id }) => !spared.has(id)),
    };
  }, [found, except]);
}
