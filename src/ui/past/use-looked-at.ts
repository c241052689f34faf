"use client";

import { useSearchParams } from "next/navigation";
import { useEffect, useRef, useState } from "react";

/** At the least so long between two writings of the address, in milliseconds: browsers take no more than some a second. */
const PAUSE = 150;

const numberIn = (words: URLSearchParams, name: string): number | null => {
  const written = words.get(name);
  return written !== null && /^\d{1,9}$/.test(written) ? Number(written) : null;
};

/**
 * The moment of a project that is looked at, and the one that it is compared with, by the changes that they come after; they stand
 * in the address, as does whether only what concerned the strip in hand is listed. Without a moment there it is the newest, and stays that one while other windows go on.
 */
export function useLookedAt(project: string, revision: number) {
  const words = useSearchParams();
  const [at, look] = useState(() => Math.min(numberIn(words, "at") ?? revision, revision));
  const [beside, compareWith] = useState(() => {
    const asked = numberIn(words, "beside");
    return asked !== null && asked <= revision ? asked : null;
  });
  const [ofStrip, narrowToStrip] = useState(() => words.get("of") === "strip");
  const written = useRef(Number.NEGATIVE_INFINITY);
  useEffect(() => {
    const write = () => {
      const path = `/projects/${project}/past`;
      if (window.location.pathname !== path) return;
      const address = new URLSearchParams([
        ["at", String(at)],
        ...(beside === null ? [] : [["beside", String(beside)]]),
        ...(ofStrip ? [["of", "strip"]] : []),
      ]);
      window.history.replaceState(null, "", `${path}?${address}`);
      written.current = performance.now();
    };
    const wait = written.current + PAUSE - performance.now();
    // Whoever reloads at once finds what was looked at.
    if (wait <= 0) return write();
    const timer = setTimeout(write, wait);
    return () => clearTimeout(timer);
  }, [project, at, beside, ofStrip]);
  return { at, beside, look, compareWith, ofStrip, narrowToStrip };
}

export type LookedAt = ReturnType<typeof useLookedAt>;
