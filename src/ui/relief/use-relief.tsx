"use client";

import { type ReactNode, useState } from "react";
import type { Project } from "@/core/projects/project";
import { reliefsOf } from "@/core/projects/reliefs";
import { useActions } from "../actions/actions";
import type { MenuGroup } from "../kit/menu";
import type { ProjectEditing } from "../projects/editing";
import { PutBackSheet } from "./put-back-sheet";
import { ReliefSheet } from "./relief-sheet";
import { ResetSheet } from "./reset-sheet";

interface Given {
  readonly project: Project;
  readonly editing: ProjectEditing;
  readonly chosen: readonly string[];
}

/** Relief, putting back and emptying, as a project offers them: by the field, by the menu of its strips, each as a plan on a sheet. */
export function useRelief(given: Given): { readonly menu: MenuGroup; readonly sheet: ReactNode } {
  const [sheet, open] = useState<"relief" | "back" | "reset" | null>(null);
  const onClose = () => open(null);
  const canPutBack = reliefsOf(given.project).length > 0;
  const group = "Project";
  useActions([
    { id: "relieve", title: "Relieve plugins…", group, keys: ["Shift+R"], run: () => open("relief") },
    // Also where nothing is: the sheet says so, and what is still on its way is seen as soon as it is there.
    { id: "put-back", title: "Put back what was relieved…", group, keys: ["Shift+B"], run: () => open("back") },
    { id: "reset", title: "Back to empty…", group, run: () => open("reset") },
  ]);
  const sheets = { relief: ReliefSheet, back: PutBackSheet, reset: ResetSheet };
  const Open = sheet && sheets[sheet];
  return {
    menu: {
      id: "relief",
      items: [
        { id: "relieve", label: "Relieve plugins…", beside: "Shift R", onChoose: () => open("relief") },
        {
          id: "put-back",
          label: "Put back what was relieved…",
          beside: "Shift B",
          disabled: !canPutBack,
          onChoose: () => open("back"),
        },
        { id: "reset", label: "Back to empty…", onChoose: () => open("reset") },
      ],
    },
    sheet: Open && <Open {...given} onClose={onClose} />,
  };
}
