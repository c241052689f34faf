"use client";

import { useEffect } from "react";
import { create } from "zustand";
import { persist } from "zustand/middleware";

interface InHand {
  /** The project that is worked on, and the strips chosen in it. */
  readonly project: string | null;
  readonly strips: readonly string[];
  /** What the bench was opened on last, as its address. */
  readonly bench: string | null;
  /** What was taken in hand last: strips of the project, or what is on the bench. */
  readonly last: "strips" | "bench";
  readonly alwaysPlan: boolean;
}

/** What is in hand on every screen; it survives a reload. */
export const useInHand = create<InHand>()(
  persist((): InHand => ({ project: null, strips: [], bench: null, last: "bench", alwaysPlan: false }), {
    name: "diathesis.hand",
    skipHydration: true,
  }),
);

function takeProject(project: string): void {
  useInHand.setState((hand) => (hand.project === project ? hand : { ...hand, project, strips: [] }));
}

/** A screen of a project takes it in hand, once what was in hand before the reload is known. */
export function useTakeProject(project: string | null): void {
  useEffect(() => {
    if (project === null) return;
    if (useInHand.persist.hasHydrated()) takeProject(project);
    else return useInHand.persist.onFinishHydration(() => takeProject(project));
  }, [project]);
}

export function chooseStrips(strips: readonly string[]): void {
  useInHand.setState({ strips, last: "strips" });
}

export function rememberBench(bench: string): void {
  useInHand.setState({ bench, last: "bench" });
}
