"use client";

import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { Sweep, SweepFinds, SweepWrapUp } from "@/contracts/wrap-up";
import { errorText } from "../kit/error-text";
import { orSay, sayError } from "../kit/say";
import { sweptBlocks } from "./rows";
import { type Undo, useFiling } from "./use-filing";
import { useFindings } from "./use-findings";

/** Between one look at how far it is and the next, in milliseconds. */
const OFTEN = 700;
/** Things that are shown at first, and at the most. */
const SHOWN = 200;
const MOST_SHOWN = 500;

/** How far the last sweep is; null where none was begun. */
export const useLastSweep = () =>
  useQuery({
    queryKey: KEYS.sweep,
    queryFn: () => api.lastSweep(),
    staleTime: 0,
    refetchInterval: ({ state }) => (state.data?.sweep?.isRunning ? OFTEN : false),
  });

/** What a sweep has found so far; fetched anew as more is found. */
export function useSweepFinds({ id, stamp }: Sweep) {
  const [limit, setLimit] = useState(SHOWN);
  const finds = useQuery({
    queryKey: [...KEYS.found(id), stamp, limit],
    queryFn: () => api.sweepFinds(id, limit),
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  return { finds, showMore: limit < MOST_SHOWN ? () => setLimit(MOST_SHOWN) : null };
}

/** What was filed last of a sweep, by its id. */
const LAST = new Map<string, Undo>();

/** The wrap-up of many projects: what was found in them, and how that is filed, and taken back. */
export function useSweepWrapUp({ id, called }: Sweep, found: SweepFinds) {
  const queries = useQueryClient();
  const findings = useFindings(
    `sweep ${id}`,
    useMemo(() => sweptBlocks(found), [found]),
  );
  const { done, takeBack } = useFiling(called);
  const [last, setLast] = useState(() => LAST.get(id) ?? null);
  const remember = (undo: Undo | null) => {
    if (undo) LAST.set(id, undo);
    else LAST.delete(id);
    setLast(undo);
  };
  return {
    findings,
    change: (isRunning: boolean) =>
      orSay(api.changeSweep(id, isRunning).then((body) => queries.setQueryData(KEYS.sweep, body))),
    file: async () => {
      const request: SweepWrapUp = {
        file: findings.filed.map((filed) => ({ id: filed.row.key, as: findings.asFiled(filed) })),
        left: findings.passedOver().map(({ key }) => key),
      };
      const filed = await api.wrapUpSweep(id, request).catch(async (error: unknown) => {
        // Another may have taken the place of this one: then its screen stands here.
        sayError(errorText(error));
        await queries.invalidateQueries({ queryKey: KEYS.sweeps });
        return null;
      });
      if (!filed) return;
      const { presets, undo } = filed;
      remember(undo);
      await done(presets.length, undo);
      findings.forget();
    },
    /** Takes what was filed last back, as long as this sweep is there. */
    takeBack:
      last &&
      (async () => {
        await takeBack(last, `Wrap-up of ${called}`);
        remember(null);
      }),
  };
}
