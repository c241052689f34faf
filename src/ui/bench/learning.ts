"use client";

import { create } from "zustand";
import type { MacroTarget } from "@/core/chains/chain";

type Touched = Pick<MacroTarget, "node" | "param">;

interface Learning {
  readonly macro: string | null;
  readonly axis: number;
  readonly onTouch: ((target: Touched) => void) | null;
}

/** Which macro takes the next value that is touched. */
export const useLearning = create<Learning>(() => ({ macro: null, axis: 0, onTouch: null }));

export const startLearning = (learning: { macro: string; axis: number; onTouch: (target: Touched) => void }): void =>
  useLearning.setState(learning);

export const stopLearning = (): void => useLearning.setState({ macro: null, axis: 0, onTouch: null });

/** A value was touched: where a macro is learning it takes it, and the value stays as it is. True where one did. */
export function touched(target: Touched): boolean {
  const { onTouch } = useLearning.getState();
  if (!onTouch) return false;
  onTouch(target);
  stopLearning();
  return true;
}
