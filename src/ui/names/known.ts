"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ValuesQuery } from "@/contracts/library";

/** As many as are offered. */
const MOST = 20;

/** What cards say in a field, the most frequent first, by how it begins. */
export function useKnown(field: ValuesQuery["field"], begun: string, isWanted = true): readonly string[] {
  const typed = useDeferredValue(begun.trim());
  const asked = { field, order: "count" as const, limit: MOST, ...(typed === "" ? {} : { begun: typed }) };
  const known = useQuery({
    queryKey: [...KEYS.presets, "values", asked],
    queryFn: () => api.listValues(asked),
    placeholderData: keepPreviousData,
    enabled: isWanted,
  });
  return (known.data?.values ?? []).map(({ value }) => value);
}
