"use client";

import { keepPreviousData, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetPage, PresetQuery } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";

/** Presets fetched in one go. */
const PAGE = 60;
/** How long a page that nobody looks at any more is kept, in milliseconds. */
const KEPT = 60_000;

/** A list of any length, of which only what is looked at, and what is chosen, is here. Places count from 0. */
export interface Listing {
  readonly total: number;
  /** The first page, with what is said of the whole list. */
  readonly first: PresetPage | undefined;
  readonly isPending: boolean;
  readonly error: Error | null;
  readonly at: (place: number) => PresetRow | undefined;
  /** −1 for one that is not here. */
  readonly placeOf: (id: string) => number;
  /** What is here, in order. */
  readonly here: readonly PresetRow[];
  /** Fetches what is in sight. */
  readonly look: (from: number, to: number) => void;
  /** Keeps what is at these places here, beside what is in sight. */
  readonly hold: (places: readonly number[]) => void;
  /** Everything between two places, both among them. */
  readonly load: (from: number, to: number) => Promise<readonly PresetRow[]>;
}

const pageOf = (place: number): number => Math.floor(place / PAGE);

interface Wanted {
  readonly list: string;
  readonly from: number;
  readonly to: number;
  readonly held: readonly number[];
}

/** The presets that match, page by page as they are looked at. */
export function useListing(query: PresetQuery): Listing {
  const queries = useQueryClient();
  const list = JSON.stringify(query);
  const pageQuery = useCallback(
    (page: number) => {
      const asked = JSON.parse(list) as PresetQuery;
      return {
        queryKey: [...KEYS.presets, asked, page],
        queryFn: () => api.listPresets({ ...asked, limit: PAGE, ...(page > 0 ? { offset: page * PAGE } : {}) }),
        gcTime: KEPT,
      };
    },
    [list],
  );
  const first = useQuery({ ...pageQuery(0), placeholderData: keepPreviousData });
  const [state, setState] = useState<Wanted>({ list, from: 0, to: 0, held: [] });
  const wanted: Wanted = state.list === list ? state : { list, from: 0, to: 0, held: [] };
  const total = first.data?.total ?? 0;
  const last = Math.max(0, pageOf(total - 1));
  const pages = new Set([...wanted.held]);
  for (let page = Math.max(1, wanted.from); page <= Math.min(last, wanted.to); page++) pages.add(page);
  pages.delete(0);
  const numbers = [...pages].filter((page) => page <= last).toSorted((a, b) => a - b);
  const others = useQueries({ queries: numbers.map(pageQuery), combine: dataOf });
  const written = numbers.join(" ");
  const rows = useMemo(() => {
    const here = new Map<number, PresetRow>((first.data?.items ?? []).map((row, at) => [at, row]));
    for (const [n, page] of others.entries())
      for (const [at, row] of (page?.items ?? []).entries()) here.set(Number(written.split(" ")[n]) * PAGE + at, row);
    return { here, places: new Map([...here].map(([place, row]) => [row.id, place])) };
  }, [first.data, others, written]);
  const look = useCallback(
    (from: number, to: number) =>
      setState((now) => {
        const [a, b] = [Math.max(0, pageOf(from - PAGE / 2)), pageOf(to + PAGE / 2)];
        const held = now.list === list ? now.held : [];
        return now.list === list && now.from === a && now.to === b ? now : { list, from: a, to: b, held };
      }),
    [list],
  );
  const hold = useCallback(
    (places: readonly number[]) =>
      setState((now) => {
        const held = [...new Set(places.map(pageOf))];
        const base = now.list === list ? now : { list, from: 0, to: 0, held: [] };
        return base.held.join() === held.join() ? now : { ...base, held };
      }),
    [list],
  );
  const load = useCallback(
    async (from: number, to: number) => {
      const found: PresetRow[] = [];
      for (let page = pageOf(from); page <= pageOf(to); page++) {
        const { items } = await queries.fetchQuery({ ...pageQuery(page), staleTime: KEPT });
        found.push(...items.filter((_, at) => page * PAGE + at >= from && page * PAGE + at <= to));
      }
      return found;
    },
    [queries, pageQuery],
  );
  return {
    total,
    first: first.data,
    isPending: first.isPending,
    error: first.error,
    at: (place) => rows.here.get(place),
    placeOf: (id) => rows.places.get(id) ?? -1,
    here: useMemo(() => [...rows.here.values()], [rows]),
    look,
    hold,
    load,
  };
}

const dataOf = (results: readonly { readonly data: PresetPage | undefined }[]) => results.map((result) => result.data);

export const EMPTY_LISTING: Listing = {
  total: 0,
  first: undefined,
  isPending: false,
  error: null,
  at: () => undefined,
  placeOf: () => -1,
  here: [],
  look: () => undefined,
  hold: () => undefined,
  load: () => Promise.resolve([]),
};
