import { errorText } from "./error-text";
import { create } from "zustand";

/** A word at the lower edge, with something to do about it. */
interface Saying {
  readonly action?: { readonly label: string; readonly onClick: () => void };
  /** How long it stands, in milliseconds; a few seconds where nothing is said. Infinity: until something takes its place. */
  readonly duration?: number;
  /** Takes the place of the last that was said under this name. */
  readonly id?: string;
}

/** Whether the place for words is asked for: by the first of them at the latest. Words that come before it wait for it. */
export const useWordsWanted = create<{ readonly wanted: boolean }>(() => ({ wanted: false }));
export const wantWords = (): void => useWordsWanted.setState({ wanted: true });

export function say(words: string, saying: Saying = {}): void {
  wantWords();
  // What takes the place of another has none of what that offered.
  void import("sonner").then(({ toast }) => toast(words, { action: undefined, ...saying }));
}

export function sayError(words: string, saying: Saying = {}): void {
  wantWords();
  void import("sonner").then(({ toast }) => toast.error(words, saying));
}

/** Takes back what was said under a name. */
export const unsay = (id: string): void => void import("sonner").then(({ toast }) => toast.dismiss(id));

/** Says why something was refused. */
export const orSay = (work: Promise<unknown>): void => void work.catch((error: unknown) => sayError(errorText(error)));
