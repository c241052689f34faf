"use client";

import { useEffect, useEffectEvent } from "react";
import { create } from "zustand";
import type { MacroTarget } from "@/core/chains/chain";

export type Touched = Pick<MacroTarget, "node" | "param">;

/** An axis of a macro. */
export interface Learner {
  readonly macro: string;
  readonly axis: number;
}

interface Learning {
  readonly learner: Learner | null;
  readonly onTouch: ((learner: Learner, touched: Touched) => void) | null;
}

/** Which axis takes the values that are touched, until it is told to stop. */
export const useLearning = create<Learning>(() => ({ learner: null, onTouch: null }));

export const startLearning = (learner: Learner): void => useLearning.setState({ learner });

export const stopLearning = (): void => useLearning.setState({ learner: null });

/** A value was touched: where a macro is learning it takes it, and the value stays as it is. True where one did. */
export function touched(target: Touched): boolean {
  const { learner, onTouch } = useLearning.getState();
  if (!learner || !onTouch) return false;
  onTouch(learner, target);
  return true;
}

/** Takes what is touched as long as the component is there. */
export function useLearner(onTouch: NonNullable<Learning["onTouch"]>): void {
  const newest = useEffectEvent(onTouch);
  useEffect(() => {
    useLearning.setState({ onTouch: (learner, target) => newest(learner, target) });
    return () => useLearning.setState({ learner: null, onTouch: null });
  }, []);
}
