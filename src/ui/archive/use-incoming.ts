"use client";

import { useInfiniteQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useState } from "react";
import * as archive from "@/clients/archive";
import type { Job, JobResult } from "@/contracts/archive";
import type { ItemStanding } from "@/core/archive/comparison";
import { useAttempt } from "../kit/use-attempt";
import { useChoices } from "./use-choices";
import { useJob, useUnderWay } from "./use-job";

const PAGE = 100;

export type Brought = Extract<JobResult, { kind: "brought" }>["brought"];

const keyOf = (id: string) => ["incoming", id] as const;

/** What of a file is looked at: a group, narrowed by words, a page after the other. */
function useItems(id: string, isGone: boolean) {
  const [standing, setStanding] = useState<ItemStanding | null>(null);
  const [q, setQ] = useState("");
  const { data, error, hasNextPage, fetchNextPage } = useInfiniteQuery({
    queryKey: [...keyOf(id), standing, q],
    queryFn: ({ pageParam }) =>
      archive.lookAt(id, { ...(standing ? { standing } : {}), q, offset: pageParam, limit: PAGE }),
    initialPageParam: 0,
    getNextPageParam: ({ total }, pages) => (pages.length * PAGE < total ? pages.length * PAGE : undefined),
    placeholderData: (before) => before,
    retry: false,
    enabled: !isGone,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [first] = data?.pages ?? [];
  return {
    incoming: first?.incoming ?? null,
    error: isGone ? null : error,
    standing,
    setStanding,
    q,
    setQ,
    items: data?.pages.flatMap((one) => one.items) ?? [],
    total: first?.total ?? 0,
    more: hasNextPage ? () => void fetchNextPage() : null,
  };
}

/** A file that is to come in: held against the library, chosen from, and brought in. */
export function useIncoming(id: string) {
  const queries = useQueryClient();
  const [brought, setBrought] = useState<Brought | null>(null);
  const { job, run, stop } = useJob();
  const { refusal, busy, attempt } = useAttempt();
  const items = useItems(id, brought !== null);
  const { incoming } = items;
  const head = incoming?.head ?? null;
  const choices = useChoices(head);
  const follow = (begin: () => Promise<{ job: Job }>) =>
    void attempt(async () => {
      const result = await run(begin);
      if (result.kind === "brought") setBrought(result.brought);
      // What came in may be anything; the file itself is let go of by then.
      await queries.invalidateQueries({
        predicate: ({ queryKey }) => (result.kind === "brought") !== (queryKey[0] === "incoming"),
      });
    });
  const isWhole = incoming !== null && incoming.received === incoming.bytes;
  const compareNow = useEffectEvent(() => follow(() => archive.beginComparison(id)));
  const isToCompare = isWhole && head === null;
  useEffect(() => {
    if (isToCompare) compareNow();
  }, [isToCompare]);
  // The comparison is begun anew; what is being brought in already is waited for.
  useUnderWay(id, (running) => {
    if (running.title.startsWith("Bring in")) follow(() => Promise.resolve({ job: running }));
  });
  return {
    ...items,
    ...choices,
    head,
    isWhole,
    job,
    stop,
    refusal,
    busy,
    brought,
    bring: () => follow(() => archive.beginBringing(id, choices.request)),
  };
}

export type UsedIncoming = ReturnType<typeof useIncoming>;
