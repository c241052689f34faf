import { AsyncLocalStorage } from "node:async_hooks";

/*
 * The window of a browser that asks: what is written says which one did it, so that its history can. It stands beside the
 * context, which all windows share.
 */

const asking = new AsyncLocalStorage<string | null>();

/** Does work for a window; null for one that did not say who it is. */
export const forWindow = <T>(window: string | null, work: () => T): T => asking.run(window, work);

/** The words for what was done, which say so where it was done in another window than asks. */
export function wordsFrom(window: string | null | undefined, words: string): string {
  const here = askingWindow();
  return here === null || window == null || window === here ? words : `${words} (done in another window)`;
}

/** Who asks; null where no window does. */
export const askingWindow = (): string | null => asking.getStore() ?? null;
