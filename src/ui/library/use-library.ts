"use client";

import { useQuery } from "@tanstack/react-query";
import { usePathname, useSearchParams } from "next/navigation";
import { useCallback } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetQuery } from "@/contracts/library";
import { cutQuery } from "@/core/search/query";
import { pathsOf } from "@/core/library/folders";
import type { Folder } from "@/contracts/records";

export type Filter = "q" | "only" | "folder" | "sort";

/** What is looked for, kept in the address: back, reload and bookmarks bring it again. */
export function useFilters() {
  const params = useSearchParams();
  const path = usePathname();
  const get = (name: Filter): string | undefined => params.get(name) ?? undefined;
  const query: PresetQuery = {
    q: cutQuery(get("q") ?? "") || undefined,
    only: get("only"),
    folder: get("folder"),
    sort: get("sort") as PresetQuery["sort"],
  };
  const set = useCallback(
    (changes: Partial<Record<Filter, string | undefined>>, remember = true) => {
      const next = new URLSearchParams(window.location.search);
      for (const [name, value] of Object.entries(changes)) {
        if (value) next.set(name, value);
        else next.delete(name);
      }
      const address = next.size > 0 ? `${path}?${next}` : path;
      if (remember) window.history.pushState(null, "", address);
      else window.history.replaceState(null, "", address);
    },
    [path],
  );
  return { query, set };
}

export const useFolders = () => useQuery({ queryKey: KEYS.folders, queryFn: api.listFolders });

const PATHS = new WeakMap<readonly Folder[], ReadonlyMap<string, string>>();

/** "Voices / Choir". Of one list all are made at once. */
export function folderPath(folder: Folder, folders: readonly Folder[]): string {
  const paths = PATHS.get(folders) ?? pathsOf(folders);
  PATHS.set(folders, paths);
  return paths.get(folder.id) ?? folder.name;
}
