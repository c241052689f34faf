"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { Action } from "../actions/actions";
import { useLastTouched } from "../actions/last-touched";
import { orSay, say } from "../kit/say";
import { refetchLibrary } from "./filing";

/** Undo and redo of how the library is filed. */
export function useLibraryHistory(): readonly Action[] {
  const queries = useQueryClient();
  const history = useQuery({ queryKey: KEYS.libraryHistory, queryFn: api.libraryHistory }).data?.history;
  const isLast = useLastTouched((t) => t.last) !== "project";
  const walk = async (direction: "undo" | "redo", words: string) => {
    await api.walkLibrary(direction);
    await refetchLibrary(queries);
    say(`${direction === "undo" ? "Taken back" : "Done again"}: ${words}`);
  };
  const actions: [direction: "undo" | "redo", word: string, keys: readonly string[]][] = [
    ["undo", "Undo", ["Ctrl+Z"]],
    ["redo", "Redo", ["Ctrl+Shift+Z", "Ctrl+Y"]],
  ];
  return actions.map(([direction, word, keys]) => {
    const words = history?.[direction] ?? null;
    return {
      id: `${direction}-filing`,
      title: words === null ? `${word} in the library` : `${word}: ${words}`,
      group: "Filing",
      // Where a project was touched last, the keys are for that.
      keys: isLast && words !== null ? keys : [],
      enabled: words !== null,
      run: () => words !== null && orSay(walk(direction, words)),
    };
  });
}
