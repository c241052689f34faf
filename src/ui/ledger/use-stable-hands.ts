"use client";

import { useEffect, useMemo, useRef } from "react";
import type { Hands } from "./cells";

/** What a press or a key on the rows does, with the same functions at every turn. */
export function useStableHands(hands: Hands): Hands {
  const newest = useRef(hands);
  useEffect(() => {
    newest.current = hands;
  });
  return useMemo(
    () => ({
      press: (strip, column) => newest.current.press(strip, column),
      preview: (strip, dial, by) => newest.current.preview(strip, dial, by),
      commit: (strip, dial, by) => newest.current.commit(strip, dial, by),
      drop: () => newest.current.drop(),
      fold: (strip) => newest.current.fold(strip),
    }),
    [],
  );
}
