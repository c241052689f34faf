"use client";

import { useMemo, useState } from "react";
import { stripsById, type Project } from "@/core/projects/project";
import { applySteps } from "@/core/recall/apply";
import type { Step } from "@/core/recall/steps";
import type { Arranged } from "@/core/recall/arrange";
import { mintKey } from "../kit/mint";
import { sayError } from "../kit/say";
import type { ProjectEditing } from "../projects/editing";
import { type Amount, type Dial, TURN_LABELS, turnSteps } from "./turn";

export type Make = (project: Project) => readonly Step[];

/** Turns values of strips: shown while the hand is on them, committed when it lets go. */
export interface Turning {
  /** The project as it is shown: with what is being turned. */
  readonly project: Project;
  readonly preview: (strip: string, dial: Dial, amount: Amount) => void;
  readonly commit: (strip: string, dial: Dial, amount: Amount) => void;
  /** Nothing of what was previewed stays. */
  readonly drop: () => void;
  /** The strips that a turn of one is for: all that are chosen, where it is among them. */
  readonly together: (strip: string) => readonly string[];
  readonly change: (label: string, make: Make) => void;
}

export function useTurning(project: Project, editing: ProjectEditing, chosen: readonly string[]): Turning {
  const [steps, setSteps] = useState<readonly Step[]>([]);
  const shown = useMemo(() => {
    const applied = steps.length > 0 ? applySteps(project, steps) : null;
    return applied?.ok ? applied.value : project;
  }, [project, steps]);
  const together = (strip: string) =>
    (chosen.includes(strip) ? chosen : [strip]).filter((id) => stripsById(project).has(id));
  const change = (label: string, make: Make) => {
    setSteps([]);
    void editing.commit(label, make);
  };
  return {
    project: shown,
    preview: (strip, dial, amount) => setSteps(turnSteps(project, together(strip), { dial, amount }, mintKey)),
    commit: (strip, dial, amount) => {
      const strips = together(strip);
      change(TURN_LABELS[dial.of], (now) => turnSteps(now, strips, { dial, amount }, mintKey));
    },
    drop: () => setSteps([]),
    together,
    change,
  };
}

/** What is refused is said, and changes nothing. */
export const orRefuse =
  (make: (project: Project) => Arranged): Make =>
  (project) => {
    const made = make(project);
    if (made.ok) return made.value;
    sayError(made.error);
    return [];
  };
