/** A word at the lower edge, with something to do about it. */
interface Saying {
  readonly action?: { readonly label: string; readonly onClick: () => void };
  /** How long it stands, in milliseconds; a few seconds where nothing is said. */
  readonly duration?: number;
}

/** What shows the words is fetched with the first of them. */
export function say(words: string, saying: Saying = {}): void {
  void import("sonner").then(({ toast }) => toast(words, saying));
}

export function sayError(words: string, saying: Saying = {}): void {
  void import("sonner").then(({ toast }) => toast.error(words, saying));
}
