"use client";

import { useInHand } from "../projects/in-hand";
import { useOpenProject } from "../projects/open-project";

const DEFAULT_TEMPO = 120;

/** The tempo at which sounds are shown and heard: that of the project in hand. */
export function useTempo(): number {
  const project = useInHand((hand) => hand.project);
  return useOpenProject(project).body?.project.tempo ?? DEFAULT_TEMPO;
}
