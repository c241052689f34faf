"use client";

import { keepPreviousData, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetPage, PresetQuery } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";

/** Presets fetched in one go. */
const PAGE = 60;
/** Presets of a long stretch that are fetched in one go, and kept by whoever asked for them. */
const CHUNK = 500;
const LONG = 4 * PAGE;
/** How long a page that nobody looks at any more is kept, in milliseconds. */
const KEPT = 60_000;

/** A list of any length, of which only what is looked at, and what is chosen, is here. Places count from 0. */
export interface Listing {
  /** Which list it is; another is another. */
  readonly list: string;
  /** When it was last fetched, in milliseconds since 1970. */
  readonly updatedAt: number;
  readonly total: number;
  /** The first page, with what is said of the whole list. */
  readonly first: PresetPage | undefined;
  readonly isPending: boolean;
  /** What is asked for has not come yet; until it does, the list before stands here. */
  readonly isOnItsWay: boolean;
  /** The beginning of the list that is asked for, when it has come. */
  readonly settle: () => Promise<readonly PresetRow[]>;
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

/** Which pages of a list are wanted: those in sight and those that are held. Another list begins anew. */
function useWanted(list: string) {
  const fresh: Wanted = { list, from: 0, to: 0, held: [] };
  const [state, setState] = useState(fresh);
  const look = useCallback(
    (from: number, to: number) =>
      setState((now) => {
        const [a, b] = [Math.max(0, pageOf(from - PAGE / 2)), pageOf(to + PAGE / 2)];
        if (now.list === list && now.from === a && now.to === b) return now;
        return { list, from: a, to: b, held: now.list === list ? now.held : [] };
      }),
    [list],
  );
  const hold = useCallback(
    (places: readonly number[]) =>
      setState((now) => {
        const held = [...new Set(places.map(pageOf))];
        if (now.list !== list) return { list, from: 0, to: 0, held };
        return now.held.join() === held.join() ? now : { ...now, held };
      }),
    [list],
  );
  return { wanted: state.list === list ? state : fresh, look, hold };
}

/** The pages that are wanted beside the first, in order. */
function numbersOf({ from, to, held }: Wanted, last: number): readonly number[] {
  const pages = new Set(held);
  for (let page = from; page <= Math.min(last, to); page++) pages.add(page);
  return [...pages].filter((page) => page > 0 && page <= last).toSorted((a, b) => a - b);
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
  const { wanted, look, hold } = useWanted(list);
  const first = useQuery({ ...pageQuery(0), placeholderData: keepPreviousData });
  const total = first.data?.total ?? 0;
  const numbers = numbersOf(wanted, Math.max(0, pageOf(total - 1)));
  const others = useQueries({ queries: numbers.map(pageQuery), combine: dataOf });
  const rows = useRows(first.data, numbers.join(" "), others);
  const load = useCallback(
    async (from: number, to: number) => {
      const found: PresetRow[] = [];
      if (to - from > LONG) {
        const asked = JSON.parse(list) as PresetQuery;
        for (let offset = from; offset <= to; offset += CHUNK) {
          const limit = Math.min(CHUNK, to - offset + 1);
          found.push(...(await api.listPresets({ ...asked, limit, ...(offset > 0 ? { offset } : {}) })).items);
        }
        return found;
      }
      for (let page = pageOf(from); page <= pageOf(to); page++) {
        const { items } = await queries.fetchQuery({ ...pageQuery(page), staleTime: KEPT });
        found.push(...items.filter((_, at) => page * PAGE + at >= from && page * PAGE + at <= to));
      }
      return found;
    },
    [queries, pageQuery, list],
  );
  const settle = useCallback(async () => (await queries.fetchQuery(pageQuery(0))).items, [queries, pageQuery]);
  const { isPending, isPlaceholderData, error, dataUpdatedAt: updatedAt } = first;
  const isOnItsWay = isPending || isPlaceholderData;
  const { data } = first;
  return useMemo(
    () => ({ list, updatedAt, total, first: data, isPending, isOnItsWay, settle, error, ...rows, look, hold, load }),
    [list, updatedAt, total, data, isPending, isOnItsWay, settle, error, rows, look, hold, load],
  );
}

/** The rows of all pages that are here. `numbers`: of the pages beside the first, with spaces between. */
function useRows(first: PresetPage | undefined, numbers: string, others: readonly (PresetPage | undefined)[]) {
  return useMemo(() => {
    const at = new Map<number, PresetRow>((first?.items ?? []).map((row, place) => [place, row]));
    const pages = numbers.split(" ").map(Number);
    for (const [n, page] of others.entries())
      for (const [place, row] of (page?.items ?? []).entries()) at.set((pages[n] ?? 0) * PAGE + place, row);
    const places = new Map([...at].map(([place, row]) => [row.id, place]));
    return {
      at: (place: number) => at.get(place),
      placeOf: (id: string) => places.get(id) ?? -1,
      here: [...at.values()],
    };
  }, [first, numbers, others]);
}

const dataOf = (results: readonly { readonly data: PresetPage | undefined }[]) => results.map((result) => result.data);

export const EMPTY_LISTING: Listing = {
  list: "",
  updatedAt: 0,
  total: 0,
  first: undefined,
  isPending: false,
  isOnItsWay: false,
  settle: () => Promise.resolve([]),
  error: null,
  at: () => undefined,
  placeOf: () => -1,
  here: [],
  look: () => undefined,
  hold: () => undefined,
  load: () => Promise.resolve([]),
};
