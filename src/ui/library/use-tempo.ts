"use client";

import { useHand } from "../frame/hand";
import { useProjectEditing } from "../projects/editing";

const DEFAULT_TEMPO = 120;

/** The tempo at which sounds are shown and heard: that of the project in hand. */
export function useTempo(): number {
  const project = useHand((hand) => hand.project);
  return useProjectEditing(project).body?.project.tempo ?? DEFAULT_TEMPO;
}
