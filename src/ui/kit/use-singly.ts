"use client";

import { useCallback, useRef } from "react";

/** Does one piece of work at a time: a second press while one is under way is not a second piece of work. */
export function useSingly(): (work: () => Promise<unknown>) => Promise<void> {
  const underWay = useRef(false);
  return useCallback(async (work) => {
    if (underWay.current) return;
    underWay.current = true;
    try {
      await work();
    } finally {
      underWay.current = false;
    }
  }, []);
}
