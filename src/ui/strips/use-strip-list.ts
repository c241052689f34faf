"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { StripRow } from "@/contracts/records";
import { areBegun, wordsOf } from "@/core/names/words";
import { ledgerOrder } from "@/core/projects/nesting";
import type { Brought } from "../plan/address";
import { useProjectAt } from "../plan/sources";

/** So many are shown of all; who looks for one types a word more. */
const MOST = 100;

/** Where strips are looked for: in all projects, or in one as it is or was. */
export interface Where {
  readonly project: string | null;
  readonly revision: number | undefined;
}

export const EVERYWHERE: Where = { project: null, revision: undefined };

export const keyOf = ({ project, strip }: StripRow): string => `${project} ${strip.id}`;

/** Strips that words find, in all projects or in one, in the order in which they are shown. */
function useFound(words: string, { project, revision }: Where) {
  const all = useQuery({
    queryKey: [...KEYS.projects, "strips", words],
    queryFn: () => api.findStrips({ q: words, limit: MOST }),
    enabled: project === null,
    placeholderData: keepPreviousData,
  });
  const one = useProjectAt(project, revision);
  const body = one.data;
  const ofOne = useMemo(() => {
    if (project === null || !body) return null;
    const typed = wordsOf(words);
    const { id, name, artist, song, tempo } = body.project;
    const sounding = ledgerOrder(body.project).filter(({ kind }) => kind !== "folder");
    const rows = sounding.map((strip): StripRow => {
      return { project: id, projectName: name, artist, song, tempo, changedAt: "", strip };
    });
    return rows.filter(({ strip }) => areBegun(typed, wordsOf(strip.look.name)));
  }, [project, body, words]);
  if (project !== null)
    return { rows: ofOne ?? [], total: ofOne?.length ?? 0, isPending: one.isPending, error: one.error };
  const { data, isPending, error } = all;
  return { rows: data?.items ?? [], total: data?.total ?? 0, isPending, error };
}

export type Choosing = "only" | "also" | "upTo";

/** Strips that are found, and which of them are chosen: some of one project, since they are brought as they stand together. */
export function useStripList(words: string, where: Where) {
  const found = useFound(words, where);
  const { rows } = found;
  const [marked, setMarked] = useState<readonly string[]>([]);
  const [cursor, setCursor] = useState<string | null>(null);
  const at = Math.max(
    0,
    rows.findIndex((row) => keyOf(row) === cursor),
  );
  const here = rows[at] ?? null;
  const chosen = rows.filter((row) => row === here || (row.project === here?.project && marked.includes(keyOf(row))));
  const choose = (to: number, how: Choosing) => {
    const row = rows[Math.min(rows.length - 1, Math.max(0, to))];
    if (!row) return;
    const key = keyOf(row);
    if (how === "only") setMarked([]);
    if (how === "also")
      setMarked(marked.includes(key) ? marked.filter((one) => one !== key) : [...chosen.map(keyOf), key]);
    if (how === "upTo") {
      const [from, last] = [Math.min(at, rows.indexOf(row)), Math.max(at, rows.indexOf(row))];
      setMarked([...new Set([...chosen.map(keyOf), ...rows.slice(from, last + 1).map(keyOf)])]);
    }
    setCursor(key);
  };
  const brought: Brought | null = here && {
    project: here.project,
    strips: chosen.map(({ strip }) => strip.id),
    ...(where.revision === undefined ? {} : { revision: where.revision }),
  };
  return { ...found, at, here, chosen, choose, brought };
}

export type StripList = ReturnType<typeof useStripList>;
