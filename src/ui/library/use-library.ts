"use client";

import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "next/navigation";
import { useCallback } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetQuery } from "@/contracts/library";
import { cutQuery } from "@/core/search/written";
import { pathsOf } from "@/core/library/folders";
import type { Folder } from "@/contracts/records";
import { searchNow, writeSearch } from "./in-address";
import { useLastList } from "./last-list";

export type Filter = "q" | "only" | "folder" | "sort" | "columns";

type Changes = Partial<Record<Filter, string | undefined>>;

/**
 * Changes what is looked for; a function is given what is looked for by now, which a screen is told of more slowly than two
 * presses follow each other.
 */
export type SetFilters = (changes: Changes | ((now: PresetQuery) => Changes)) => void;

function queryIn(params: Pick<URLSearchParams, "get">): PresetQuery {
  const get = (name: Filter): string | undefined => params.get(name) ?? undefined;
  return {
    q: cutQuery(get("q") ?? "") || undefined,
    only: get("only"),
    folder: get("folder"),
    sort: get("sort") as PresetQuery["sort"],
  };
}

/** What is looked for, kept in the address: back, reload and bookmarks bring it again. */
export function useFilters() {
  const params = useSearchParams();
  const query = queryIn(params);
  const lastColumns = useLastList((last) => last.columns);
  const columns = params.get("columns") ?? lastColumns;
  const set = useCallback((changes: Changes | ((now: PresetQuery) => Changes), remember = true) => {
    const next = searchNow();
    const given = typeof changes === "function" ? changes(queryIn(next)) : changes;
    for (const [name, value] of Object.entries(given)) {
      if (value) next.set(name, value);
      else next.delete(name);
    }
    // Another list has another place.
    for (const name of ["sound", "version", "compare"]) next.delete(name);
    writeSearch(next, remember);
  }, []);
  return { query, columns, set };
}

export const useFolders = () => useQuery({ queryKey: KEYS.folders, queryFn: api.listFolders });

const PATHS = new WeakMap<readonly Folder[], ReadonlyMap<string, string>>();

/** "Voices / Choir" of each, by its id. Of one list all are made at once. */
export function folderPaths(folders: readonly Folder[]): ReadonlyMap<string, string> {
  const paths = PATHS.get(folders) ?? pathsOf(folders);
  PATHS.set(folders, paths);
  return paths;
}

export const folderPath = (folder: Folder, folders: readonly Folder[]): string =>
  folderPaths(folders).get(folder.id) ?? folder.name;
