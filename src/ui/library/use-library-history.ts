"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { Action } from "../actions/actions";
import { useLastTouched } from "../actions/last-touched";
import { orSay, say, sayError } from "../kit/say";
import { inFilingLine, refetchWalked, useFilingUnderWay, wordsOfWalk } from "./filing";
import { withProgress } from "./long-work";

/** Undo and redo of how the library is filed. */
export function useLibraryHistory(): readonly Action[] {
  const queries = useQueryClient();
  const history = useQuery({ queryKey: KEYS.libraryHistory, queryFn: api.libraryHistory }).data?.history;
  const isLast = useLastTouched((t) => t.last) !== "project";
  const isUnderWay = useFilingUnderWay(({ changes }) => changes > 0);
  const walk = (direction: "undo" | "redo") =>
    inFilingLine(async () => {
      // Of quick presses the last may find that all has been taken back.
      if ((await api.libraryHistory()).history[direction] === null)
        return sayError(`There is nothing to ${direction}.`);
      const { walked, presets } = await withProgress(direction === "undo" ? "Undo" : "Redo", () =>
        api.walkLibrary(direction),
      );
      await refetchWalked(queries, presets);
      say(wordsOfWalk(direction, walked));
    });
  const actions: [direction: "undo" | "redo", word: string, keys: readonly string[]][] = [
    ["undo", "Undo", ["Ctrl+Z"]],
    ["redo", "Redo", ["Ctrl+Shift+Z", "Ctrl+Y"]],
  ];
  return actions.map(([direction, word, keys]) => {
    // Until it is known, the keys are taken at their word: the store is asked, and says so where there is nothing.
    const words = history?.[direction];
    const canWalk = words !== null || (direction === "undo" && isUnderWay);
    return {
      id: `${direction}-filing`,
      title: words ? `${word}: ${words}` : `${word} in the library`,
      group: "Filing",
      past: true,
      // Where a project was touched last, the keys are for that.
      keys: isLast && canWalk ? keys : [],
      enabled: canWalk,
      run: () => orSay(walk(direction)),
    };
  });
}
