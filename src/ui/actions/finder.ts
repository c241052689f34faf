import { create } from "zustand";
import type { Completion } from "@/core/search/complete";

/** A screen that searches as one types lends the field its words; elsewhere the field lists what can be done. */
interface Finder {
  readonly words: string;
  readonly onWords: (words: string) => void;
  /** Down and Enter leave the field for the list. */
  readonly onLeave: () => void;
  readonly hint: string;
  /** How the words may go on. */
  readonly completions: readonly Completion[];
}

export const useFinder = create<{ readonly finder: Finder | null }>(() => ({ finder: null }));
