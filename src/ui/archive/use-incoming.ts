"use client";

import { useInfiniteQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useState } from "react";
import * as archive from "@/clients/archive";
import type { IncomingRecord, Job, JobResult } from "@/contracts/archive";
import { type Choice, type Choices, type ItemStanding, STANDINGS_IN_ORDER, choicesOf } from "@/core/archive/comparison";
import { useAttempt } from "../kit/use-attempt";
import { useJob, useUnderWay } from "./use-job";
import { STANDING_WORDS } from "./words";

const PAGE = 100;

export type Brought = Extract<JobResult, { kind: "brought" }>["brought"];

/** Of a group: how many there are, and what is done with each that has no choice of its own. */
export interface Group {
  readonly standing: ItemStanding;
  readonly words: string;
  readonly about: string;
  readonly count: number;
  readonly choices: readonly Choice[];
  readonly choice: Choice;
}

const chosenIn = (standing: ItemStanding, { groups }: Choices): Choice =>
  groups[standing] ?? choicesOf({ standing })[0]!;

/** How many things come in: of each group all that have no choice of their own, and those that were chosen by themselves. */
function countTaken(
  groups: readonly Group[],
  own: ReadonlyMap<string, { standing: ItemStanding; choice: Choice }>,
): number {
  const isTaken = (choice: Choice) => choice !== "leave";
  const alone = [...own.values()];
  return groups.reduce((sum, { standing, count, choice }) => {
    const ofGroup = alone.filter((one) => one.standing === standing);
    const rest = isTaken(choice) ? count - ofGroup.length : 0;
    return sum + rest + ofGroup.filter((one) => isTaken(one.choice)).length;
  }, 0);
}

/** A file that is to come in: held against the library, chosen from, and brought in. */
export function useIncoming(id: string) {
  const queries = useQueryClient();
  const [standing, setStanding] = useState<ItemStanding | null>(null);
  const [q, setQ] = useState("");
  const [groupChoices, setGroupChoices] = useState<Choices["groups"]>({});
  const [own, setOwn] = useState<ReadonlyMap<string, { standing: ItemStanding; choice: Choice }>>(new Map());
  const [brought, setBrought] = useState<Brought | null>(null);
  const { job, run, stop } = useJob();
  const { refusal, busy, attempt } = useAttempt();
  const key = ["incoming", id];
  const page = useInfiniteQuery({
    queryKey: [...key, standing, q],
    queryFn: ({ pageParam }) =>
      archive.lookAt(id, { ...(standing ? { standing } : {}), q, offset: pageParam, limit: PAGE }),
    initialPageParam: 0,
    getNextPageParam: ({ total }, pages) => (pages.length * PAGE < total ? pages.length * PAGE : undefined),
    placeholderData: (before) => before,
    retry: false,
    enabled: brought === null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const incoming: IncomingRecord | null = page.data?.pages[0]?.incoming ?? null;
  const head = incoming?.head ?? null;
  const compare = (begin: () => Promise<{ job: Job }>) =>
    void attempt(async () => {
      await run(begin);
      await queries.invalidateQueries({ queryKey: key });
    });
  const isWhole = incoming !== null && incoming.received === incoming.bytes;
  const compareNow = useEffectEvent(() => compare(() => archive.beginComparison(id)));
  const isToCompare = isWhole && head === null;
  useEffect(() => {
    if (isToCompare) compareNow();
  }, [isToCompare]);
  useUnderWay(id, (running) => {
    if (running.title.startsWith("Bring in")) bringBy(() => Promise.resolve({ job: running }));
  });
  const choices: Choices = {
    groups: groupChoices,
    items: Object.fromEntries([...own].map(([item, { choice }]) => [item, choice])),
  };
  const bringBy = (begin: () => Promise<{ job: Job }>) =>
    void attempt(async () => {
      const result = await run(begin);
      if (result.kind !== "brought") return;
      setBrought(result.brought);
      // What came in may be anything; the file itself is let go of.
      await queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "incoming" });
    });
  const groups: readonly Group[] = STANDINGS_IN_ORDER.flatMap((one) => {
    const count = head?.counts[one] ?? 0;
    const possible = choicesOf({ standing: one });
    const group = { ...STANDING_WORDS[one], standing: one, count, choices: possible, choice: chosenIn(one, choices) };
    return count === 0 ? [] : [group];
  });
  const chooseGroup = (of: ItemStanding, choice: Choice) => {
    setGroupChoices((now) => ({ ...now, [of]: choice }));
    setOwn((now) => new Map([...now].filter(([, one]) => one.standing !== of)));
  };
  return {
    incoming,
    head,
    error: brought === null ? page.error : null,
    isWhole,
    job,
    stop,
    refusal,
    busy,
    brought,
    groups,
    standing,
    setStanding,
    q,
    setQ,
    items: page.data?.pages.flatMap((one) => one.items) ?? [],
    total: page.data?.pages[0]?.total ?? 0,
    more: page.hasNextPage ? () => void page.fetchNextPage() : null,
    taken: countTaken(groups, own),
    choiceOf: (item: { readonly key: string; readonly standing: ItemStanding }): Choice =>
      own.get(item.key)?.choice ?? chosenIn(item.standing, choices),
    chooseGroup,
    choose: (item: { readonly key: string; readonly standing: ItemStanding }, choice: Choice) =>
      setOwn((now) => new Map(now).set(item.key, { standing: item.standing, choice })),
    bring: () =>
      bringBy(() => archive.beginBringing(id, { items: { ...choices.items }, groups: { ...choices.groups } })),
  };
}

export type UsedIncoming = ReturnType<typeof useIncoming>;
