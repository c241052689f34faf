"use client";

import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectHistoryPage } from "@/contracts/history";
import { formatMoment } from "../kit/dates";

export type Change = ProjectHistoryPage["items"][number];

/** Changes that come in one go. */
const PAGE = 60;

interface Asked {
  readonly id: string;
  /** Of the project as it is: with another there is more history. */
  readonly revision: number;
  readonly q: string;
  readonly strip: string | null;
}

/** What was done to a project, the newest first, page by page as it is asked for. */
export function useMoments({ id, revision, q, strip }: Asked) {
  const asked = useInfiniteQuery({
    queryKey: [...KEYS.project(id), "history", q, strip, revision],
    queryFn: ({ pageParam }) =>
      api.listHistory(id, {
        limit: PAGE,
        ...(q === "" ? {} : { q }),
        ...(strip === null ? {} : { strip }),
        ...(pageParam === null ? {} : { before: pageParam }),
      }),
    initialPageParam: null as number | null,
    getNextPageParam: ({ items, more }) => (more ? (items.at(-1)?.n ?? null) : null),
    placeholderData: keepPreviousData,
  });
  return { ...asked, changes: asked.data?.pages.flatMap(({ items }) => items) ?? [] };
}

/** "27 Nov 2026, 14:03, after “Level: −3.0 dB”", by the change that a moment comes after. */
export function useMomentWords(id: string, n: number): string {
  const { data } = useQuery({
    queryKey: [...KEYS.project(id), "change", n],
    queryFn: () => api.listHistory(id, { before: n + 1, limit: 1 }),
    enabled: n > 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [change] = data?.items ?? [];
  if (n === 0) return "Its beginning";
  return change ? `${formatMoment(change.at)}, after “${change.label}”` : "";
}
