"use client";

import { useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { SweepWrappedUp } from "@/contracts/wrap-up";
import { counted } from "@/core/names/count";
import { errorText } from "../kit/error-text";
import { say, sayError } from "../kit/say";

/** A wrap-up that can be taken back, by way of one of its projects. */
export type Undo = NonNullable<SweepWrappedUp["undo"]>;

const SAID = "wrap-up";

/** Says what was filed, with the way back, and takes it back. `called`: what was wrapped up. */
export function useFiling(called: string) {
  const queries = useQueryClient();
  const refetch = () =>
    Promise.all(
      [KEYS.presets, KEYS.folders, KEYS.libraryHistory, KEYS.projects, ["project"], KEYS.sweeps].map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      ),
    );
  const takeBack = async ({ project, ...undo }: Undo, words: string) => {
    try {
      await api.undoWrapUp(project, undo);
      await refetch();
      // In place of the message that offers it.
      say(`Taken back: ${words}`, { id: SAID });
    } catch (error) {
      sayError(errorText(error));
    }
  };
  /** After something was filed: so many, or nothing. */
  const done = async (filed: number, undo: Undo | null) => {
    await refetch();
    if (!undo) return say(`Wrapped up ${called}: nothing was filed`);
    const words = `Filed ${counted(filed, "sound")} of ${called}`;
    say(words, { id: SAID, action: { label: "Undo", onClick: () => void takeBack(undo, words) } });
  };
  return { done, takeBack };
}
