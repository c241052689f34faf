import { refuse } from "../failure";
import { askingWindow } from "./window";

/*
 * Long work that a window has under way: how far it is, and a way to stop it, which leaves nothing half, since it is thrown
 * out of its transaction.
 */

interface Work {
  done: number;
  readonly of: number;
  stopped: boolean;
}

const UNDER_WAY = new Map<string, Work>();

/** How far the work of the asking window is; null where it has none under way. */
export function workUnderWay(): { readonly done: number; readonly of: number } | null {
  const work = UNDER_WAY.get(askingWindow() ?? "");
  return work ? { done: work.done, of: work.of } : null;
}

/** Stops the work of the asking window at its next step; false where it has none under way. */
export function stopWork(): boolean {
  const work = UNDER_WAY.get(askingWindow() ?? "");
  if (work) work.stopped = true;
  return work !== undefined;
}

/** Does work of so many steps, each of which says that it is done; refused where it is stopped. */
export async function stepByStep<T>(of: number, work: (onStep: () => void) => Promise<T>): Promise<T> {
  const window = askingWindow();
  const own: Work = { done: 0, of, stopped: false };
  if (window !== null) UNDER_WAY.set(window, own);
  try {
    return await work(() => {
      if (own.stopped) refuse("refused", "It was stopped. Nothing was changed.");
      own.done++;
    });
  } finally {
    if (window !== null && UNDER_WAY.get(window) === own) UNDER_WAY.delete(window);
  }
}
