"use client";

import { usePathname } from "next/navigation";
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import type { PresetPage } from "@/contracts/library";
import { completionsOf } from "@/core/search/complete";
import { cutQuery } from "@/core/search/written";
import { useFinder } from "../actions/finder";
import { formatCount } from "@/core/names/count";
import { say } from "../kit/say";
import { searchNow } from "./in-address";
import type { Filter } from "./use-library";

/**
 * The words that are looked for: at once as they are typed, and in the address with them. What a screen is told of its
 * address is slower than a hand that types; where it changes, what was written there by now is read.
 */
export function useWords(
  inAddress: string,
  set: (changes: Partial<Record<Filter, string | undefined>>, remember?: boolean) => void,
) {
  const [words, setWords] = useState(inAddress);
  const [home] = useState(usePathname());
  useEffect(() => {
    // On the way to another screen the list stays as it is.
    if (window.location.pathname !== home) return;
    // Not before now: the window's address changes after a screen is drawn for it.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setWords(searchNow().get("q") ?? "");
  }, [inAddress, home]);
  const type = useCallback(
    (typed: string) => {
      const next = cutQuery(typed);
      if (next !== typed) say(`Only the first ${formatCount(next.length)} letters are looked for.`);
      setWords(next);
      set({ q: next === "" ? undefined : next }, false);
    },
    [set],
  );
  return { words, type };
}

interface LentField {
  readonly words: string;
  readonly onWords: (words: string) => void;
  readonly facets: PresetPage["facets"] | undefined;
  readonly onLeave: () => void;
}

/** Lends the field on top to the list: what is typed there filters as one types. */
export function useLibraryFinder({ words, onWords, facets, onLeave }: LentField) {
  const leave = useRef(onLeave);
  useEffect(() => {
    leave.current = onLeave;
  });
  useLayoutEffect(() => {
    useFinder.setState({
      finder: {
        words,
        onWords,
        onLeave: () => leave.current(),
        hint: "Find by name, tag, artist:, has:, rating:",
        completions: completionsOf(words, facets ?? {}),
      },
    });
  }, [words, onWords, facets]);
  useEffect(() => () => useFinder.setState({ finder: null }), []);
}
