"use client";

import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { create } from "zustand";
import { persist } from "zustand/middleware";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectRow } from "@/contracts/records";
import { type Drawer, type Figure, type Sort, isFound, isIn, sorted } from "./filing";

interface Laid {
  readonly drawer: Drawer;
  readonly sort: Sort;
}

/** Which drawer is open, and how what lies in it stands; it survives a reload. */
const useLaid = create<Laid>()(
  persist((): Laid => ({ drawer: { of: "all" }, sort: { by: "changed", reversed: false } }), {
    name: "diathesis.projects",
  }),
);

/** So many are counted in one go. */
const AT_ONCE = 40;

const NO_ROWS: readonly ProjectRow[] = [];

/** What is counted of projects, as soon as it is; those first that stand first. */
function useFigures(rows: readonly ProjectRow[]): ReadonlyMap<string, Figure> {
  const ids = rows.map(({ id }) => id).toSorted();
  const parts = Array.from({ length: Math.ceil(ids.length / AT_ONCE) }, (_, at) =>
    ids.slice(at * AT_ONCE, (at + 1) * AT_ONCE),
  );
  return useQueries({
    queries: parts.map((part) => ({
      queryKey: [...KEYS.projects, "figures", part.join(",")],
      queryFn: () => api.listFigures(part),
      placeholderData: keepPreviousData,
    })),
    combine: (results) =>
      new Map(results.flatMap(({ data }) => data?.figures.map((figure) => [figure.id, figure] as const) ?? [])),
  });
}

/** The projects that are shown, and what chooses them. */
export function useProjects() {
  const { drawer, sort } = useLaid();
  const [words, setWords] = useState("");
  const kept = useQuery({ queryKey: KEYS.projects, queryFn: () => api.listProjects() });
  const bin = useQuery({ queryKey: [...KEYS.projects, "binned"], queryFn: () => api.listProjects(true) });
  const all = kept.data?.projects ?? NO_ROWS;
  const binned = bin.data?.projects ?? NO_ROWS;
  const inDrawer = (drawer.of === "bin" ? binned : all).filter((row) => isIn(drawer, row));
  const figures = useFigures(inDrawer);
  return {
    all,
    binned,
    figures,
    drawer,
    sort,
    words,
    setWords,
    isPending: drawer.of === "bin" ? bin.isPending : kept.isPending,
    error: drawer.of === "bin" ? bin.error : kept.error,
    /** What lies in the drawer, before words narrow it. */
    inDrawer: inDrawer.length,
    rows: sorted(
      inDrawer.filter((row) => isFound(row, words)),
      sort,
      figures,
    ),
    setDrawer: (next: Drawer) => useLaid.setState({ drawer: next }),
    /** By the same once more: the other way round. */
    sortBy: (by: Sort["by"]) => useLaid.setState({ sort: { by, reversed: sort.by === by ? !sort.reversed : false } }),
  };
}

export type ProjectsShown = ReturnType<typeof useProjects>;
